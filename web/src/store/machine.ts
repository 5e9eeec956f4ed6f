// What the cutter says of itself, and the jobs that are under way.
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { message } from 'ant-design-vue'
import { api, Fault } from '../api/client'
import type { CutterState, Job } from '../api/types'
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
    if (running.value) return `cutting ${Math.round((run.value?.progress ?? 0) * 100)} %`
    return cutter.value?.state === 'away' ? 'not there' : (cutter.value?.state ?? '…')
  })

  async function look() {
    try {
      cutter.value = await api.cutter()
    } catch {
      // That the program is away is told by the page itself.
    }
  }

  const of = (kind: string) => (kind === 'run' ? run : kind === 'closer' ? closer : print)

  function hear(job: Job) {
    const mine = of(job.kind)
    if (mine.value && mine.value.id !== job.id && mine.value.state === 'running' && job.card !== card.id) return
    mine.value = job
    if (job.state !== 'running') {
      void look()
      if (job.kind !== 'print') void sheets.load()
    }
  }

  async function start(kind: 'run' | 'print' | 'closer', sheet = 0, goOn = false) {
    try {
      const job =
        kind === 'run'
          ? await api.run(card.id, sheet, prefs.paper, goOn)
          : kind === 'closer'
            ? await api.layCloser(card.id, prefs.paper)
            : await api.print(card.id, prefs.paper)
      const mine = of(kind)
      // An event may have come before this answer.
      if (mine.value?.id !== job.id) mine.value = job
    } catch (e) {
      void message.warning({ content: e instanceof Fault ? e.message : String(e), duration: 7 })
      void look()
    }
  }

  const stop = (job: Job) => api.stop(job.id).catch(() => undefined)

  return { cutter, run, print, closer, running, fact, look, hear, start, stop }
})
