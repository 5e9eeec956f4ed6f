import assert from 'node:assert/strict'
import { test } from 'node:test'
import { answering, settled } from '../testing/answers'
import { api, Fault } from './client'

const fault = async (p: Promise<unknown>) => {
  const e = await p.then(
    () => assert.fail('nothing was refused'),
    (e: unknown) => e,
  )
  assert.ok(e instanceof Fault)
  return e
}

test('a refusal comes with its sentence, its kind and its field', async () => {
  answering(() => ({
    status: 422,
    json: { type: 'urn:sectilis:refused', detail: 'Up to 90 letters.', field: 'title' },
  }))
  const e = await fault(api.keepScraps([]))
  assert.deepEqual([e.message, e.kind, e.field], ['Up to 90 letters.', 'refused', 'title'])
})

test('what is no refusal is told by its number', async () => {
  globalThis.fetch = () => Promise.resolve(new Response('<h1>oops</h1>', { status: 502, statusText: 'Bad Gateway' }))
  const e = await fault(api.scraps())
  assert.match(e.message, /502 Bad Gateway/)
  assert.equal(e.kind, 'fault')
})

test('a program that does not answer is said to be away', async () => {
  globalThis.fetch = () => Promise.reject(new TypeError('refused'))
  const e = await fault(api.scraps())
  assert.equal(e.kind, 'away')
  assert.match(e.message, /nothing that was saved is lost/)
})

test('an empty answer is none', async () => {
  answering(() => ({ status: 204 }))
  assert.equal(await api.keepScraps([]), undefined)
})

test('what goes out is asked for with no more than differs from the card', async () => {
  const asked = answering(() => ({ json: {} }))
  await api.print('c1')
  await api.print('c1', true)
  await api.run('c1', 2)
  await api.run('c1', 2, { pass: 0, path: 3 })
  assert.deepEqual(
    asked.map((a) => a.path.replace('/api/cards/c1/', '')),
    ['prints', 'prints?without=1', 'sheets/2/runs', 'sheets/2/runs?goOn=1&pass=0&path=3'],
  )
  assert.equal(api.pdfURL('c1', false, true), '/api/cards/c1/sheets.pdf', 'without lines there is no spot colour')
  assert.equal(api.pageURL('c1', 1, 'jpg', 300), '/api/cards/c1/sheets/1/page.jpg?dpi=300')
})

test('what is put in one place arrives in the order it was asked for, and elsewhere at once', async () => {
  const waiting: (() => void)[] = []
  const asked = answering(() => new Promise((answered) => waiting.push(() => answered({ status: 204 }))))
  const one = { stock: 'moss-216', width: 90, height: 40 }
  const puts = [api.keepScraps([]), api.keepScraps([one]), api.keepScraps([one, one]), api.setPosts([])]
  await settled()
  assert.deepEqual(
    asked.map((a) => [a.path, (a.body as unknown[]).length]),
    [
      ['/api/scraps', 0],
      ['/api/posts', 0],
    ],
  )
  for (let i = 0; i < 4; i++) {
    waiting[i]!()
    await settled()
  }
  await Promise.all(puts)
  assert.deepEqual(
    asked.map((a) => (a.body as unknown[]).length),
    [0, 0, 1, 2],
  )
})

test('what was refused keeps nothing that is put there later', async () => {
  let refused = false
  const asked = answering(() => {
    if (refused) return { status: 204 }
    refused = true
    return { status: 422, json: { type: 'urn:sectilis:refused', detail: 'No such stock.', field: 'stock' } }
  })
  const first = api.keepScraps([])
  const second = api.keepScraps([])
  await assert.rejects(first, /No such stock/)
  await second
  assert.equal(asked.length, 2)
})
