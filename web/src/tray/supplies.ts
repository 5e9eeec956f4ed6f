// Makes new items of what lies in the tray, at a size one can work with.
import type { Catalogue, Item, Picture, SceneFace, Sketch } from '../api/types'
import { INCH } from '../parts/measure'
import type { Pt } from '../parts/geom'
import { around, snap } from '../surface/snap'

/** Something in the tray that can be placed. */
export interface Supply {
  id: string
  kind: 'photo' | 'paper' | 'shape' | 'lettering' | 'sketch'
  name: string
  /** What a slot or an opening can be filled with. */
  picture?: Picture
  /** A sketch lays several things. */
  sketch?: Sketch
  make: (face: { width: number; height: number }, at: Pt) => Item
}

type First = Catalogue['first']

const item = (at: Pt, rest: Omit<Item, 'id' | 'place'>): Item => ({
  id: '',
  place: { x: at.x, y: at.y, turn: 0 },
  ...rest,
})

/** To a sixteenth of an inch, as people would have measured it. */
const even = (mm: number) => (Math.round((mm / INCH) * 16) / 16) * INCH

export const photoSupply =
  (first: First) =>
  (p: Picture): Supply => {
    return {
      id: p.id,
      kind: 'photo',
      name: p.name,
      picture: p,
      make: (face, at) => {
        // Four inches on the long side, or what the face has room for.
        const k = Math.min(
          (4 * INCH) / Math.max(p.width, p.height),
          (face.width * 0.8) / p.width,
          (face.height * 0.8) / p.height,
        )
        return item(at, {
          name: p.name,
          kind: 'photo',
          made: { as: 'cut', stock: first.photo, bleed: first.bleed },
          fill: {},
          photo: {
            picture: p.id,
            pixelWidth: p.width,
            pixelHeight: p.height,
            width: Math.max(p.width * k, 1),
            height: Math.max(p.height * k, 1),
          },
        })
      },
    }
  }

export const paperSupply =
  (first: First) =>
  (p: Catalogue['papers'][number]): Supply => {
    return {
      id: p.id,
      kind: 'paper',
      name: p.name,
      make: (face, at) =>
        item(at, {
          name: p.name,
          kind: 'paper',
          made: { as: 'cut', stock: first.paper, bleed: first.bleed },
          fill: { paper: p.id },
          // Like a layer of paper on a card: the face less a quarter inch all round.
          form: {
            outline: 'rectangle',
            corner: 'square',
            width: even(face.width - INCH / 2),
            height: even(face.height - INCH / 2),
          },
        }),
    }
  }

interface Ready {
  id: string
  name: string
  outline: 'rectangle' | 'ellipse' | 'scallop' | 'tag' | 'banner' | 'flag' | 'tab' | 'strip'
  w: number
  h: number
  corner?: 'square' | 'round'
  /** Path of the small picture in the tray, in a box of 60 × 44. */
  d: string
}

export const shapes: Ready[] = [
  { id: 'rectangle', name: 'Rectangle', outline: 'rectangle', w: 3, h: 2, corner: 'square', d: 'M6 5H54V39H6z' },
  {
    id: 'rounded',
    name: 'Rounded',
    outline: 'rectangle',
    w: 3,
    h: 2,
    corner: 'round',
    d: 'M14 5H46a8 8 0 0 1 8 8V31a8 8 0 0 1-8 8H14a8 8 0 0 1-8-8V13a8 8 0 0 1 8-8z',
  },
  { id: 'circle', name: 'Circle', outline: 'ellipse', w: 2, h: 2, d: 'M30 3a19 19 0 1 1 0 38a19 19 0 1 1 0-38z' },
  { id: 'ellipse', name: 'Ellipse', outline: 'ellipse', w: 3, h: 2, d: 'M30 6a26 16 0 1 1 0 32a26 16 0 1 1 0-32z' },
  {
    id: 'scallop',
    name: 'Scalloped',
    outline: 'scallop',
    w: 3,
    h: 2,
    d: 'M10 9a4 4 0 0 1 8 0a4 4 0 0 1 8 0a4 4 0 0 1 8 0a4 4 0 0 1 8 0a4 4 0 0 1 8 0a4.3 4.3 0 0 1 0 8.6a4.3 4.3 0 0 1 0 8.7a4.3 4.3 0 0 1 0 8.7a4 4 0 0 1-8 0a4 4 0 0 1-8 0a4 4 0 0 1-8 0a4 4 0 0 1-8 0a4 4 0 0 1-8 0a4.3 4.3 0 0 1 0-8.7a4.3 4.3 0 0 1 0-8.7a4.3 4.3 0 0 1 0-8.6z',
  },
  {
    id: 'tag',
    name: 'Tag',
    outline: 'tag',
    w: 3,
    h: 1.25,
    d: 'M4 18L13 8H56V36H13L4 26zM13.500 22a2.500 2.500 0 1 0-5 0a2.500 2.500 0 1 0 5 0z',
  },
  { id: 'banner', name: 'Banner', outline: 'banner', w: 4, h: 0.875, d: 'M3 11H57L49 22L57 33H3L11 22z' },
  { id: 'flag', name: 'Flag', outline: 'flag', w: 3, h: 0.875, d: 'M5 11H56L47 22L56 33H5z' },
  { id: 'tab', name: 'Tab', outline: 'tab', w: 1.5, h: 0.75, d: 'M8 9H40a13 13 0 0 1 0 26H8z' },
  { id: 'strip', name: 'Strip', outline: 'strip', w: 4, h: 0.5, d: 'M9 15H51a7 7 0 0 1 0 14H9a7 7 0 0 1 0-14z' },
]

export const shapeSupply =
  (first: First) =>
  (s: Ready): Supply => {
    return {
      id: s.id,
      kind: 'shape',
      name: s.name,
      make: (face, at) => {
        const k = Math.min(1, (face.width * 0.85) / (s.w * INCH), (face.height * 0.85) / (s.h * INCH))
        return item(at, {
          name: s.name,
          kind: 'shape',
          made: { as: 'cut', stock: first.piece, lift: 0, bleed: 0 },
          fill: {},
          form: {
            outline: s.outline,
            corner: s.corner,
            radius: s.corner === 'round' ? (INCH / 4) * k : 0,
            width: s.w * INCH * k,
            height: s.h * INCH * k,
          },
        })
      },
    }
  }

export function fontSupply(f: Catalogue['fonts'][number]): Supply {
  return {
    id: f.id,
    kind: 'lettering',
    name: f.name,
    make: (face, at) =>
      item(at, {
        name: 'Words',
        kind: 'lettering',
        made: { as: 'printed' },
        fill: { colour: '#a8432a' },
        words: {
          text: 'Your words',
          font: f.id,
          size: even(Math.min(11, face.width / 9)),
          leading: 1.25,
          spacing: 0,
          align: 'centre',
        },
      }),
  }
}

/** What was used last, which new things begin with; empty for nothing yet. */
export interface Last {
  stock: string
  ink: string
}

/** A new thing of the stock or the ink that was used last: shapes are cut of it, words printed in it. */
export function asLast(it: Item, last: Last): Item {
  if (it.kind === 'shape' && it.made.as === 'cut' && last.stock)
    return { ...it, made: { ...it.made, stock: last.stock } }
  if (it.kind === 'lettering' && last.ink) return { ...it, fill: { colour: last.ink } }
  return it
}

export function sketchSupply(k: Sketch): Supply {
  return {
    id: k.id,
    kind: 'sketch',
    name: k.title,
    sketch: k,
    make: (face, at) => ({ ...laid(k, face)[0]!, place: { x: at.x, y: at.y, turn: 0 } }),
  }
}

/** What a sketch lays on a face: as it is there, or evenly larger or smaller about the middle. */
export function laid(k: Sketch, face: { width: number; height: number }): Item[] {
  const f = Math.min(face.width / k.faceWidth, face.height / k.faceHeight)
  const size = Math.abs(f - 1) < 0.001 ? 1 : f
  const moved = (v: number, whole: number, of: number) => of / 2 + (v - whole / 2) * size
  return k.items.map((it) => {
    const out = JSON.parse(JSON.stringify(it)) as Item
    out.place.x = moved(it.place.x, k.faceWidth, face.width)
    out.place.y = moved(it.place.y, k.faceHeight, face.height)
    for (const part of [out.form, out.photo, out.photo?.opening, out.lines]) {
      if (!part) continue
      part.width *= size
      part.height *= size
      if ('radius' in part && part.radius) part.radius *= size
    }
    if (out.words) out.words.size *= size
    return out
  })
}

/** How near, in mm, a dropped thing is drawn to a middle or an edge. */
const REACH = 4

/**
 * Straightens what was dropped roughly: what nearly fills the face goes to its
 * middle, anything else to the middles and edges that it is near.
 */
export function settled(it: Item, face: SceneFace): Item {
  const size = it.form ?? it.photo
  if (!size) return it
  const { width: w, height: h } = size
  const fills = w > face.width * 0.75 && h > face.height * 0.75
  const box = { x: it.place.x - w / 2, y: it.place.y - h / 2, w, h }
  const s = snap(box, around([{ x: 0, y: 0, w: face.width, h: face.height }, face.safe], []), REACH)
  const place = fills
    ? { ...it.place, x: face.width / 2, y: face.height / 2 }
    : { ...it.place, x: it.place.x + s.dx, y: it.place.y + s.dy }
  return { ...it, place }
}
