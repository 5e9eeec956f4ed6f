// What lies in the tray, and how it is asked to be placed.
import type { Art, Catalogue, Command, Picture, Sketch } from '../api/types'
import type { Pt } from '../parts/geom'

/** Something in the tray that can be placed. */
export interface Supply {
  id: string
  kind: 'photo' | 'paper' | 'shape' | 'lettering' | 'edging' | 'sketch' | 'art'
  name: string
  /** What a slot or an opening can be filled with. */
  picture?: Picture
  /** A sketch lays several things. */
  sketch?: Sketch
  /** The small picture of a shape or an edging, SVG path data. */
  preview?: string
  /** The ink that an edging is shown in. */
  ink?: string
  /** What a face of lettering shows. */
  text?: string
}

export const photoSupply = (p: Picture): Supply => ({ id: p.id, kind: 'photo', name: p.name, picture: p })
export const paperSupply = (p: Catalogue['papers'][number]): Supply => ({ id: p.id, kind: 'paper', name: p.name })
export const fontSupply = (f: Catalogue['fonts'][number]): Supply => ({ id: f.id, kind: 'lettering', name: f.name })
export const sketchSupply = (k: Sketch): Supply => ({ id: k.id, kind: 'sketch', name: k.title, sketch: k })
export const artSupply = (a: Art): Supply => ({ id: a.id, kind: 'art', name: a.name })
export const shapeSupply = (s: Catalogue['shapes'][number]): Supply => ({
  id: s.id,
  kind: 'shape',
  name: s.name,
  preview: s.preview,
})

const edgingInks = ['#a8432a', '#587a4a', '#35658c', '#e2a42b', '#7a4666', '#35472c', '#8a6a3a']
export const edgingSupply = (m: Catalogue['edgings'][number], all: Catalogue['edgings']): Supply => ({
  id: m.id,
  kind: 'edging',
  name: m.name,
  preview: m.preview,
  ink: edgingInks[all.indexOf(m) % edgingInks.length],
})

/** What was used last, which new things begin with; empty for nothing yet. */
export interface Last {
  stock: string
  ink: string
}

/** What lays a sketch on a face. */
export const placeSketch = (k: Sketch, face: string): Command => ({
  do: 'placeSketch',
  face,
  width: k.faceWidth,
  height: k.faceHeight,
  items: k.items,
  groups: k.groups ?? [],
})

/**
 * What places a supply on a face: at a point, or in its middle; along turns it as what it is placed
 * on. A picture with an edge is cut round it.
 */
export function placeSupply(s: Supply, face: string, last: Last, at?: Pt, along = false, edge?: string): Command {
  if (s.sketch) return placeSketch(s.sketch, face)
  return {
    do: 'placeSupply',
    face,
    kind: s.kind as 'photo',
    id: s.id,
    ...(s.kind === 'lettering' ? { colour: last.ink } : { name: s.name }),
    ...(s.kind === 'shape' || s.kind === 'edging' ? { stock: last.stock } : {}),
    ...(s.picture ? { pixelWidth: s.picture.width, pixelHeight: s.picture.height } : {}),
    ...(edge ? { edge } : {}),
    ...(at ? { at } : {}),
    ...(along ? { along } : {}),
  }
}
