// Where things lie in the side elevation: papers in true thickness from the
// base up, a row of names beside them, a leader line from each paper to its
// name.
import type { SceneFace, SceneItem } from '../api/types'

export interface Bar {
  id: string
  x: number
  y: number
  w: number
  h: number
  colour: string
  kind: 'base' | 'piece' | 'ink'
  feet: { x: number; y: number; w: number; h: number }[]
  leader: string
  row: number
}

export interface Elevation {
  bars: Bar[]
  height: number
  rowHeight: number
}

const WIDTH = 108
const MID = 56
const TEXT_X = 130
const LEAST = 3

export const ROW = 31

/** Whether it is part of the outline of the piece that it lies on. */
export const isPart = (it: SceneItem) => it.joined === 'carved' || it.joined === 'welded'

/**
 * The ids of the rows, the top of the stack first and the base, '', last. What is part of the
 * outline of a piece has a row below that of the piece while that is open.
 */
export function rowsOf(items: SceneItem[], open: (piece: string) => boolean): string[] {
  const parts = new Map<string, string[]>()
  for (const it of items) if (isPart(it)) parts.set(it.on!, [it.id, ...(parts.get(it.on!) ?? [])])
  const own = items.filter((it) => !isPart(it)).reverse()
  return [...own.flatMap((it) => [it.id, ...(open(it.id) ? (parts.get(it.id) ?? []) : [])]), '']
}

/** leaf is the thickness of the base sheet, in mm, as all heights are. */
export function elevation(
  face: SceneFace,
  rows: string[],
  leaf: number,
  ground: string,
  colours: (paper: string) => string,
): Elevation {
  const n = rows.length
  const places = new Map(rows.map((id, i) => [id, i]))
  const height = Math.max(n * ROW, 96)
  // As large as the rows allow, the same scale for every paper.
  const scale = Math.min(30, (height - 14) / Math.max(face.thickness, 0.5))
  const foot = height / 2 + (face.thickness * scale) / 2
  const y = (mm: number) => foot - mm * scale
  const bars: Bar[] = []
  const add = (b: Omit<Bar, 'leader'>) => {
    const middle = b.row * ROW + 16
    const from = b.y + b.h / 2
    const x = b.x + b.w + 2
    bars.push({
      ...b,
      leader: `M${x} ${from}C${Math.max(x + 8, 118)} ${from} ${TEXT_X - 18} ${middle} ${TEXT_X} ${middle}`,
    })
  }
  add({
    id: '',
    x: MID - WIDTH / 2,
    y: y(leaf),
    w: WIDTH,
    h: Math.max(leaf * scale, LEAST),
    colour: ground,
    kind: 'base',
    feet: [],
    row: n - 1,
  })
  face.items.forEach((it) => {
    const row = places.get(it.id)
    if (row === undefined || isPart(it)) return
    const left = Math.max(0, Math.min(1, it.bounds.x / face.width))
    const right = Math.max(left + 0.04, Math.min(1, (it.bounds.x + it.bounds.w) / face.width))
    const x = MID - WIDTH / 2 + left * WIDTH
    const w = (right - left) * WIDTH
    if (!it.piece) {
      const colour = it.fill.colour ?? (it.fill.paper ? colours(it.fill.paper) : '#8d969c')
      add({ id: it.id, x, y: y(it.to) - 2.5, w, h: 2.5, colour, kind: 'ink', feet: [], row })
      return
    }
    const paper = it.to - it.from - it.lift
    const colour = it.fill.paper
      ? colours(it.fill.paper)
      : (it.fill.colour ?? (it.picture ? '#e8b866' : (it.ground ?? '#fff')))
    const feet = []
    if (it.lift) {
      const fw = Math.min(12, w / 4)
      const count = w > 60 ? 3 : 2
      for (let k = 0; k < count; k++) {
        feet.push({ x: x + 5 + ((w - 10 - fw) * k) / (count - 1), y: y(it.from + it.lift), w: fw, h: it.lift * scale })
      }
    }
    add({ id: it.id, x, y: y(it.to), w, h: Math.max(paper * scale, LEAST), colour, kind: 'piece', feet, row })
  })
  return { bars, height, rowHeight: ROW }
}
