import type { SceneFace } from '../api/types'
import type { Pt } from '../parts/geom'

/** What a tool that lies over the work surface is given. */
export interface Overlay {
  face: SceneFace
  /** Pixels to the millimetre. */
  scale: number
  toFace: (p: Pt) => Pt
  toScreen: (p: Pt) => Pt
  local: (e: { clientX: number; clientY: number }) => Pt
}
