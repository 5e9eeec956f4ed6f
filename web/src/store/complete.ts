// An answer to a change tells only what differs. What does not is kept as the very
// same objects, so that the page draws nothing anew that looks as it did.
import type { Item, View } from '../api/types'

const byId = <T extends { id: string }>(list: T[] | undefined) => new Map(list?.map((it) => [it.id, it]))

/** The items in their order: those told, else those there were. */
function merged<T extends { id: string }>(order: string[], told: T[] | undefined, was: T[] | undefined): T[] {
  const now = byId(told)
  const before = byId(was)
  return order.flatMap((id) => now.get(id) ?? before.get(id) ?? [])
}

/** Completes the part of a view that a change led to from the view before it. */
export function complete(part: View, was: View) {
  const order = new Map(part.order?.map((o) => [o.face, o]))
  const told = byId(part.scene.faces)
  const before = byId(was.scene.faces)
  // The net tells which faces there are: another base has others.
  part.scene.faces = part.scene.net.faces.flatMap(({ id }) => {
    const old = before.get(id)
    const now = told.get(id)
    if (!now) return old ? [old] : []
    return [{ ...now, items: merged(order.get(id)?.seen ?? [], now.items, old?.items) }]
  })
  const docs = byId(was.card.faces)
  part.card.faces = part.card.faces.map((f) => ({
    ...f,
    items: merged(order.get(f.id)?.all ?? [], f.items, docs.get(f.id)?.items),
  }))
}

/** The faces that are there in both and whose items differ. */
export function differing(was: View, now: View): View['card']['faces'][number]['id'][] {
  return now.card.faces
    .filter((f) => {
      const before = was.card.faces.find((o) => o.id === f.id)
      if (!before || before.items.length !== f.items.length) return true
      return f.items.some((it, i) => it !== before.items[i] && JSON.stringify(it) !== JSON.stringify(before.items[i]))
    })
    .map((f) => f.id)
    .filter((id) => now.scene.faces.some((f) => f.id === id))
}

/** The items that are there in both and differ. */
export function changed(was: View, now: View): Item[] {
  const before = byId(was.card.faces.flatMap((f) => f.items))
  return now.card.faces
    .flatMap((f) => f.items)
    .filter((it) => {
      const old = before.get(it.id)
      return old && old !== it && JSON.stringify(old) !== JSON.stringify(it)
    })
}
