import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import { answering, freshStores, said, settled } from '../testing/answers'
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
  const kept = new Set<string>()
  answering((a) => {
    const step = /assembly\/(\w+)\/done/.exec(a.path)?.[1]
    if (step) {
      sent.push(`${a.method} ${a.path}`)
      if ((a.body as { done: boolean }).done) kept.add(step)
      else kept.delete(step)
      return { json: {} }
    }
    return a.path.endsWith('/assembly?unit=in') ? { json: guide([...kept]) } : { json: view }
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

test('ticks reach the program one after another, and stay over what was asked for before them', async () => {
  const kept: string[] = []
  const waiting: (() => void)[] = []
  let late: (() => void) | undefined
  answering((a) => {
    const step = /assembly\/(\w+)\/done/.exec(a.path)?.[1]
    if (step)
      return new Promise((answered) =>
        waiting.push(() => {
          kept.push(step)
          answered({ json: {} })
        }),
      )
    if (!a.path.endsWith('/assembly?unit=in')) return { json: view }
    const told = { json: guide([...kept]) }
    return late ? Promise.resolve(told) : new Promise((answered) => (late = () => answered(told)))
  })
  await useCard().open('c1')
  const assembly = useAssembly()
  const first = assembly.load()
  const ticking = [assembly.tick('cut', true), assembly.tick('fold', true)]
  await settled()
  assert.equal(waiting.length, 1, 'the second waits for the first')
  late!()
  await first
  assert.equal(assembly.fact, '1 of 3 left', 'what was asked for before knows of neither')
  waiting[0]!()
  await settled()
  assert.equal(assembly.fact, '1 of 3 left')
  waiting[1]!()
  await Promise.all(ticking)
  assert.deepEqual(kept, ['cut', 'fold'])
  assert.deepEqual([...assembly.done], ['cut', 'fold'])
})

test('what could not be kept is not shown as done', async () => {
  answering((a) => {
    if (a.path.includes('/done'))
      return { status: 500, json: { type: 'urn:sectilis:fault', detail: 'The disk is full.' } }
    return a.path.endsWith('/assembly?unit=in') ? { json: guide(['cut']) } : { json: view }
  })
  await useCard().open('c1')
  const assembly = useAssembly()
  await assembly.load()
  await assembly.tick('fold', true)
  assert.deepEqual([...assembly.done], ['cut'])
  assert.deepEqual(said, ['The disk is full.'])
})
