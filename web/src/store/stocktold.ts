// What is cut of another stock after a change that named none.
import type { Card, Command, Item } from '../api/types'

const all = (c: Card) => new Map(c.faces.flatMap((f) => f.items.map((it) => [it.id, it] as const)))
const stockOf = (it: Item) => (it.slot ? it.slot.made.stock : it.made.as === 'cut' ? it.made.stock : undefined)

/** Each stock once, with the thing that got it first: in place of the one it had, or of that of what it was made of. */
export function newStocks(was: Card, now: Card, commands: Command[]): { name: string; stock: string }[] {
  const before = all(was)
  const after = all(now)
  const named = JSON.stringify(commands)
  const gone = [...before.values()].filter((it) => !after.has(it.id)).map(stockOf)
  const out: { name: string; stock: string }[] = []
  for (const it of after.values()) {
    const old = before.get(it.id)
    const stock = stockOf(it)
    const had = old ? [stockOf(old)] : gone
    const other = had.some((s) => s) && !had.includes(stock)
    if (stock && other && !named.includes(`"${stock}"`) && !out.some((o) => o.stock === stock)) {
      out.push({ name: it.name, stock })
    }
  }
  return out
}
