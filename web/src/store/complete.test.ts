import assert from 'node:assert/strict'
import { test } from 'node:test'
import type { View } from '../api/types'
import { changed, complete, differing } from './complete'

interface Small {
  id: string
  name: string
}
const item = (id: string, name = id): Small => ({ id, name })
/** A view of one face, or two, with these items. */
function view(faces: Record<string, Small[]>, order?: Record<string, string[]>): View {
  return {
    card: { faces: Object.entries(faces).map(([id, items]) => ({ id, items })) },
    scene: {
      net: { faces: Object.keys(faces).map((id) => ({ id })) },
      faces: Object.entries(faces).map(([id, items]) => ({ id, items })),
    },
    ...(order ? { order: Object.entries(order).map(([face, ids]) => ({ face, seen: ids, all: ids })) } : {}),
  } as unknown as View
}
const names = (v: View, face: string) => v.scene.faces.find((f) => f.id === face)?.items.map((i) => i.name)

test('what is not told stays the very same', () => {
  const was = view({ front: [item('a'), item('b')], back: [item('c')] })
  const part = view({ front: [item('b', 'B')] }, { front: ['a', 'b'] })
  part.scene.net.faces = was.scene.net.faces
  part.card.faces = view({ front: [item('b', 'B')], back: [] }, {}).card.faces
  part.order!.push({ face: 'back', seen: ['c'], all: ['c'] } as never)
  complete(part, was)
  assert.deepEqual(names(part, 'front'), ['a', 'B'])
  assert.equal(part.scene.faces[0]!.items[0], was.scene.faces[0]!.items[0], 'not a copy')
  assert.equal(part.scene.faces[1], was.scene.faces[1], 'a face that is not told')
  assert.deepEqual(
    part.card.faces.map((f) => f.items.map((i) => i.name)),
    [['a', 'B'], ['c']],
  )
})

test('the order told is the order, and what it leaves out is gone', () => {
  const was = view({ front: [item('a'), item('b'), item('c')] })
  const part = view({ front: [item('d')] }, { front: ['d', 'c', 'a'] })
  complete(part, was)
  assert.deepEqual(names(part, 'front'), ['d', 'c', 'a'])
})

test('faces that another base does not have are gone', () => {
  const was = view({ front: [item('a')], flap: [item('b')] })
  const part = view({ front: [] }, { front: ['a'] })
  complete(part, was)
  assert.deepEqual(
    part.scene.faces.map((f) => f.id),
    ['front'],
  )
  assert.deepEqual(names(part, 'front'), ['a'])
})

test('which faces and which items differ', () => {
  const was = view({ front: [item('a'), item('b')], back: [item('c')], inside: [] })
  const now = view({ front: [item('a'), item('b', 'B')], back: [item('c')], inside: [item('d')] })
  assert.deepEqual(differing(was, now), ['front', 'inside'])
  assert.deepEqual(
    changed(was, now).map((it) => it.id),
    ['b'],
    'what is new has not changed',
  )
  assert.deepEqual(changed(was, was), [])
})
