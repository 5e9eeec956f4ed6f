import assert from 'node:assert/strict'
import { test } from 'node:test'
import type { Catalogue, Item } from '../api/types'
import { counted, kindName, kindTitle, madeText, shortStock, tradeOf } from './names'

test('kinds are named as the catalogue has them', () => {
  const c = {
    bases: [
      { id: 'zFold', name: 'Z-fold', lower: 'Z-fold' },
      { id: 'tent', name: 'Tent', lower: 'tent' },
    ],
  } as unknown as Catalogue
  assert.equal(kindTitle(c, 'tent'), 'Tent')
  assert.equal(kindName(c, 'tent'), 'tent')
  assert.equal(kindName(c, 'zFold'), 'Z-fold')
  assert.equal(kindTitle(c, 'easel'), '', 'what is not known has no name')
})

test('a trade size is known in either direction, nearly the same is not', () => {
  const c = { trades: [{ id: 'a7', name: 'A7', width: 127, height: 177.8 }] } as unknown as Catalogue
  assert.equal(tradeOf(c, 127, 177.8)?.name, 'A7')
  assert.equal(tradeOf(c, 177.8, 127)?.name, 'A7')
  assert.equal(tradeOf(c, 127, 177), undefined)
})

test('how a thing is made is said in a few words', () => {
  const say = (it: unknown, carrier?: string) => madeText(it as Item, carrier, 'Cream card 216 g')
  assert.equal(say({ made: { as: 'printed' } }), 'printed on the base')
  assert.equal(say({ made: { as: 'printed' } }, 'Label'), 'printed on Label')
  assert.equal(say({ made: { as: 'cut', stock: 'cream-216' } }), 'Cream 216 g')
  assert.equal(say({ made: { as: 'cut', stock: 'cream-216', lift: 1 } }), 'Cream 216 g · foam 1 mm')
  assert.equal(say({ made: { as: 'line' }, lines: { role: 'valley' } }), 'valley score in the base')
  assert.equal(say({ made: { as: 'line' }, lines: { role: 'guide' } }), 'never printed or cut')
  assert.equal(say({ made: { as: 'printed' }, slot: { takes: 'photo' } }), 'waits for a photo')
  assert.equal(shortStock('Satin photo 240 g'), 'Satin photo 240 g')
})

test('names are counted in the order of the first', () => {
  assert.equal(counted(['Flag', 'O', 'Flag', 'Flag', 'P']), 'Flag ×3, O, P')
  assert.equal(counted([]), '')
})
