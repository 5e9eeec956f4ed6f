// What there is to set of each part of a look, in the order it is shown.
import type { Look } from '../../api/types'

export type Part = Exclude<keyof Look, 'clear'>

/** What each part is when it is first turned on. */
export const first: Required<Pick<Look, Part>> = {
  line: { colour: '#1f2b38', width: 0.5 },
  shadow: { distance: 1.2, angle: 60, blur: 0.9, opacity: 0.35, colour: '#3a2a18' },
  tint: { colour: '#b9770e', strength: 0.4 },
  reflection: { gap: 0.5, length: 0.5, opacity: 0.4 },
  raised: { width: 1.6, strength: 0.5 },
}

export interface Setting {
  key: string
  label: string
  kind: 'length' | 'angle' | 'colour' | 'share' | 'switch'
  /** The least share, in per cent. */
  least?: number
  /** A cut piece does not have it. */
  printed?: boolean
}

export const parts: Record<Part, { name: string; settings: Setting[] }> = {
  line: {
    name: 'Line',
    settings: [
      { key: 'width', label: 'Wide', kind: 'length' },
      { key: 'colour', label: 'Ink', kind: 'colour' },
      { key: 'dashed', label: 'Dashed', kind: 'switch' },
      { key: 'outside', label: 'Outside', kind: 'switch', printed: true },
    ],
  },
  shadow: {
    name: 'Shadow',
    settings: [
      { key: 'distance', label: 'Away', kind: 'length' },
      { key: 'angle', label: 'Angle', kind: 'angle' },
      { key: 'blur', label: 'Soft', kind: 'length' },
      { key: 'spread', label: 'Beyond', kind: 'length' },
      { key: 'colour', label: 'Ink', kind: 'colour' },
      { key: 'opacity', label: 'Strength', kind: 'share' },
    ],
  },
  tint: {
    name: 'Tint',
    settings: [
      { key: 'colour', label: 'Toward', kind: 'colour' },
      { key: 'strength', label: 'Strength', kind: 'share' },
    ],
  },
  reflection: {
    name: 'Reflection',
    settings: [
      { key: 'gap', label: 'Below by', kind: 'length' },
      { key: 'length', label: 'Seen', kind: 'share', least: 5 },
      { key: 'opacity', label: 'Strength', kind: 'share', least: 2 },
    ],
  },
  raised: {
    name: 'Raised edge',
    settings: [
      { key: 'width', label: 'Wide', kind: 'length' },
      { key: 'strength', label: 'Strength', kind: 'share' },
    ],
  },
}
