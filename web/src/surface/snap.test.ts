import assert from 'node:assert/strict'
import { test } from 'node:test'
import { snap } from './snap'

const face = { x: 0, y: 0, w: 100, h: 200 }

test('edges and middles draw what comes near', () => {
  const s = snap({ x: 39.5, y: 60, w: 20, h: 20 }, [face], 1)
  assert.equal(s.dx, 0.5, 'the middle of the box goes to the middle of the face')
  assert.equal(s.dy, 0)
  assert.deepEqual(s.lines, [{ axis: 'x', at: 50 }])
})

test('the nearest of several lines wins', () => {
  const other = { x: 30.2, y: 400, w: 5, h: 5 }
  const s = snap({ x: 29.5, y: 60, w: 20, h: 20 }, [face, other], 2)
  // Its left edge is 0.7 from the other's, its middle 10.5 from the face's, its right edge 0.5 from the face's middle.
  assert.equal(s.dx, 0.5)
})

test('nothing within reach leaves the box alone', () => {
  assert.deepEqual(snap({ x: 23, y: 47, w: 11, h: 13 }, [face], 1), { dx: 0, dy: 0, lines: [] })
  assert.deepEqual(snap({ x: 0.4, y: 0.4, w: 11, h: 13 }, [], 1), { dx: 0, dy: 0, lines: [] })
})
