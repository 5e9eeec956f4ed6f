// The passes of a run as they are shown: how much of each has been run.
import type { CutPass } from '../../api/types'
import { formatTime } from '../../parts/measure'
import { toolName } from './tools'

export interface PassView {
  name: string
  what: string
  time: string
  /** How much has been run, 0 to 1. */
  share: number
  /** How much of the bar it takes. */
  weight: number
}

/** progress is the share of the time by plan that has passed. */
export function passViews(passes: CutPass[], progress: number): PassView[] {
  const seconds = passes.reduce((n, p) => n + p.seconds, 0)
  let before = 0
  return passes.map((p) => {
    const share = p.seconds > 0 ? Math.max(0, Math.min(1, (progress * seconds - before) / p.seconds)) : 1
    before += p.seconds
    const n = p.lines.length
    const kind = p.tool === 1 ? 'stroke' : p.tool === 2 ? 'line' : 'path'
    const things = n === 1 ? kind : kind + 's'
    return {
      name: p.name,
      what: `${n} ${things} · ${toolName(p.tool)}`,
      time: formatTime(p.seconds),
      share,
      weight: Math.max(p.seconds, seconds * 0.04),
    }
  })
}
