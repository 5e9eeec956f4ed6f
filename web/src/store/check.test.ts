import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import { answering, freshStores, settled } from '../testing/answers'
import { useCard } from './card'
import { useCheck } from './check'
import { useSheets } from './sheets'

const finding = (check: string, weight: string, more = {}) => ({
  check,
  weight,
  face: 'front',
  why: check,
  by: 0,
  ...more,
})
const view = (findings: unknown[], revision = 1) => ({
  id: 'c1',
  revision,
  findings,
  card: { faces: [] },
  scene: { net: { faces: [] }, faces: [] },
})
/** What each part of the program has found. */
function told(scene: unknown[], whole: unknown[], laid: unknown[], revision = 1) {
  answering((a) => {
    if (a.path.endsWith('/check')) return { json: { revision, findings: whole } }
    if (a.path.endsWith('/sheets')) return { json: { revision, findings: laid } }
    return { json: view(scene) }
  })
}

beforeEach(freshStores)

test('findings of all parts stand in one list, the gravest first', async () => {
  told([finding('small', 'caution'), finding('near', 'note')], [finding('out', 'stop')], [finding('room', 'stop')])
  const check = useCheck()
  assert.equal(check.fact, '…', 'nothing is said before anything was looked at')
  await useCard().open('c1')
  await Promise.all([check.load(), useSheets().load()])
  assert.deepEqual(
    check.all.map((f) => f.check),
    ['out', 'room', 'small', 'near'],
  )
  assert.equal(check.fact, '2 stops')
  assert.equal(check.count('note'), 1)
})

test('what is left so is told apart, and counts no more', async () => {
  told([finding('small', 'caution', { left: 'It is meant' })], [finding('thick', 'note')], [])
  await useCard().open('c1')
  const check = useCheck()
  await check.load()
  assert.deepEqual(
    check.left.map((f) => f.check),
    ['small'],
  )
  assert.equal(check.fact, '1 note')
  told([], [], [])
  await useCard().open('c1')
  await check.load()
  assert.equal(check.fact, 'all is well')
})

test('what is painted counts for its own card alone, and all is fresh when it is of one state', async () => {
  told([], [], [], 1)
  const card = useCard()
  await card.open('c1')
  const check = useCheck()
  await Promise.all([check.load(), useSheets().load()])
  card.prints = { of: 'c2', revision: 1, findings: [finding('dull', 'note') as never] }
  assert.equal(check.all.length, 0)
  card.prints = { of: 'c1', revision: 0, findings: [finding('dull', 'note') as never] }
  assert.equal(check.all.length, 1)
  assert.equal(check.fresh, false)
  card.prints = { of: 'c1', revision: 1, findings: [] }
  assert.equal(check.fresh, true)
})

test('an answer about the card before is not shown', async () => {
  let late: (() => void) | undefined
  answering((a) => {
    if (!a.path.endsWith('/check')) return { json: view([]) }
    return new Promise((done) => (late = () => done({ json: { revision: 1, findings: [finding('out', 'stop')] } })))
  })
  const card = useCard()
  await card.open('c1')
  const check = useCheck()
  const first = check.load()
  await settled()
  const answer = late!
  answering(() => ({ json: { ...view([]), id: 'c2', revision: 3, findings: [] } }))
  await card.open('c2')
  await check.load()
  answer()
  await first
  assert.equal(check.view?.revision, 3)
})
