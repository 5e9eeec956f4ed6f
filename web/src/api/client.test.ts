import assert from 'node:assert/strict'
import { test } from 'node:test'
import { answering } from '../testing/answers'
import { api, Fault, type Paper } from './client'

const paper: Paper = { size: 'a4', margin: 6.35, between: 3 }
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

test('sheets are asked for with all that they follow from', async () => {
  const asked = answering(() => ({ json: {} }))
  await api.sheets('c1', paper)
  await api.sheets('c1', {
    ...paper,
    borderless: true,
    share: true,
    lie: 'landscape',
    turning: 'freely',
    marks: 'hand',
  })
  const [plain, other] = asked.map((a) => Object.fromEntries(new URL(a.path, 'http://x').searchParams))
  assert.deepEqual(plain, {
    size: 'a4',
    margin: '6.35',
    between: '3',
    turning: 'quarters',
    lie: 'portrait',
    marks: 'machine',
  })
  assert.deepEqual(other, {
    size: 'a4',
    margin: '0',
    between: '3',
    turning: 'freely',
    lie: 'landscape',
    marks: 'hand',
    share: '1',
  })
})
