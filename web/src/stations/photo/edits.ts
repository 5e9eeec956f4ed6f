// What edits are called, and which of them another photo can have too.
import type { Edit, Light } from '../../api/types'

export const lightNames: Record<keyof Light, string> = {
  brightness: 'Brightness',
  contrast: 'Contrast',
  highlights: 'Light parts',
  shadows: 'Dark parts',
  saturation: 'Colour',
  lively: 'Pale colours',
  warmth: 'Warmth',
  tint: 'Green, pink',
  sharpness: 'Sharper',
  softness: 'Softer',
  smooth: 'Grain off',
}

const signed = (v: number) => (v > 0 ? '+' : v < 0 ? '−' : '') + Math.abs(Math.round(v))

export function editName(e: Edit): string {
  if (e.right) return 'Set right by itself'
  if (e.tone) return /^#(..)\1\1$/.test(e.tone.colour) ? 'Black and white' : 'One colour'
  if (e.lean)
    return `Straightened ${signed(e.lean.degrees * 10)
      .replace(/(\d)$/, '.$1')
      .replace(/^([+−]?)\./, '$10.')}°`
  if (e.corners) return 'Squared up'
  if (e.cutOut) return e.cutOut.rest ? 'With a hole' : 'Cut out'
  if (e.filled) return 'Filled in'
  if (e.copied) return 'Copied over'
  if (e.wider) return 'Made wider'
  if (e.eyes) return e.eyes.length === 1 ? '1 red eye' : `${e.eyes.length} red eyes`
  const part = e.of ? ', a part' : ''
  const set = Object.entries(e.light ?? {}) as [keyof Light, number][]
  if (set.length === 1) return `${lightNames[set[0]![0]]} ${signed(set[0]![1])}${part}`
  return set.length ? 'Light and colour' + part : 'Nothing yet'
}

/** Edits of which the part is one of some names. */
export const ofKinds = (all: Edit[], kinds: string[]) => all.filter((e) => !e.of && kinds.some((k) => k in e))
