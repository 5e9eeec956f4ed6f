// A change of one part of several things: each keeps the rest as it has it.
import type { Command, Item } from '../../api/types'

/** The commands that give every item its own value; items whose values are alike share one. */
export function each<T>(
  items: Item[],
  value: (it: Item) => T,
  command: (ids: string[], value: T) => Command,
): Command[] {
  const alike = new Map<string, { ids: string[]; value: T }>()
  for (const it of items) {
    const v = value(it)
    const key = JSON.stringify(v)
    const known = alike.get(key)
    if (known) known.ids.push(it.id)
    else alike.set(key, { ids: [it.id], value: v })
  }
  return [...alike.values()].map((a) => command(a.ids, a.value))
}
