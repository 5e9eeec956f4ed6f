import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import { answering, freshStores } from '../testing/answers'
import { useAssembly } from './assembly'
import { useCard } from './card'

const view = { id: 'c1', revision: 1, findings: [], card: { faces: [] }, scene: { net: { faces: [] }, faces: [] } }
const guide = (done: string[]) => ({
  revision: 1,
  steps: [{ id: 'cut' }, { id: 'fold' }, { id: 'close' }],
  done,
  takes: [],
})

beforeEach(freshStores)

test('what is ticked off is told at once, and kept', async () => {
  const sent: string[] = []
  answering((a) => {
    if (a.path.includes('/done')) {
      sent.push(`${a.method} ${a.path}`)
      return { json: {} }
    }
    return a.path.endsWith('/assembly?unit=in') ? { json: guide([]) } : { json: view }
  })
  await useCard().open('c1')
  const assembly = useAssembly()
  assert.equal(assembly.fact, '…')
  await assembly.load()
  assert.equal(assembly.fact, '3 steps')
  const ticking = assembly.tick('cut', true)
  assert.equal(assembly.fact, '2 of 3 left', 'before the answer')
  await ticking
  assert.deepEqual(sent, ['PUT /api/cards/c1/assembly/cut/done'])
  await assembly.tick('fold', true)
  await assembly.tick('close', true)
  assert.equal(assembly.fact, 'put together')
  await assembly.tick('close', false)
  assert.equal(assembly.left, 1)
})

test('what could not be kept is not shown as done', async () => {
  answering((a) => {
    if (a.path.includes('/done')) return { status: 500, json: { title: 'No', detail: 'The disk is full.' } }
    return a.path.endsWith('/assembly?unit=in') ? { json: guide(['cut']) } : { json: view }
  })
  await useCard().open('c1')
  const assembly = useAssembly()
  await assembly.load()
  await assembly.tick('fold', true)
  assert.deepEqual([...assembly.done], ['cut'])
})
