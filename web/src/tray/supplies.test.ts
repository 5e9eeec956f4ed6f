import assert from 'node:assert/strict'
import { test } from 'node:test'
import type { SceneFace, Sketch } from '../api/types'
import { asLast, fontSupply, laid, paperSupply, photoSupply, settled, shapeSupply, shapes } from './supplies'

const first = { photo: 'satin', paper: 'text', piece: 'white', bleed: 1 }
const face = { width: 127, height: 177.8 }
const at = { x: 60, y: 70 }

test('photos come in at four inches or what the face has room for, unstretched', () => {
  const p = (width: number, height: number) =>
    photoSupply(first)({ id: 'a', name: 'A', type: 'image/jpeg', width, height, bytes: 1 }).make(face, at).photo!
  const wide = p(3000, 2000)
  assert.ok(Math.abs(wide.width / wide.height - 1.5) < 1e-9)
  assert.ok(wide.width <= 101.6 + 1e-9 && wide.width <= face.width * 0.8 + 1e-9)
  const tall = p(1000, 4000)
  assert.ok(tall.height <= 101.6 + 1e-9)
  assert.ok(Math.abs(tall.height / tall.width - 4) < 1e-9)
})

test('papers leave an even border', () => {
  const it = paperSupply(first)({
    id: 'x',
    name: 'X',
    ground: '#fff',
    width: 10,
    height: 10,
    marks: [],
    upright: false,
  }).make(face, at)
  assert.ok(Math.abs((face.width - it.form!.width) / 2 - 6.35) < 0.8)
  assert.deepEqual(it.place, { x: 60, y: 70, turn: 0 })
  assert.equal(it.fill.paper, 'x')
})

test('shapes fit on a small face too', () => {
  for (const s of shapes) {
    const small = shapeSupply(first)(s).make({ width: 30, height: 40 }, at)
    assert.ok(small.form!.width <= 30 && small.form!.height <= 40, s.name)
    const usual = shapeSupply(first)(s).make(face, at)
    assert.ok(Math.abs(usual.form!.width / usual.form!.height - s.w / s.h) < 1e-9, s.name)
  }
})

test('words begin as ink', () => {
  const it = fontSupply({ id: 'f', name: 'F', kind: 'book', ascent: 1, descent: 0.2 }).make(face, at)
  assert.equal(it.made.as, 'printed')
  assert.ok(it.fill.colour)
})

test('what is dropped roughly lies straight', () => {
  const scene = { ...face, safe: { x: 5, y: 5, w: 117, h: 167.8 } } as unknown as SceneFace
  const drop = (s: Parameters<ReturnType<typeof shapeSupply>>[0], x: number, y: number) =>
    settled(shapeSupply(first)(s).make(face, { x, y }), scene).place
  const circle = shapes.find((s) => s.id === 'circle')!
  assert.deepEqual(drop(circle, 62, 87), { x: 63.5, y: 88.9, turn: 0 }, 'near the middle')
  assert.deepEqual(drop(circle, 50, 70), { x: 50, y: 70, turn: 0 }, 'near nothing')
  assert.equal(drop(circle, 33, 70).x, 5 + 25.4, 'its edge on the safe line')
  const paper = paperSupply(first)({
    id: 'x',
    name: 'X',
    ground: '#fff',
    width: 10,
    height: 10,
    marks: [],
    upright: false,
  })
  assert.deepEqual(settled(paper.make(face, { x: 20, y: 150 }), scene).place, { x: 63.5, y: 88.9, turn: 0 })
  const words = fontSupply({ id: 'f', name: 'F', kind: 'book', ascent: 1, descent: 0.2 }).make(face, { x: 62, y: 87 })
  assert.equal(settled(words, scene), words, 'words have no size yet')
})

test('a sketch is laid as it is, or evenly to a smaller face', () => {
  const slot = {
    id: 'a',
    name: 'Photo',
    kind: 'slot',
    place: { x: 20, y: 40, turn: 0 },
    made: { as: 'printed' },
    fill: {},
    form: { outline: 'rectangle', corner: 'round', radius: 4, width: 30, height: 20 },
    slot: { takes: 'photo', fill: {}, made: { as: 'printed' } },
  }
  const k = { id: 'k', title: 'K', faceWidth: 100, faceHeight: 200, items: [slot] } as unknown as Sketch
  assert.deepEqual(laid(k, { width: 100, height: 200 }), [slot])
  const half = laid(k, { width: 80, height: 100 })[0]!
  assert.deepEqual(half.place, { x: 40 - 15, y: 50 - 30, turn: 0 }, 'about the middle')
  assert.deepEqual([half.form?.width, half.form?.height, half.form?.radius], [15, 10, 2])
  assert.equal(k.items[0]!.form!.width, 30, 'the sketch stays as it is')
})

test('new things begin with the stock and the ink that were used last', () => {
  const face = { width: 127, height: 177.8 }
  const at = { x: 60, y: 60 }
  const none = { stock: '', ink: '' }
  const used = { stock: 'kraft-280', ink: '#35658c' }
  const shape = shapeSupply(first)(shapes[0]!).make(face, at)
  assert.equal(asLast(shape, none), shape)
  assert.deepEqual(asLast(shape, used), { ...shape, made: { ...shape.made, stock: 'kraft-280' } })
  const words = fontSupply({ id: 'pacifico-400', name: 'Pacifico' } as Parameters<typeof fontSupply>[0]).make(face, at)
  assert.equal(asLast(words, used).fill.colour, '#35658c')
  assert.equal(asLast(words, none), words)
})
