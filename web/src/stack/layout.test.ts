import assert from 'node:assert/strict'
import { test } from 'node:test'
import type { SceneFace } from '../api/types'
import { elevation as drawn, rowsOf, ROW } from './layout'

const piece = (id: string, from: number, to: number, lift = 0, x = 0, w = 100) => ({
  id,
  piece: true,
  bounds: { x, y: 0, w, h: 10 },
  from,
  to,
  lift,
  fill: {},
  ground: '#fff',
})
const face = (items: unknown[], thickness: number) =>
  ({ width: 100, height: 100, items, thickness }) as unknown as SceneFace
const elevation = (f: SceneFace, leaf: number, ground: string, colours: (p: string) => string, open = false) =>
  drawn(
    f,
    rowsOf(f.items, () => open),
    leaf,
    ground,
    colours,
  )

test('papers are drawn in one scale, from the base up', () => {
  const e = elevation(face([piece('a', 0.4, 0.7), piece('b', 0.7, 2, 1)], 2), 0.4, '#eee', () => '#000')
  const [base, a, b] = e.bars
  assert.ok(base && a && b)
  assert.deepEqual(
    e.bars.map((x) => x.row),
    [2, 1, 0],
    'names run from the top of the stack down',
  )
  const scale = a.h / 0.3
  assert.ok(Math.abs(b.h - 0.3 * scale) < 1e-9)
  assert.ok(Math.abs(b.feet[0]!.h - 1 * scale) < 1e-9, 'foam has its height')
  assert.ok(Math.abs(a.y + a.h - base.y) < 1e-9, 'a lies on the base')
  assert.ok(Math.abs(b.feet[0]!.y - (b.y + b.h)) < 1e-9, 'b stands on its foam')
  assert.ok(base.y + base.h <= e.height)
})

test('a paper is as wide as it is on the face, and never gone', () => {
  const e = elevation(
    face([piece('half', 0.4, 0.7, 0, 25, 50), piece('off', 0.4, 0.7, 0, 300, 5)], 0.7),
    0.4,
    '#eee',
    () => '#000',
  )
  const [base, half, off] = e.bars
  assert.ok(base && half && off)
  assert.equal(half.w, base.w / 2)
  assert.ok(off.w > 0)
})

test('every name has its row, and the drawing is as high as the rows', () => {
  const many = Array.from({ length: 9 }, (_, i) => piece('p' + i, 0.4, 0.7))
  const e = elevation(face(many, 0.7), 0.4, '#eee', () => '#000')
  assert.equal(e.height, 10 * ROW)
  for (const b of e.bars) assert.match(b.leader, new RegExp(` ${b.row * ROW + 16}$`))
})

test('what is part of the outline of a piece has a row while that is open, and no bar', () => {
  const part = (id: string, on: string) => ({ ...piece(id, 1, 1), piece: false, joined: 'carved', on })
  const f = face([piece('a', 0.4, 0.7), part('x', 'a'), part('y', 'a'), piece('b', 0.7, 1)], 1)
  const open = (id: string) => id === 'a'
  assert.deepEqual(
    rowsOf(f.items, () => false),
    ['b', 'a', ''],
  )
  assert.deepEqual(rowsOf(f.items, open), ['b', 'a', 'y', 'x', ''])
  const bars = drawn(f, rowsOf(f.items, open), 0.4, '#eee', () => '#000').bars
  assert.deepEqual(
    bars.map((b) => [b.id, b.row]),
    [
      ['', 4],
      ['a', 1],
      ['b', 0],
    ],
  )
})
