import assert from 'node:assert/strict'
import { test } from 'node:test'
import { wayBack } from '../parts/geom'
import { along, same } from './points'

const rings = [
  { closed: true, nodes: [{ at: { x: 0, y: 0 } }, { at: { x: 1, y: 0 } }] },
  { closed: false, nodes: [{ at: { x: 5, y: 5 } }] },
]

test('points follow each other round all rings', () => {
  let at = along(rings, undefined, 1)
  const seen = [at]
  for (let i = 0; i < 3; i++) seen.push((at = along(rings, at, 1)))
  assert.deepEqual(seen, [
    { ring: 0, node: 0 },
    { ring: 0, node: 1 },
    { ring: 1, node: 0 },
    { ring: 0, node: 0 },
  ])
  assert.deepEqual(along(rings, { ring: 0, node: 0 }, -1), { ring: 1, node: 0 })
  assert.equal(along([], undefined, 1), undefined)
  assert.ok(same({ ring: 1, node: 2 }, { ring: 1, node: 2 }))
})

test('a way on the face is one in the item that is turned and mirrored', () => {
  const d = wayBack([0, 1, 1, 0, 40, 9], { x: 3, y: 7 })
  assert.deepEqual([Math.round(d.x * 1e6) / 1e6, Math.round(d.y * 1e6) / 1e6], [7, 3])
})
