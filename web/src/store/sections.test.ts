import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import { answering, freshStores } from '../testing/answers'
import { useCard } from './card'
import { useSections } from './sections'

const item = (id: string, kind: string) => ({ id, kind, name: id })
const view = {
  id: 'c123456789abcdef00',
  revision: 1,
  card: { base: { kind: 'sideFold', width: 100 }, faces: [] },
  findings: [
    { check: 'smallWords', weight: 'caution', face: 'front', item: 'w', why: 'Small.', by: 0 },
    { check: 'runsOff', weight: 'caution', face: 'front', item: 'w', why: 'Off.', by: 1 },
    { check: 'foldRoom', weight: 'caution', face: 'front', why: 'Thick.', by: 1 },
  ],
  scene: {
    net: { faces: [{ id: 'front' }] },
    faces: [{ id: 'front', side: 'outside', items: [item('p', 'photo'), item('w', 'lettering'), item('s', 'shape')] }],
  },
}

beforeEach(freshStores)

async function opened() {
  answering(() => ({ json: view }))
  const card = useCard()
  await card.open(view.id)
  return { card, sections: useSections() }
}

test('what is rarely changed of a kind of thing is folded, until it is opened', async () => {
  const { card, sections } = await opened()
  assert.ok(sections.open('face-panel') && sections.open('colours'), 'with nothing selected all is open')
  card.select(['p'])
  assert.ok(sections.open('photo') && sections.open('measures'))
  assert.ok(!sections.open('made') && !sections.open('look'))
  sections.toggle('made')
  assert.ok(sections.open('made'))
  card.select(['w'])
  assert.ok(!sections.open('made') && !sections.open('measures') && sections.open('words'))
  card.select(['s'])
  assert.ok(sections.open('made'), 'as shapes have it')
  sections.toggle('made')
  card.select(['p'])
  assert.ok(sections.open('made'), 'of photos it stays open')
  card.select(['s'])
  assert.ok(!sections.open('made'))
})

test('things of several kinds have a way of their own', async () => {
  const { card, sections } = await opened()
  card.select(['p', 's'])
  assert.ok(sections.open('made') && !sections.open('look'))
  sections.toggle('look')
  card.select(['p'])
  assert.ok(!sections.open('look'))
  card.select(['s', 'w'])
  assert.ok(sections.open('look'))
})

test('findings are told by the item that they are about', async () => {
  const { card } = await opened()
  assert.deepEqual(
    card.findings('w').map((f) => f.check),
    ['smallWords', 'runsOff'],
  )
  assert.deepEqual(card.findings('p'), [])
  assert.deepEqual(
    card.findings('').map((f) => f.check),
    ['foldRoom'],
    'those about the base have no item',
  )
})
