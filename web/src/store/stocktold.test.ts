import assert from 'node:assert/strict'
import test from 'node:test'
import type { Card, Command } from '../api/types'
import { newStocks } from './stocktold'

const card = (...items: object[]) => ({ faces: [{ id: 'front', items }] }) as unknown as Card
const cut = (id: string, stock: string) => ({ id, name: `Thing ${id}`, made: { as: 'cut', stock } })
const waits = (id: string, stock: string) => ({
  id,
  name: `Thing ${id}`,
  made: { as: 'printed' },
  slot: { made: { as: 'cut', stock } },
})
const does = (c: object) => [c as Command]

test('what gets another stock without being told to is told, once a stock', () => {
  const was = card(cut('i1', 'brick-216'), cut('i2', 'moss-216'))
  const now = card(cut('i1', 'satin-240'), cut('i2', 'satin-240'))
  assert.deepEqual(newStocks(was, now, does({ do: 'fillOpening', id: 'i1' })), [
    { name: 'Thing i1', stock: 'satin-240' },
  ])
  assert.deepEqual(newStocks(was, now, does({ do: 'setMade', made: { stock: 'satin-240' } })), [])
  assert.deepEqual(newStocks(was, was, does({ do: 'moveItems' })), [])
})

test('placeholders in place of a thing are told; what is new beside it is not', () => {
  const was = card(cut('i1', 'brick-216'))
  assert.equal(
    newStocks(was, card(waits('i2', 'satin-240'), waits('i3', 'satin-240')), does({ do: 'divideOpening' })).length,
    1,
  )
  assert.deepEqual(
    newStocks(was, card(cut('i1', 'brick-216'), cut('i2', 'satin-240')), does({ do: 'placeSupply' })),
    [],
  )
})
