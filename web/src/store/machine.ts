// What the cutter says of itself, and the jobs that are under way.
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { message } from 'ant-design-vue'
import { api, Fault } from '../api/client'
import type { CutterState, Job, Mishap } from '../api/types'
import { useCard } from './card'
import { usePrefs } from './prefs'
import { useSheets } from './sheets'

export const useMachine = defineStore('machine', () => {
  const card = useCard()
  const prefs = usePrefs()
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

  const ask = {
    run: (sheet: number) => api.run(card.id, sheet, prefs.paper, false),
    goOn: (sheet: number) => api.run(card.id, sheet, prefs.paper, true),
    loads: (sheet: number) => api.atCutter(card.id, sheet, 'loads', prefs.paper),
    finds: (sheet: number) => api.atCutter(card.id, sheet, 'finds', prefs.paper),
    tests: (sheet: number) => api.atCutter(card.id, sheet, 'tests', prefs.paper),
    closer: () => api.layCloser(card.id, prefs.paper),
    print: () => api.print(card.id, prefs.paper),
    testPage: () => api.testPage(prefs.paper),
  }

  async function start(kind: keyof typeof ask, sheet = 0) {
    try {
      const job = await ask[kind](sheet)
      const mine = of(job.kind)
      // An event may have come before this answer.
      if (mine.value?.id !== job.id) mine.value = job
    } catch (e) {
      void message.warning({ content: e instanceof Fault ? e.message : String(e), duration: 7 })
      void look()
    }
  }

  const stop = (job: Job) => api.stop(job.id).catch(() => undefined)
  const hold = (job: Job, what: 'pause' | 'on') => api.hold(job.id, what).catch(() => undefined)

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

  return { cutter, run, print, closer, running, fact, look, hear, start, stop, hold, unload, mishap }
})
