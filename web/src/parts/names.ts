import type { Base, Catalogue, Item, LayWords, Words } from '../api/types'
import { roleNames } from './lines'

/** The name of a kind of base by itself, or within a sentence. */
export const kindTitle = (c: Catalogue, k: Base['kind']) => c.bases.find((b) => b.id === k)?.name ?? ''
export const kindName = (c: Catalogue, k: Base['kind']) => c.bases.find((b) => b.id === k)?.lower ?? ''

export const cornerNames = { square: 'Square', round: 'Round', bevel: 'Bevelled' } as const

export const foamName = (mm: number) => (mm === 0 ? 'Flat' : `Foam ${mm} mm`)

/** The trade size of a closed card, in either direction; undefined for one's own. */
export const tradeOf = (c: Catalogue, w: number, h: number) =>
  c.trades.find((t) => {
    const same = (a: number, b: number) => Math.abs(a - b) < 0.01
    return (same(t.width, w) && same(t.height, h)) || (same(t.width, h) && same(t.height, w))
  })

/** A stock’s name where room is short: “Cream 216 g”. */
export const shortStock = (name: string) => name.replace(' card ', ' ')

/** Names, each once, with how many there are: “Flag ×5, Label”. */
export function counted(names: string[]): string {
  const n = new Map<string, number>()
  for (const p of names) n.set(p, (n.get(p) ?? 0) + 1)
  return [...n].map(([name, k]) => (k > 1 ? `${name} ×${k}` : name)).join(', ')
}

/** How an item is made, as the stack says it. */
export function madeText(it: Item, carrier: string | undefined, stockName: string | undefined): string {
  if (it.lines && it.lines.role !== 'guide')
    return `${roleNames[it.lines.role].toLowerCase()} in ${carrier ?? 'the base'}`
  if (it.lines?.role === 'guide') return 'never printed or cut'
  if (it.slot) return it.slot.takes === 'photo' ? 'waits for a photo' : 'waits for words'
  if (it.made.as === 'trims') return 'trims its group'
  if (it.made.as === 'carved') return `carved out of ${carrier}`
  if (it.made.as === 'welded') return `welded to ${carrier}`
  if (it.made.as === 'printed') return carrier ? `printed on ${carrier}` : 'printed on the base'
  const lift = it.made.lift ? ` · foam ${it.made.lift} mm` : ''
  return shortStock(stockName ?? it.made.stock ?? '') + lift
}

export const lieNames: Record<LayWords['lie'], string> = {
  straight: 'in lines',
  box: 'in a box',
  arc: 'on an arc',
  circle: 'round a circle',
  line: 'along a line',
  arch: 'as an arch',
  bulge: 'as a bulge',
  flag: 'as a flag',
  wedge: 'as a wedge',
}

/** What fonts have, by what it does. */
export const featureNames: Record<NonNullable<Words['features']>[number], string> = {
  swashes: 'Swashes',
  noLigatures: 'Without ligatures',
  rareLigatures: 'Rare ligatures',
  oldFigures: 'Old-style figures',
  liningFigures: 'Lining figures',
  evenFigures: 'Figures of one width',
  smallCapitals: 'Small capitals',
  fractions: 'Fractions',
  noAlternates: 'Each letter by itself',
}

/** Units that a drawing may be in, by their ids. */
export const unitNames: Record<string, string> = { mm: 'Millimetres', cm: 'Centimetres', m: 'Metres', in: 'Inches' }
