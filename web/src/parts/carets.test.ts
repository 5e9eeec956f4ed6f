import assert from 'node:assert/strict'
import { test } from 'node:test'
import { chosenPath, letters, nearest, place } from './carets'

const row = (y: number, ...xs: number[]) => xs.map((x) => ({ at: { x, y }, up: { x: 0, y: -8 } }))

test('letters beyond the basic plane are counted once', () => {
  const text = 'a🌼bé'
  assert.deepEqual(
    [0, 1, 3, 4, 5].map((i) => letters(text, i)),
    [0, 1, 2, 3, 4],
  )
  assert.deepEqual(
    [0, 1, 2, 3, 4].map((i) => place(text, i)),
    [0, 1, 3, 4, 5],
  )
  for (let i = 0; i <= 4; i++) assert.equal(letters(text, place(text, i)), i)
})

test('a point goes to the caret it is nearest to, in its line', () => {
  const carets = [...row(0, 0, 5, 11), ...row(12, 0, 6)]
  assert.equal(nearest(carets, { x: 2, y: -3 }), 0)
  assert.equal(nearest(carets, { x: 3, y: -3 }), 1)
  assert.equal(nearest(carets, { x: 60, y: -3 }), 2)
  assert.equal(nearest(carets, { x: 60, y: 9 }), 4)
  assert.equal(nearest(carets, { x: -20, y: 30 }), 3)
})

test('a point beside turned letters goes to the nearest of them', () => {
  const carets = [
    { at: { x: 0, y: 0 }, up: { x: -6, y: -6 } },
    { at: { x: 10, y: -4 }, up: { x: 0, y: -8 } },
    { at: { x: 20, y: 0 }, up: { x: 6, y: -6 } },
  ]
  assert.equal(nearest(carets, { x: -5, y: -4 }), 0)
  assert.equal(nearest(carets, { x: 25, y: -6 }), 2)
})

test('what is chosen has a part for every letter, and none between lines', () => {
  const carets = [...row(0, 0, 5, 11), ...row(12, 0, 6)]
  const parts = (from: number, to: number) => chosenPath(carets, from, to).split('M').length - 1
  assert.equal(parts(0, 2), 2)
  assert.equal(parts(0, 4), 3)
  assert.equal(parts(1, 1), 0)
  assert.equal(chosenPath(carets, 0, 1), 'M0 2L0 -8L5 -8L5 2Z')
})
