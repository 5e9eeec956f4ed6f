import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import type { Command, View } from '../api/types'
import { answering, freshStores, said, settled, type Asked } from '../testing/answers'
import { useCard } from './card'

interface Placed {
  id: string
  group?: string
  at?: number[]
}
const view = (revision: number, items: Placed[] = [], groups: { id: string; in?: string }[] = [], more = {}): View =>
  ({
    id: 'c1',
    revision,
    undo: 'Move',
    card: { faces: [{ id: 'front', items: items.map((i) => ({ made: { as: 'printed' }, ...i })) }] },
    scene: {
      net: { faces: [{ id: 'front' }] },
      faces: [{ id: 'front', items: items.map((i) => ({ outline: 'M0 0', at: [1], ...i })), groups }],
    },
    ...more,
  }) as unknown as View

const nudge: Command = { do: 'moveItems', ids: ['a'], dx: 1, dy: 0 }
const based = (asked: Asked[]) =>
  asked.filter((a) => a.path.endsWith('/changes')).map((a) => (a.body as { base: number }).base)

beforeEach(freshStores)

test('changes follow each other, each on what the one before led to', async () => {
  const asked = answering(async (a) => {
    if (a.method === 'GET') return { json: view(1, [{ id: 'a' }]) }
    await settled()
    return { json: view((a.body as { base: number }).base + 1, [{ id: 'a' }]) }
  })
  const card = useCard()
  await card.open('c1')
  const all = [card.change(nudge), card.change(nudge), card.change(nudge)]
  assert.equal(card.saving, 3)
  await Promise.all(all)
  assert.deepEqual(based(asked), [1, 2, 3])
  assert.equal(card.view?.revision, 4)
  assert.equal(card.saving, 0)
})

test('what a change made is selected, unless something else was selected meanwhile', async () => {
  let done: () => void = () => undefined
  answering(async (a) => {
    if (a.method === 'GET') return { json: view(1, [{ id: 'a' }, { id: 'b' }]) }
    await new Promise<void>((r) => (done = r))
    const base = (a.body as { base: number }).base
    const made = `n${base}`
    return { json: { ...view(base + 1, [{ id: 'a' }, { id: 'b' }, { id: made }]), made: [made] } }
  })
  const card = useCard()
  await card.open('c1')
  card.select(['a'])
  const first = card.selectMade(card.change(nudge))
  await settled()
  done()
  await first
  assert.deepEqual(card.selection, ['n1'])

  const second = card.selectMade(card.change(nudge))
  await settled()
  card.select(['b'])
  done()
  await second
  assert.deepEqual(card.selection, ['b'], 'a click while it was worked out stands')
})

test('a card that has moved on is read again, and the next change is based on that', async () => {
  const asked = answering((a) => {
    if (a.method === 'GET') return { json: view(asked.length > 1 ? 7 : 1) }
    const base = (a.body as { base: number }).base
    if (base < 7) return { status: 409, json: { type: 'urn:sectilis:stale', detail: 'The card has moved on.' } }
    return { json: view(base + 1) }
  })
  const card = useCard()
  await card.open('c1')
  assert.equal(await card.change(nudge), undefined)
  assert.equal(card.view?.revision, 7)
  await card.change(nudge)
  assert.deepEqual(based(asked), [1, 7])
  assert.equal(card.view?.revision, 8)
})

test('what is refused changes nothing and keeps nothing waiting', async () => {
  answering((a) =>
    a.method === 'GET'
      ? { json: view(3) }
      : { status: 422, json: { type: 'urn:sectilis:refused', detail: 'That is too small.' } },
  )
  const card = useCard()
  await card.open('c1')
  assert.equal(await card.change(nudge), undefined)
  assert.equal(card.view?.revision, 3)
  assert.equal(card.saving, 0)
  assert.deepEqual(said, ['That is too small.'])
})

test('a card that is gone is said to be', async () => {
  answering(() => ({ status: 404, json: { type: 'urn:sectilis:gone', detail: 'There is no such card.' } }))
  const card = useCard()
  await card.open('c9')
  assert.equal(card.gone, 'There is no such card.')
  assert.equal(await card.change(nudge), undefined, 'nothing can be changed')
})

test('undo asks for nothing where there is nothing to undo', async () => {
  const asked = answering(() => ({ json: view(1, [], [], { undo: '', redo: '' }) }))
  const card = useCard()
  await card.open('c1')
  await card.undo()
  await card.redo()
  assert.equal(asked.length, 1)
})

test('another window’s change is taken, an older answer is not', async () => {
  let revision = 1
  const asked = answering(() => ({ json: view(revision, [{ id: revision === 1 ? 'a' : 'b' }]) }))
  const card = useCard()
  await card.open('c1')
  card.select(['a'])
  revision = 5
  await card.catchUp(1)
  assert.equal(asked.length, 1, 'that one is known')
  await card.catchUp(5)
  assert.equal(card.view?.revision, 5)
  assert.deepEqual(card.selection, [], 'what is gone is chosen no more')
  revision = 2
  await card.open('c1')
  assert.equal(card.view?.revision, 5)
})

test('a trial tells what would look otherwise', async () => {
  answering((a) =>
    a.method === 'GET'
      ? { json: view(1, [{ id: 'a' }, { id: 'b' }]) }
      : { json: view(2, [{ id: 'a' }, { id: 'b', at: [2] }, { id: 'c' }]) },
  )
  const card = useCard()
  await card.open('c1')
  const { items } = await card.attempt(nudge)
  assert.deepEqual(
    items?.map((i) => i.id),
    ['b', 'c'],
  )
  assert.equal(card.view?.revision, 1)
})

test('groups are chosen whole until they are entered', async () => {
  const items = [{ id: 'a', group: 'g' }, { id: 'b', group: 'h' }, { id: 'c', group: 'h' }, { id: 'd' }]
  answering(() => ({ json: view(1, items, [{ id: 'g' }, { id: 'h', in: 'g' }]) }))
  const card = useCard()
  await card.open('c1')
  assert.deepEqual(card.line('b'), ['g', 'h'])
  assert.deepEqual(card.unit('b'), ['a', 'b', 'c'])
  card.select(card.unit('b'))
  assert.equal(card.group?.id, 'g')
  assert.ok(card.enter('b'))
  assert.deepEqual(card.unit('a'), ['a'])
  assert.deepEqual(card.unit('b'), ['b', 'c'])
  assert.ok(card.enter('b'))
  assert.deepEqual(card.unit('b'), ['b'])
  assert.ok(!card.enter('b'), 'there is nothing further in')
  card.select(['d'])
  assert.equal(card.entered, '', 'outside, groups are whole again')
  assert.equal(card.group, undefined)
})

test('choosing adds and takes away', async () => {
  answering(() => ({ json: view(1, [{ id: 'a' }, { id: 'b' }, { id: 'c' }]) }))
  const card = useCard()
  await card.open('c1')
  card.select(['a'])
  card.select(['b', 'a'], true)
  assert.deepEqual(card.selection, ['b'])
  card.select(['c'], true)
  assert.deepEqual(
    card.selected.map((i) => i.id),
    ['b', 'c'],
  )
  card.work('back')
  assert.deepEqual(card.selection, [])
})

test('a change that takes long can be stopped, and then nothing has changed', async (t) => {
  t.mock.timers.enable({ apis: ['setTimeout'] })
  let slow = true
  const asked = answering((a) => {
    if (a.method === 'GET') return { json: view(1, [{ id: 'a' }]) }
    if (slow) return new Promise(() => undefined) // works and works
    return { json: view(2, [{ id: 'a' }]) }
  })
  const card = useCard()
  await card.open('c1')
  const first = card.change(nudge)
  const offered = () => card.stop
  await settled()
  assert.equal(offered(), undefined, 'what is quick is not offered to be stopped')
  t.mock.timers.tick(700)
  offered()!()
  assert.equal(await first, undefined)
  assert.equal(offered(), undefined)
  assert.equal(card.saving, 0)
  assert.equal(card.view?.revision, 1)
  assert.deepEqual(said, ['Stopped. Nothing was changed.'])
  slow = false
  await card.change(nudge)
  assert.equal(card.view?.revision, 2, 'the next goes on from what there is')
  assert.deepEqual(based(asked), [1, 1])
})
