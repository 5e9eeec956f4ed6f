import assert from 'node:assert/strict'
import { test } from 'node:test'
import type { SceneFace } from '../api/types'
import { around, foldLines, snap } from './snap'

const face = { x: 0, y: 0, w: 100, h: 200 }

test('edges and middles draw what comes near', () => {
  const s = snap({ x: 39.5, y: 60, w: 20, h: 20 }, around([face], []), 1)
  assert.equal(s.dx, 0.5, 'the middle of the box goes to the middle of the face')
  assert.equal(s.dy, 0)
  assert.deepEqual(s.lines, [{ axis: 'x', at: 50 }])
})

test('the nearest of several lines wins', () => {
  const other = { x: 30.2, y: 400, w: 5, h: 5 }
  const s = snap({ x: 29.5, y: 60, w: 20, h: 20 }, around([face], [other]), 2)
  // Its left edge is 0.7 from the other's, its middle 10.5 from the face's, its right edge 0.5 from the face's middle.
  assert.equal(s.dx, 0.5)
})

test('folds and guides are lines to catch on', () => {
  const s = snap({ x: 30, y: 71.6, w: 20, h: 20 }, around([], [], [{ axis: 'y', at: 72 }]), 1)
  assert.deepEqual(s.lines, [{ axis: 'y', at: 72 }])
  assert.ok(Math.abs(s.dy - 0.4) < 1e-9)
})

test('gaps become equal between neighbours and beyond them', () => {
  const a = { x: 0, y: 0, w: 10, h: 10 }
  const b = { x: 50, y: 2, w: 10, h: 10 }
  const between = snap({ x: 25.7, y: 1, w: 8, h: 6 }, around([], [a, b]), 1)
  assert.ok(Math.abs(between.dx - 0.3) < 1e-9, 'sixteen on either side')
  assert.deepEqual(
    between.gaps.map((g) => [g.axis, g.from, g.to]),
    [
      ['x', 10, 26],
      ['x', 34, 50],
    ],
  )
  const c = { x: 14, y: 1, w: 10, h: 10 }
  const after = snap({ x: 28.4, y: 1, w: 7, h: 6 }, around([], [a, c]), 1)
  assert.ok(Math.abs(after.dx + 0.4) < 1e-9, 'four, as between the two before it')
  const apart = snap({ x: 25.7, y: 40, w: 8, h: 6 }, around([], [a, b]), 0.5)
  assert.deepEqual(apart.gaps, [], 'what lies elsewhere is no neighbour')
})

test('nothing within reach leaves the box alone', () => {
  const still = { dx: 0, dy: 0, lines: [], gaps: [] }
  assert.deepEqual(snap({ x: 23, y: 47, w: 11, h: 13 }, around([face], []), 1), still)
  assert.deepEqual(snap({ x: 0.4, y: 0.4, w: 11, h: 13 }, around([], []), 1), still)
})

test('level and upright folds are lines to catch on, slanting ones are not', () => {
  const fold = (x0: number, y0: number, x1: number, y1: number) => ({ from: { x: x0, y: y0 }, to: { x: x1, y: y1 } })
  const folds = [fold(10, 0, 10, 90), fold(0, 40, 90, 40), fold(0, 0, 50, 60)]
  assert.deepEqual(foldLines({ folds } as unknown as SceneFace), [
    { axis: 'x', at: 10 },
    { axis: 'y', at: 40 },
  ])
  assert.deepEqual(foldLines({} as SceneFace), [])
})

test('a single point catches on lines and on middles', () => {
  const s = snap({ x: 49.7, y: 12, w: 0, h: 0 }, around([face], [], [{ axis: 'y', at: 12.2 }]), 1)
  assert.deepEqual([Math.round(s.dx * 10), Math.round(s.dy * 10)], [3, 2])
})
