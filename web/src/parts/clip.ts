// What was copied: items for every station, card and window of the program, and a drawing
// of them for others.
import type { Group, Item, SceneItem } from '../api/types'
import { matrix, union } from './geom'

export interface Clip {
  card: string
  face: string
  items: Item[]
  groups: Group[]
  /** The drawing that other programs get, by which a clip is known again. */
  drawing: string
}

const key = 'sectilis.clip'
/** Stands in where the browser keeps nothing. */
let here: Clip | undefined

/** Keeps what was copied for the windows of this program. */
export function storeClip(c: Clip) {
  here = c
  try {
    localStorage.setItem(key, JSON.stringify(c))
  } catch {
    localStorage.removeItem(key) // Too large for other windows: it stays in this one.
  }
}

/**
 * Keeps what was copied. Other programs get the drawing with the event of the copying, at
 * once; without one it comes a little later, where the browser lets us.
 */
export function keepClip(c: Clip, e?: ClipboardEvent) {
  storeClip(c)
  if (e?.clipboardData) {
    e.clipboardData.setData('text/plain', c.drawing)
    e.preventDefault()
  } else void globalThis.navigator?.clipboard?.writeText(c.drawing).catch(() => undefined)
}

export function readClip(): Clip | undefined {
  try {
    const raw = localStorage.getItem(key)
    return raw ? (JSON.parse(raw) as Clip) : here
  } catch {
    return here
  }
}

const escaped = (s: string) =>
  s.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)

/** The items as an SVG drawing in true size, from the base upward. */
export function drawingOf(items: SceneItem[], ground: (paper: string) => string | undefined): string {
  const b = union(items.map((it) => it.bounds))
  const round = (v: number) => +v.toFixed(4)
  const ink = (it: SceneItem) =>
    it.fill.colour ??
    it.fill.gradient?.stops[0]?.colour ??
    (it.fill.paper ? ground(it.fill.paper) : it.ground) ??
    'none'
  const paths = items.map((it) => {
    const look = it.role ? 'fill="none" stroke="#1f2b38" stroke-width=".3"' : `fill="${escaped(ink(it))}"`
    return `<path d="${it.outline}" transform="${matrix(it.at)}" ${look}><title>${escaped(it.name)}</title></path>`
  })
  const [x, y, w, h] = [b.x, b.y, b.w, b.h].map(round)
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="${x} ${y} ${w} ${h}">${paths.join('')}</svg>`
}
