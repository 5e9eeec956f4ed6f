// Words that have fields, cut into what can be pointed at.
import type { Field, Words } from '../../api/types'

/** A word, what is between words, or a field: characters (code points) from up to, without, to. */
export interface Part {
  from: number
  to: number
  text: string
  kind: 'word' | 'gap' | 'line' | 'field'
  field?: Field
}

const isGap = (c: string) => !/[\p{L}\p{N}\p{M}'’-]/u.test(c)

/** The parts of words in their order; every character is in one. */
export function parts(words: Pick<Words, 'text' | 'fields'>): Part[] {
  const text = Array.from(words.text)
  const out: Part[] = []
  const plain = (from: number, to: number) => {
    for (let at = from; at < to;) {
      const line = text[at] === '\n'
      const gap = isGap(text[at]!)
      let end = at + 1
      while (!line && end < to && text[end] !== '\n' && isGap(text[end]!) === gap) end++
      out.push({ from: at, to: end, text: text.slice(at, end).join(''), kind: line ? 'line' : gap ? 'gap' : 'word' })
      at = end
    }
  }
  let at = 0
  for (const f of words.fields ?? []) {
    plain(at, f.from)
    out.push({ from: f.from, to: f.to, text: text.slice(f.from, f.to).join(''), kind: 'field', field: f })
    at = f.to
  }
  plain(at, text.length)
  return out
}

/** What a chip says of its field: its column, and what is said with it. */
export function told(f: Field): string {
  const said = `${f.before ?? ''}${f.column}${f.after ?? ''}`.trim()
  return f.before || f.after ? `${said}, if any` : said
}

/** The stretch about a word that says one of the values as a whole, or the word itself. */
export function stretch(text: string, word: { from: number; to: number }, values: string[]): [number, number] {
  const all = Array.from(text.replaceAll('\n', ' '))
  for (const v of [...values].sort((a, b) => b.length - a.length)) {
    const n = Array.from(v).length
    for (let from = Math.max(0, word.to - n); n && from <= word.from && from + n <= all.length; from++)
      if (
        all
          .slice(from, from + n)
          .join('')
          .toLowerCase() === v.toLowerCase()
      )
        return [from, from + n]
  }
  return [word.from, word.to]
}
