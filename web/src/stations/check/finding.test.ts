import assert from 'node:assert/strict'
import { test } from 'node:test'
import type { Catalogue, Finding, View } from '../../api/types'
import { keyOf, placeOf, subject, titleOf } from './finding'

const f = (part: Partial<Finding>) =>
  ({ check: 'small', weight: 'note', face: 'front', why: '', by: 0, ...part }) as Finding
const catalogue = {
  checks: [
    { id: 'small', reads: 'scene', title: 'is set very small', matters: '' },
    { id: 'room', reads: 'sheets', title: 'has no room', matters: '' },
  ],
} as unknown as Catalogue
const view = {
  card: { faces: [{ id: 'front', items: [{ id: 'i1', name: 'Label' }] }] },
  scene: { faces: [{ id: 'front', name: 'Front', items: [] }] },
} as unknown as View

test('a finding is headed by its thing, or by the card', () => {
  assert.equal(titleOf(catalogue, view, f({ item: 'i1' })), '“Label” is set very small')
  assert.equal(titleOf(catalogue, view, f({ check: 'room' as never })), 'The card has no room')
  assert.equal(subject(view, f({ item: 'i9' })), '')
})

test('it belongs to its face, the sheets or the card', () => {
  assert.equal(placeOf(catalogue, view, f({ item: 'i1' })), 'Front')
  assert.equal(placeOf(catalogue, view, f({ check: 'room' as never })), 'Sheets')
  assert.equal(placeOf(catalogue, view, f({})), 'Card')
})

test('two findings of one check about one thing are two, and stay so', () => {
  const all = [f({ item: 'i1', why: 'a' }), f({ item: 'i1', why: 'b' }), f({ item: 'i2' })]
  const keys = all.map((k) => keyOf(k, all))
  assert.equal(new Set(keys).size, 3)
  const again = [f({ item: 'i1', why: 'in other words' }), ...all.slice(1)]
  assert.equal(keyOf(again[0]!, again), keys[0])
})
