import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import { nextTick } from 'vue'
import { answering, freshStores, settled } from '../testing/answers'
import { useCard } from './card'
import { useFold } from './fold'

const view = (revision: number, width: number, id = 'c123456789abcdef00') => ({
  id,
  revision,
  card: { base: { kind: 'sideFold', width }, faces: [] },
  scene: { net: { faces: [] }, faces: [] },
})

beforeEach(freshStores)

test('how a base folds is asked for when the base has changed, and only then', async () => {
  let revision = 1
  let width = 100
  const asked = answering((a) =>
    a.path.endsWith('/fold') ? { json: { width, frames: [] } } : { json: view(revision, width) },
  )
  const folds = () => asked.filter((a) => a.path.endsWith('/fold')).length
  const card = useCard()
  const fold = useFold()
  await card.open('c1')
  await settled()
  assert.equal(folds(), 1)
  assert.ok(fold.view)

  // Something is placed: the base is the same.
  revision = 2
  await card.open(card.id)
  await settled()
  assert.equal(folds(), 1)
  await fold.load()
  assert.equal(folds(), 2, 'unless what lies on it is to be looked at')
  await fold.load()
  assert.equal(folds(), 2, 'once for a revision')

  revision = 3
  width = 120
  await card.open(card.id)
  await settled()
  assert.equal(folds(), 3)
})

test('an answer that comes late is not taken for the newer base', async () => {
  const late: ((v: unknown) => void)[] = []
  let width = 100
  answering((a) =>
    a.path.endsWith('/fold')
      ? new Promise((done) => late.push((json) => done({ json })))
      : Promise.resolve({ json: view(width, width) }),
  )
  const card = useCard()
  const fold = useFold()
  await card.open('c1')
  await nextTick()
  width = 120
  await card.open(card.id)
  await nextTick()
  await settled()
  assert.equal(late.length, 2)
  late[1]!({ of: 'new' })
  await settled()
  late[0]!({ of: 'old' })
  await settled()
  assert.deepEqual(fold.view, { of: 'new' })
})

test('after a failure the next change asks again', async () => {
  let ok = false
  const asked = answering((a) => {
    if (!a.path.endsWith('/fold')) return { json: view(1, 100) }
    return ok ? { json: { frames: [] } } : { status: 500 }
  })
  const card = useCard()
  const fold = useFold()
  await card.open('c1')
  await settled()
  assert.equal(fold.view, undefined)
  ok = true
  await fold.load()
  assert.ok(fold.view)
  assert.equal(asked.filter((a) => a.path.endsWith('/fold')).length, 2)
})

test('whoever asks a second time waits for the same answer', async () => {
  let answer: ((v: unknown) => void) | undefined
  const asked = answering((a) =>
    a.path.endsWith('/fold')
      ? new Promise((done) => (answer = (json) => done({ json })))
      : Promise.resolve({ json: view(1, 100) }),
  )
  const card = useCard()
  const fold = useFold()
  await card.open('c1')
  await settled()
  const both = [fold.load(), fold.load()]
  let there = 0
  for (const one of both) void one.then(() => there++)
  await settled()
  assert.equal(there, 0)
  answer?.({ frames: [], homes: { i1: 0 } })
  await Promise.all(both)
  assert.deepEqual(fold.view?.homes, { i1: 0 })
  assert.equal(asked.filter((a) => a.path.endsWith('/fold')).length, 1)
})

test('a question that failed is asked again', async () => {
  let broken = true
  answering((a) => {
    if (!a.path.endsWith('/fold')) return { json: view(1, 100) }
    return broken
      ? { status: 500, json: { type: 'about:blank', detail: 'Not now.' } }
      : { json: { frames: [], homes: {} } }
  })
  const fold = useFold()
  await useCard().open('c1')
  await settled()
  assert.equal(fold.view, undefined)
  broken = false
  await fold.load()
  assert.ok(fold.view)
})
