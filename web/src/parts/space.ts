// Folded panels seen from somewhere: a parallel projection, so that what is
// drawn on a panel follows it by one matrix.
import type { FoldView } from '../api/types'
import type { Matrix, Pt } from './geom'

type Motion = FoldView['frames'][number][number]

export interface Eye {
  /**
   * How the sheet is turned over to be seen from inside: about its upright axis
   * or about its level one; on a table it is spun about what stands up.
   */
  over: 'upright' | 'level' | 'table'
  yaw: number
  pitch: number
}

/** A place in space, as the eye has it: x right, y down, z toward the eye. */
function seen(e: Eye, x: number, y: number, z: number): [number, number, number] {
  // From inside: the sheet is drawn from outside.
  const [a, b, c] = e.over === 'upright' ? [-x, y, -z] : [x, -y, -z]
  const [sy, cy] = [Math.sin(e.yaw), Math.cos(e.yaw)]
  const [u, v, w] = e.over === 'table' ? [a * cy - b * sy, a * sy + b * cy, c] : [a * cy + c * sy, b, c * cy - a * sy]
  const [sp, cp] = [Math.sin(e.pitch), Math.cos(e.pitch)]
  return [u, v * cp - w * sp, v * sp + w * cp]
}

export const place = (m: Motion, p: Pt): [number, number, number] => [
  m[0] * p.x + m[1] * p.y + m[3],
  m[4] * p.x + m[5] * p.y + m[7],
  m[8] * p.x + m[9] * p.y + m[11],
]

export const project = (e: Eye, m: Motion, p: Pt) => seen(e, ...place(m, p))

/** The map of a panel from the sheet to the eye's plane. */
export function onPlane(e: Eye, m: Motion): Matrix {
  const o = project(e, m, { x: 0, y: 0 })
  const x = project(e, m, { x: 1, y: 0 })
  const y = project(e, m, { x: 0, y: 1 })
  return [x[0] - o[0], x[1] - o[1], y[0] - o[0], y[1] - o[1], o[0], o[1]]
}

/** How squarely a panel faces the eye, from 0, edge on, to 1. */
export const facing = (m: Matrix) => Math.min(1, Math.abs(m[0] * m[3] - m[1] * m[2]))

/** A motion between two, near enough for the eye. */
export const between = (a: Motion, b: Motion, k: number): Motion => a.map((v, i) => v + (b[i]! - v) * k) as Motion

/** The corners of a ring of straight sides. */
export const corners = (d: string): Pt[] =>
  [...d.matchAll(/[ML]\s*(-?[\d.e-]+)[\s,]+(-?[\d.e-]+)/g)].map((m) => ({ x: Number(m[1]), y: Number(m[2]) }))
