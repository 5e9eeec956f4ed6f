import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import { answering, freshStores, said, settled } from '../testing/answers'
import { useCard } from './card'
import { useNames } from './names'

const rows = ['Noor', 'Ida', 'Odalys'].map((name, i) => ({ id: `n${i + 1}`, cells: [name], out: i === 2 }))
const names = { from: 'm.csv', columns: ['Name'], rows, nextRow: 3, shown: 'n1' }
const card = (id: string, list?: object, revision = 1) => ({
  id,
  revision,
  card: { faces: [], names: list },
  scene: { net: { faces: [] }, faces: [] },
})
const state = (row: string, stage: string, ...wrong: string[]) => ({
  row,
  stage,
  short: '',
  wrong: wrong.map((why) => ({ check: 'overfull', short: 'too long', why })),
})
const isNames = (path: string) => path.endsWith('/names')

beforeEach(freshStores)

test('what is wrong and what is cut is counted among those that a card is made for', async () => {
  answering((a) =>
    isNames(a.path)
      ? {
          json: {
            revision: 1,
            rows: [state('n1', 'cut'), state('n2', '', 'too long'), state('n3', 'out', 'too long')],
          },
        }
      : { json: card('c1', names) },
  )
  await useCard().open('c1')
  const n = useNames()
  await n.load()
  assert.deepEqual(
    [n.wrong, n.cut, n.made].map((l) => l.map((r) => r.id)),
    [['n2'], ['n1'], ['n1', 'n2']],
  )
  assert.equal(n.row?.id, 'n1')
  n.chosen = 'n3'
  assert.equal(n.called(n.row!.id), 'Odalys')
  n.chosen = 'gone'
  assert.equal(n.row?.id, 'n1')
})

test('of two answers about names the last that was asked for counts, and a card without a list has none', async () => {
  const late: (() => void)[] = []
  let id = 'c1'
  answering((a) =>
    isNames(a.path)
      ? new Promise((done) => {
          const mine = late.length
          late.push(() => done({ json: { revision: mine, rows: [] } }))
        })
      : { json: card(id, id === 'c1' ? names : undefined) },
  )
  await useCard().open('c1')
  const n = useNames()
  const both = [n.load(), n.load()]
  await settled()
  late[1]!()
  late[0]!()
  await Promise.all(both)
  assert.equal(n.view?.revision, 1)
  assert.deepEqual(said, [], 'a question that was given up is no fault')
  id = 'c2'
  await useCard().open('c2')
  await n.load()
  assert.equal(n.view, undefined)
  assert.equal(late.length, 2, 'nothing is asked of a card without a list')
})

test('a list that was read is taken as it seems to be, and the other way', async () => {
  let now = card('c1')
  const asked = answering((a) => {
    if (a.path.startsWith('/api/lists'))
      return a.path.includes('pasted')
        ? { status: 422, json: { type: 'urn:sectilis:refused', detail: 'There is nothing in this list.' } }
        : {
            json: {
              headings: true,
              headed: { columns: ['Name'], rows: [['Noor']] },
              plain: { columns: ['Name'], rows: [['Who'], ['Noor']] },
            },
          }
    if (a.path.endsWith('/changes')) now = card('c1', names, now.revision + 1)
    return { json: now }
  })
  await useCard().open('c1')
  const n = useNames()
  const file = new File(['Who\nNoor'], 'm.csv')
  assert.equal(await n.bringFile(file), '')
  await n.bring(n.read!, false)
  const sent = asked
    .filter((a) => a.path.endsWith('/changes'))
    .map((a) => (a.body as { commands: object[] }).commands[0])
  assert.deepEqual(sent, [
    { do: 'setNames', columns: ['Name'], rows: [['Noor']] },
    { do: 'setNames', columns: ['Name'], rows: [['Who'], ['Noor']] },
  ])
  assert.equal(n.read?.headings, false)
  assert.equal(await n.bringFile(file, true), 'There is nothing in this list.')
})
