import assert from 'node:assert/strict'
import { test } from 'node:test'
import { about, apply, centre, shift, then, turn, union, type Matrix } from './geom'

const near = (a: number, b: number) => assert.ok(Math.abs(a - b) < 1e-9, `${a} is not ${b}`)

test('then does the first map first', () => {
  const m = then(shift(1, 0), turn(90))
  const p = apply(m, { x: 1, y: 0 })
  near(p.x, 0)
  near(p.y, 2)
})

test('about leaves its point where it is', () => {
  const stretch: Matrix = [2, 0, 0, 3, 0, 0]
  for (const m of [stretch, turn(33)]) {
    const p = apply(about(m, { x: 5, y: -2 }), { x: 5, y: -2 })
    near(p.x, 5)
    near(p.y, -2)
  }
})

test('union encloses all and nothing more', () => {
  const u = union([
    { x: 0, y: 0, w: 2, h: 2 },
    { x: 5, y: -1, w: 1, h: 1 },
  ])
  assert.deepEqual(u, { x: 0, y: -1, w: 6, h: 3 })
  assert.deepEqual(centre(u), { x: 3, y: 0.5 })
})
