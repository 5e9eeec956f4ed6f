import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import type { CutterState, Job } from '../api/types'
import { answering, freshStores, said, settled, type Asked } from '../testing/answers'
import { useCard } from './card'
import { useMachine } from './machine'

const job = (id: string, kind: string, more: Partial<Job> = {}) =>
  ({ id, kind, card: 'c1', state: 'running', progress: 0, note: '', ...more }) as Job
const cutter = { name: 'Bench cutter', state: 'ready', ready: true, bed: [300, 300], corner: [0, 0] } as CutterState

/** The program with a card open; started is what it answers to what starts a job. */
async function bench(started: (a: Asked) => { status?: number; json?: unknown } = () => ({ status: 500 })) {
  const asked = answering((a) => {
    if (a.path === '/api/cutter') return { json: cutter }
    if (a.path === '/api/cards/c1')
      return { json: { id: 'c1', revision: 1, card: { faces: [] }, scene: { net: { faces: [] }, faces: [] } } }
    if (a.path === '/api/cards/c1/sheets') return { json: { sheets: [], unlaid: [], findings: [] } }
    return started(a)
  })
  await useCard().open('c1')
  return { machine: useMachine(), asked }
}
beforeEach(freshStores)

test('what the machine does stands in one word, or two', async () => {
  const { machine } = await bench()
  assert.equal(machine.fact, '…')
  await machine.look()
  assert.equal(machine.fact, 'ready')
  machine.hear(job('j1', 'run', { progress: 0.417 }))
  assert.equal(machine.fact, 'cutting 42 %')
  machine.hear(job('j1', 'run', { progress: 0.417, paused: true }))
  assert.equal(machine.fact, 'paused 42 %')
  machine.hear(job('j1', 'run', { needs: 3 }))
  assert.equal(machine.fact, 'wants a tool')
  machine.hear(job('j1', 'run', { state: 'done' }))
  assert.equal(machine.fact, 'ready')
})

test('jobs of three kinds go on beside each other', async () => {
  const { machine } = await bench()
  machine.hear(job('j1', 'run'))
  machine.hear(job('j2', 'print'))
  machine.hear(job('j3', 'closer'))
  machine.hear(job('j4', 'find', { card: 'c2' }))
  assert.deepEqual([machine.run?.id, machine.print?.id, machine.closer?.id], ['j1', 'j2', 'j3'], 'another card’s waits')
  machine.hear(job('j1', 'run', { state: 'failed' }))
  machine.hear(job('j4', 'find', { card: 'c2' }))
  assert.equal(machine.run?.id, 'j4')
})

test('the sheets are read anew when a run has ended, not when a page was printed', async () => {
  const { machine, asked } = await bench()
  const read = () => asked.filter((a) => a.path === '/api/cards/c1/sheets').length
  machine.hear(job('j2', 'print', { state: 'done' }))
  await settled()
  assert.equal(read(), 0)
  machine.hear(job('j1', 'run', { state: 'done' }))
  await settled()
  assert.equal(read(), 1)
})

test('an event that comes before the answer is not lost', async () => {
  const { machine } = await bench(() => {
    machine.hear(job('j1', 'run', { progress: 0.5 }))
    return { status: 202, json: job('j1', 'run') }
  })
  await machine.start('run', 2)
  assert.equal(machine.run?.progress, 0.5)
})

test('what cannot start is said, and the cutter is looked at', async () => {
  const { machine, asked } = await bench(() => ({
    status: 422,
    json: { type: 'urn:sectilis:refused', detail: 'The cutter is not ready: it is switched off.' },
  }))
  await machine.start('goOn', 3)
  assert.deepEqual(said, ['The cutter is not ready: it is switched off.'])
  const run = asked.find((a) => a.path.includes('/runs'))
  assert.equal(run?.path, '/api/cards/c1/sheets/3/runs?goOn=1')
  await settled()
  assert.equal(machine.cutter?.name, 'Bench cutter')
})

test('after the stream was broken, jobs are as the program knows them', async () => {
  const { machine } = await bench((a) =>
    a.path === '/api/jobs'
      ? { json: [job('j5', 'run', { sheet: 2, progress: 0.6 }), job('j6', 'find', { state: 'failed' })] }
      : { status: 500 },
  )
  machine.hear(job('j2', 'print'))
  machine.hear(job('j1', 'run'))
  await machine.catchUp()
  assert.equal(machine.print, undefined, 'a job that the program does not know is not under way')
  assert.equal(machine.run?.id, 'j5', 'the one under way, not the last')
  assert.equal(machine.fact, 'cutting 60 %')
})
