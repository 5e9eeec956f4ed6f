import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import { answering, freshStores, said, settled } from '../testing/answers'
import { useCard } from './card'
import { useSheets } from './sheets'

const card = (id: string) => ({ id, revision: 1, card: { faces: [] }, scene: { net: { faces: [] }, faces: [] } })
const isLayout = (path: string) => path.endsWith('/sheets')

beforeEach(freshStores)

test('of two layouts asked for, the one asked for last is shown', async () => {
  const late: ((used: number) => void)[] = []
  answering((a) =>
    isLayout(a.path)
      ? new Promise((done) => late.push((used) => done({ json: { used } })))
      : Promise.resolve({ json: card('c1') }),
  )
  await useCard().open('c1')
  const sheets = useSheets()
  const both = [sheets.load(), sheets.load()]
  await settled()
  late[1]!(0.5)
  await settled()
  late[0]!(0.1)
  await Promise.all(both)
  assert.equal(sheets.layout?.used, 0.5)
})

test('another card does not show the sheets of the one before', async () => {
  let id = 'c1'
  let answer: (() => void) | undefined
  answering((a) => {
    if (!isLayout(a.path)) return { json: card(id) }
    if (id === 'c1') return { json: { used: 0.3 } }
    return new Promise((done) => (answer = () => done({ json: { used: 0.7 } })))
  })
  await useCard().open('c1')
  const sheets = useSheets()
  const used = () => sheets.layout?.used
  await sheets.load()
  assert.equal(used(), 0.3)
  id = 'c2'
  await useCard().open('c2')
  const loading = sheets.load()
  assert.equal(used(), undefined)
  await settled()
  answer?.()
  await loading
  assert.equal(used(), 0.7)
})

test('what is on hand is noted, and the sheets are laid anew', async () => {
  let refuse = false
  const asked = answering((a) => {
    if (isLayout(a.path)) return { json: { used: asked.length } }
    if (a.path === '/api/onhand') return { json: [{ stock: 'moss-216', sizes: ['a5'] }] }
    if (a.method !== 'PUT') return { json: card('c1') }
    return refuse
      ? { status: 422, json: { type: 'urn:sectilis:refused', detail: 'A size is named once.' } }
      : { status: 204 }
  })
  await useCard().open('c1')
  const sheets = useSheets()
  await sheets.loadOnHand()
  assert.deepEqual(sheets.ownOf('moss-216').sizes, ['a5'])
  assert.deepEqual(sheets.ownOf('brick-216'), { stock: 'brick-216', sizes: [] })

  await sheets.keepOnHand({ stock: 'brick-216', sizes: ['a4'], borderless: true })
  const put = asked.find((a) => a.method === 'PUT')
  assert.equal(put?.path, '/api/stocks/brick-216/onhand')
  assert.equal(sheets.ownOf('brick-216').borderless, true)
  assert.deepEqual(sheets.ownOf('moss-216').sizes, ['a5'], 'the others stay')
  const laid = sheets.layout?.used
  assert.ok(laid)

  refuse = true
  await sheets.keepOnHand({ stock: 'brick-216', sizes: ['a4', 'a4'] })
  assert.deepEqual(said, ['A size is named once.'])
  assert.deepEqual(sheets.ownOf('brick-216').sizes, ['a4'], 'what was refused is not shown')
})
