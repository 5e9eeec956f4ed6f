import assert from 'node:assert/strict'
import { test } from 'node:test'
import type { Catalogue, Picture, Sketch } from '../api/types'
import { fontSupply, photoSupply, placeSupply, shapeSupply, sketchSupply } from './supplies'

const last = { stock: 'kraft-280', ink: '#35658c' }
const at = { x: 60, y: 70 }

test('a supply is asked for with what is known of it alone', () => {
  const photo = photoSupply({ id: 'a', name: 'Lake', type: 'image/jpeg', width: 300, height: 200, bytes: 1 } as Picture)
  assert.deepEqual(placeSupply(photo, 'front', last, at, true), {
    do: 'placeSupply',
    face: 'front',
    kind: 'photo',
    id: 'a',
    name: 'Lake',
    pixelWidth: 300,
    pixelHeight: 200,
    at,
    along: true,
  })
  const tag = shapeSupply({ id: 'tag', name: 'Tag', preview: 'M0 0' } as Catalogue['shapes'][number])
  assert.deepEqual(placeSupply(tag, 'front', last), {
    do: 'placeSupply',
    face: 'front',
    kind: 'shape',
    id: 'tag',
    name: 'Tag',
    stock: 'kraft-280',
  })
  const words = placeSupply(fontSupply({ id: 'f', name: 'F' } as Catalogue['fonts'][number]), 'front', last)
  assert.deepEqual(words, { do: 'placeSupply', face: 'front', kind: 'lettering', id: 'f', colour: '#35658c' })
})

test('a picture on no ground is laid with its edge', () => {
  const p = { id: 'b', name: 'Robin', type: 'image/png', width: 20, height: 10, bytes: 1, clear: true } as Picture
  const laid = placeSupply(photoSupply(p), 'front', last, undefined, false, 'M0 0L9 0L9 9Z')
  assert.equal((laid as { edge?: string }).edge, 'M0 0L9 0L9 9Z')
  assert.ok(!('edge' in placeSupply(photoSupply(p), 'front', last)))
})

test('a sketch is laid with the size of the face that it was laid on', () => {
  const k = { id: 'k', title: 'K', faceWidth: 100, faceHeight: 200, items: [], groups: undefined } as unknown as Sketch
  assert.deepEqual(placeSupply(sketchSupply(k), 'back', last, at), {
    do: 'placeSketch',
    face: 'back',
    width: 100,
    height: 200,
    items: [],
    groups: [],
  })
})
