// Finds lines that a dragged box comes near: edges and middles of the face, of
// its safe area and of the other items.
import type { Box } from '../parts/geom'

export interface SnapLine {
  axis: 'x' | 'y'
  at: number
}

export interface Snapped {
  dx: number
  dy: number
  lines: SnapLine[]
}

const stops = (b: Box, axis: 'x' | 'y') =>
  axis === 'x' ? [b.x, b.x + b.w / 2, b.x + b.w] : [b.y, b.y + b.h / 2, b.y + b.h]

/** How far the box should give way, within reach millimetres, and the lines it then lies on. */
export function snap(box: Box, others: Box[], reach: number): Snapped {
  const out: Snapped = { dx: 0, dy: 0, lines: [] }
  for (const axis of ['x', 'y'] as const) {
    let best = reach
    let found: { shift: number; at: number } | undefined
    for (const o of others) {
      for (const at of stops(o, axis)) {
        for (const mine of stops(box, axis)) {
          if (Math.abs(at - mine) < best) {
            best = Math.abs(at - mine)
            found = { shift: at - mine, at }
          }
        }
      }
    }
    if (found) {
      if (axis === 'x') out.dx = found.shift
      else out.dy = found.shift
      out.lines.push({ axis, at: found.at })
    }
  }
  return out
}
