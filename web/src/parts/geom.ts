// Small helpers for drawing; the geometry of the card itself is done in Go.
export type Matrix = [number, number, number, number, number, number]

export interface Pt {
  x: number
  y: number
}

export interface Box {
  x: number
  y: number
  w: number
  h: number
}

export const matrix = (m: Matrix) => `matrix(${m.join(' ')})`

export const apply = (m: Matrix, p: Pt): Pt => ({
  x: m[0] * p.x + m[2] * p.y + m[4],
  y: m[1] * p.x + m[3] * p.y + m[5],
})

/** The map that does a first and b after it. */
export const then = (a: Matrix, b: Matrix): Matrix => [
  b[0] * a[0] + b[2] * a[1],
  b[1] * a[0] + b[3] * a[1],
  b[0] * a[2] + b[2] * a[3],
  b[1] * a[2] + b[3] * a[3],
  b[0] * a[4] + b[2] * a[5] + b[4],
  b[1] * a[4] + b[3] * a[5] + b[5],
]

export const shift = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y]

export const turn = (degrees: number): Matrix => {
  const r = (degrees * Math.PI) / 180
  return [Math.cos(r), Math.sin(r), -Math.sin(r), Math.cos(r), 0, 0]
}

/** Does m about the point instead of about the origin. */
export const about = (m: Matrix, p: Pt): Matrix => then(then(shift(-p.x, -p.y), m), shift(p.x, p.y))

/** A way where m leads to, as it was before m. */
export function wayBack(m: Matrix, d: Pt): Pt {
  const [a, b, c, e] = m
  const det = a * e - b * c
  return { x: (e * d.x - c * d.y) / det, y: (a * d.y - b * d.x) / det }
}

export function union(boxes: Box[]): Box {
  const x = Math.min(...boxes.map((b) => b.x))
  const y = Math.min(...boxes.map((b) => b.y))
  return {
    x,
    y,
    w: Math.max(...boxes.map((b) => b.x + b.w)) - x,
    h: Math.max(...boxes.map((b) => b.y + b.h)) - y,
  }
}

export const centre = (b: Box): Pt => ({ x: b.x + b.w / 2, y: b.y + b.h / 2 })
