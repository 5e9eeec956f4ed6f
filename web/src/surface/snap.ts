// Finds lines that a dragged box comes near: edges and middles of the face, of
// its safe area and of the other items, folds and guides, and places where its
// gaps to its neighbours are equal.
import type { SceneFace } from '../api/types'
import type { Box } from '../parts/geom'

type Axis = 'x' | 'y'

export interface SnapLine {
  axis: Axis
  at: number
}

/** A gap that is as wide as another, drawn with its width. */
export interface SnapGap {
  axis: Axis
  from: number
  to: number
  /** Where it is drawn across the axis. */
  level: number
}

export interface Snapped {
  dx: number
  dy: number
  lines: SnapLine[]
  gaps: SnapGap[]
}

/** Single lines to catch on, such as folds. */
export interface Line {
  axis: Axis
  at: number
}

/** The folds of a face that run level or upright. */
export const foldLines = (f: SceneFace) =>
  (f.folds ?? []).flatMap((l): Line[] => {
    if (Math.abs(l.from.x - l.to.x) < 0.01) return [{ axis: 'x', at: l.from.x }]
    return Math.abs(l.from.y - l.to.y) < 0.01 ? [{ axis: 'y', at: l.from.y }] : []
  })

/** What a box is dragged among, sorted once for the whole drag. */
export interface Around {
  items: Box[]
  stops: Record<Axis, number[]>
}

const span = (b: Box, axis: Axis) => (axis === 'x' ? { from: b.x, size: b.w } : { from: b.y, size: b.h })
const stops = (b: Box, axis: Axis) => {
  const s = span(b, axis)
  return [s.from, s.from + s.size / 2, s.from + s.size]
}

/** Frames are caught on by their edges and middles, items by their gaps too. */
export function around(frames: Box[], items: Box[], lines: Line[] = []): Around {
  const all = (axis: Axis) => {
    const at = [...frames, ...items].flatMap((b) => stops(b, axis))
    at.push(...lines.filter((l) => l.axis === axis).map((l) => l.at))
    return at.sort((a, b) => a - b)
  }
  return { items, stops: { x: all('x'), y: all('y') } }
}

/** The sorted value nearest to v. */
function nearest(sorted: number[], v: number): number | undefined {
  let lo = 0
  let hi = sorted.length
  while (lo < hi) {
    const mid = (lo + hi) >> 1
    if (sorted[mid]! < v) lo = mid + 1
    else hi = mid
  }
  const [a, b] = [sorted[lo - 1], sorted[lo]]
  if (a === undefined || b === undefined) return a ?? b
  return v - a <= b - v ? a : b
}

interface Found {
  shift: number
  at?: number
  gaps?: [number, number][]
}

/** Where the box would have equal gaps to what lies beside it. */
function gapsOf(box: Box, axis: Axis, items: Box[]): Found[] {
  const cross = axis === 'x' ? 'y' : 'x'
  const me = span(box, axis)
  const across = span(box, cross)
  const beside = (b: Box, of: { from: number; size: number }) => {
    const s = span(b, cross)
    return s.from < of.from + of.size && s.from + s.size > of.from
  }
  const end = (b: Box) => span(b, axis).from + span(b, axis).size
  // The nearest before a place and the nearest behind it.
  const before = (at: number, of = across) => {
    let best: Box | undefined
    for (const b of items) if (beside(b, of) && end(b) <= at && (!best || end(b) > end(best))) best = b
    return best
  }
  const behind = (at: number, of = across) => {
    let best: Box | undefined
    for (const b of items)
      if (beside(b, of) && span(b, axis).from >= at && (!best || span(b, axis).from < span(best, axis).from)) best = b
    return best
  }
  const middle = me.from + me.size / 2
  const l = before(middle)
  const r = behind(middle)
  const out: Found[] = []
  if (l && r) {
    const gap = (span(r, axis).from - end(l) - me.size) / 2
    if (gap > 0) {
      const from = end(l) + gap
      out.push({
        shift: from - me.from,
        gaps: [
          [end(l), from],
          [from + me.size, span(r, axis).from],
        ],
      })
    }
  }
  const ll = l && before(span(l, axis).from, span(l, cross))
  if (l && ll) {
    const gap = span(l, axis).from - end(ll)
    out.push({
      shift: end(l) + gap - me.from,
      gaps: [
        [end(ll), span(l, axis).from],
        [end(l), end(l) + gap],
      ],
    })
  }
  const rr = r && behind(end(r), span(r, cross))
  if (r && rr) {
    const gap = span(rr, axis).from - end(r)
    const from = span(r, axis).from - gap - me.size
    out.push({
      shift: from - me.from,
      gaps: [
        [from + me.size, span(r, axis).from],
        [end(r), span(rr, axis).from],
      ],
    })
  }
  return out
}

/** How far the box should give way, within reach millimetres, and what it then lies on. */
export function snap(box: Box, near: Around, reach: number): Snapped {
  const out: Snapped = { dx: 0, dy: 0, lines: [], gaps: [] }
  for (const axis of ['x', 'y'] as const) {
    let found: Found | undefined
    const take = (f: Found) => {
      if (Math.abs(f.shift) < (found ? Math.abs(found.shift) : reach)) found = f
    }
    for (const mine of stops(box, axis)) {
      const at = nearest(near.stops[axis], mine)
      if (at !== undefined) take({ shift: at - mine, at })
    }
    for (const f of gapsOf(box, axis, near.items)) take(f)
    if (!found) continue
    if (axis === 'x') out.dx = found.shift
    else out.dy = found.shift
    if (found.at !== undefined) out.lines.push({ axis, at: found.at })
    const cross = span(box, axis === 'x' ? 'y' : 'x')
    for (const [from, to] of found.gaps ?? []) out.gaps.push({ axis, from, to, level: cross.from + cross.size / 2 })
  }
  return out
}
