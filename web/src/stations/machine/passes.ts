// The passes of a run as they are shown: how much of each has been run.
import type { CutPass } from '../../api/types'
import { formatTime } from '../../parts/measure'

export interface PassView {
  name: string
  what: string
  time: string
  /** How much has been run, 0 to 1. */
  share: number
  /** How much of the bar it takes. */
  weight: number
}

/** progress is the share of the whole path that has been run. */
export function passViews(passes: CutPass[], progress: number): PassView[] {
  const length = passes.reduce((n, p) => n + p.length, 0)
  const seconds = passes.reduce((n, p) => n + p.seconds, 0)
  let before = 0
  return passes.map((p) => {
    const share = p.length > 0 ? Math.max(0, Math.min(1, (progress * length - before) / p.length)) : 1
    before += p.length
    const n = p.lines.length
    const scoring = p.tool === 2
    const things = scoring ? (n === 1 ? 'line' : 'lines') : n === 1 ? 'path' : 'paths'
    return {
      name: p.name,
      what: `${n} ${things} · ${scoring ? 'scoring tip' : 'blade'}`,
      time: formatTime(p.seconds),
      share,
      weight: Math.max(p.seconds, seconds * 0.04),
    }
  })
}
