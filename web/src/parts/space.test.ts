import assert from 'node:assert/strict'
import { test } from 'node:test'
import { corners, facing, onPlane, project, type Eye } from './space'

const still = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0] as Parameters<typeof project>[1]

test('the inside is seen, turned over as the card opens', () => {
  const eye: Eye = { over: 'upright', yaw: 0, pitch: 0 }
  assert.deepEqual(
    project(eye, still, { x: 3, y: 4 }).map((v) => v + 0),
    [-3, 4, 0],
  )
  const level: Eye = { over: 'level', yaw: 0, pitch: 0 }
  assert.deepEqual(
    project(level, still, { x: 3, y: 4 }).map((v) => v + 0),
    [3, -4, 0],
  )
})

test('a sheet seen at a slant is foreshortened by the slant alone', () => {
  const m = onPlane({ over: 'level', yaw: 0, pitch: Math.PI / 3 }, still)
  assert.ok(Math.abs(facing(m) - 0.5) < 1e-9)
  assert.ok(m[0] * m[3] - m[1] * m[2] < 0, 'from inside the sheet is mirrored')
})

test('corners are read off path data', () => {
  assert.deepEqual(corners('M0 0L10 0L10 -5.500Z'), [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
    { x: 10, y: -5.5 },
  ])
})
