// What the cutter says of itself, and the jobs that are under way.
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { message } from 'ant-design-vue'
import { api, Fault, type GoOn } from '../api/client'
import type { CutterState, Job, Mishap } from '../api/types'
import { useCard } from './card'
import { useSheets } from './sheets'

export const useMachine = defineStore('machine', () => {
  const card = useCard()
  const sheets = useSheets()
  const cutter = ref<CutterState>()
  const run = ref<Job>()
  const print = ref<Job>()
  const closer = ref<Job>()

  const running = computed(() => run.value?.state === 'running')
  const fact = computed(() => {
    if (running.value && run.value?.kind === 'run') {
      if (run.value.needs) return 'wants a tool'
      return `${run.value.paused ? 'paused' : 'cutting'} ${Math.round(run.value.progress * 100)} %`
    }
    return cutter.value?.state === 'away' ? 'not there' : (cutter.value?.state ?? '…')
  })

  async function look() {
    try {
      cutter.value = await api.cutter()
    } catch {
      // That the program is away is told by the page itself.
    }
  }

  const of = (kind: string) => (kind === 'print' ? print : kind === 'closer' ? closer : run)

  function hear(job: Job) {
    const mine = of(job.kind)
    if (mine.value && mine.value.id !== job.id && mine.value.state === 'running' && job.card !== card.id) return
    mine.value = job
    if (job.state !== 'running') {
      void look()
      if (job.kind !== 'print') void sheets.load()
    }
  }

  /** After the stream was broken: whatever has happened to jobs and machine meanwhile. */
  async function catchUp() {
    try {
      const jobs = await api.jobs()
      for (const mine of [run, print, closer]) {
        const was = mine.value
        if (was?.state === 'running' && !jobs.some((j) => j.id === was.id)) mine.value = undefined
      }
      for (const job of jobs) {
        const mine = of(job.kind)
        // The one that is under way goes before those that have ended.
        if (job.state === 'running' || mine.value?.state !== 'running' || mine.value.id === job.id) mine.value = job
      }
    } catch {
      return // That the program is away is told by the page itself.
    }
    await look()
  }

  const ask = {
    run: (sheet: number) => api.run(card.id, sheet),
    goOn: (sheet: number, from?: GoOn) => api.run(card.id, sheet, from ?? {}),
    loads: (sheet: number) => api.atCutter(card.id, sheet, 'loads'),
    finds: (sheet: number) => api.atCutter(card.id, sheet, 'finds'),
    tests: (sheet: number) => api.atCutter(card.id, sheet, 'tests'),
    closer: () => api.layCloser(card.id),
    print: () => api.print(card.id),
    printWithout: () => api.print(card.id, true),
  }

  const start = (kind: keyof typeof ask, sheet = 0, from?: GoOn) => begin(() => ask[kind](sheet, from))
  const testPage = (stock: string) => begin(() => api.testPage(sheets.setup, stock))

  async function begin(asked: () => Promise<Job>) {
    try {
      const job = await asked()
      const mine = of(job.kind)
      // An event may have come before this answer.
      if (mine.value?.id !== job.id) mine.value = job
    } catch (e) {
      void message.warning({ content: e instanceof Fault ? e.message : String(e), duration: 7 })
      void look()
    }
  }

  const stop = (job: Job) => api.stop(job.id).catch(() => undefined)
  const hold = (job: Job, what: 'pause' | 'resume') => api.hold(job.id, what).catch(() => undefined)

  async function tell(what: Promise<void>) {
    try {
      await what
    } catch (e) {
      void message.warning({ content: e instanceof Fault ? e.message : String(e), duration: 7 })
    }
    await look()
  }
  const unload = () => tell(api.unload())
  const mishap = (m: Mishap) => tell(api.mishap(m))

  return { cutter, run, print, closer, running, fact, look, hear, catchUp, start, testPage, stop, hold, unload, mishap }
})
