// Places between the letters of words, as the browser counts them and as Go does: a browser
// counts a letter beyond the basic plane twice.
import type { Caret } from '../api/types'
import type { Pt } from './geom'

/** How many letters there are before a place that the browser counts. */
export const letters = (text: string, place: number) => Array.from(text.slice(0, place)).length

/** The place, as the browser counts, after so many letters. */
export const place = (text: string, count: number) => Array.from(text).slice(0, count).join('').length

/** The number of the caret that a point is nearest to, by the middle of each. */
export function nearest(carets: Caret[], p: Pt): number {
  let best = 0
  let least = Infinity
  carets.forEach((c, i) => {
    const h = Math.hypot(c.up.x, c.up.y) || 1
    const u = { x: c.up.x / h, y: c.up.y / h }
    const d = { x: p.x - c.at.x, y: p.y - c.at.y }
    // What is above or below a line of words belongs to another one: it counts more.
    const along = d.x * u.x + d.y * u.y
    const past = along - Math.min(Math.max(along, -h * 0.3), h * 1.1)
    const off = Math.hypot(d.x * u.y - d.y * u.x, 6 * past)
    if (off < least) {
      least = off
      best = i
    }
  })
  return best
}

/** The outline of what is chosen: from caret to caret, a quadrangle for each letter. */
export function chosenPath(carets: Caret[], from: number, to: number): string {
  let d = ''
  for (let i = from; i < to; i++) {
    const [a, b] = [carets[i], carets[i + 1]]
    if (!a || !b) continue
    const h = Math.hypot(a.up.x, a.up.y)
    // From the end of a line to the start of the next there is nothing.
    if (Math.hypot(b.at.x - a.at.x, b.at.y - a.at.y) > 4 * h || Math.abs(across(a, b)) > h * 0.9) continue
    const foot = (c: Caret) => `${c.at.x - c.up.x * 0.25} ${c.at.y - c.up.y * 0.25}`
    const top = (c: Caret) => `${c.at.x + c.up.x} ${c.at.y + c.up.y}`
    d += `M${foot(a)}L${top(a)}L${top(b)}L${foot(b)}Z`
  }
  return d
}

/** How far a caret is above or below another, along its height. */
function across(a: Caret, b: Caret): number {
  const h = Math.hypot(a.up.x, a.up.y) || 1
  return ((b.at.x - a.at.x) * a.up.x + (b.at.y - a.at.y) * a.up.y) / h
}
