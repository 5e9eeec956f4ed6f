import assert from 'node:assert/strict'
import { test } from 'node:test'
import * as three from 'three'
import { Moved } from './moved'

type Motion = Parameters<Moved['move']>[0][number]
const still: Motion = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0]
/** A quarter turn about the y axis, and 10 along x. */
const turned: Motion = [0, 0, 1, 10, 0, 1, 0, 0, -1, 0, 0, 0]

const sheet = (w: number) => {
  const g = new three.PlaneGeometry(w, 2)
  g.deleteAttribute('uv')
  return g
}
const places = (m: Moved) => Array.from(m.geometry.attributes.position!.array)

test('each form moves on its own, with its own corners', () => {
  const forms = [sheet(2), sheet(4)]
  const m = new Moved(forms, new three.Color(1, 1, 1))
  m.move([still, turned], () => 1)
  const got = places(m)
  assert.deepEqual(got.slice(0, 12), Array.from(forms[0]!.attributes.position!.array))
  // (x, y, 0) comes to (10, y, -x).
  const was = Array.from(forms[1]!.attributes.position!.array)
  for (let k = 0; k < was.length; k += 3)
    assert.deepEqual([got[12 + k], got[13 + k], got[14 + k]! + 0], [10, was[k + 1], 0 - was[k]!])
  assert.equal(Math.max(...m.geometry.index!.array), 7, 'triangles of the second name its own corners')
})

test('a form is as light as it faces', () => {
  const m = new Moved([sheet(2), sheet(2)], new three.Color(1, 0.5, 0))
  m.move([still, turned], (x, _y, z) => (z > 0.5 ? 1 : x > 0.5 ? 0.5 : 0))
  const paint = Array.from(m.geometry.attributes.color!.array)
  assert.deepEqual(paint.slice(0, 3), [1, 0.5, 0])
  assert.deepEqual(paint.slice(12, 15), [0.5, 0.25, 0])
})

test('a form without a motion stays where it was', () => {
  const m = new Moved([sheet(2), sheet(2)], new three.Color(1, 1, 1))
  m.move([turned, turned], () => 1)
  const before = places(m).slice(12)
  m.move([still], () => 1)
  assert.deepEqual(places(m).slice(12), before)
})
