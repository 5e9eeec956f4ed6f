// How findings are told and told apart.
import type { Catalogue, Finding, SceneFace, View } from '../../api/types'

/** A finding goes on being the same one while its words and its place change. */
export const keyOf = (f: Finding, all: Finding[]) => {
  const same = all.filter((o) => o.check === f.check && o.item === f.item && o.face === f.face)
  return [f.check, f.face, f.item ?? '', same.indexOf(f)].join('/')
}

export const checkOf = (c: Catalogue, f: Finding) => c.checks.find((k) => k.id === f.check)

/** What is about it: an item, or the card. */
export function subject(v: View | undefined, f: Finding): string {
  if (!f.item) return ''
  for (const face of v?.card.faces ?? []) {
    const it = face.items.find((i) => i.id === f.item)
    if (it) return it.name
  }
  return ''
}

/** What it is headed: the thing and what is wrong with it. */
export function titleOf(c: Catalogue, v: View | undefined, f: Finding): string {
  const what = checkOf(c, f)?.title ?? f.check
  const name = subject(v, f)
  return name ? `“${name}” ${what}` : `The card ${what}`
}

export const faceOf = (v: View | undefined, f: Finding): SceneFace | undefined =>
  v?.scene.faces.find((face) => face.id === f.face)

/** Where it belongs in the filter: a face, the sheets, or the card as a whole. */
export function placeOf(c: Catalogue, v: View | undefined, f: Finding): string {
  if (checkOf(c, f)?.reads === 'names') return 'Names'
  if (f.item) return faceOf(v, f)?.name ?? 'Card'
  return checkOf(c, f)?.reads === 'sheets' ? 'Sheets' : 'Card'
}
