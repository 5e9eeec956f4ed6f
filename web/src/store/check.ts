// What the checks have found about the open card: of its scene, its print, its sheets, its folding and the
// card as a whole, in one list.
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { api } from '../api/client'
import type { CheckView, Finding } from '../api/types'
import { useCard } from './card'
import { useSheets } from './sheets'

export type Weight = Finding['weight']

/** The groups of findings in their order. */
export const groups: { weight: Weight; name: string; one: string; many: string }[] = [
  { weight: 'stop', name: 'Would spoil paper', one: 'stop', many: 'stops' },
  { weight: 'caution', name: 'Look again', one: 'caution', many: 'cautions' },
  { weight: 'note', name: 'To know', one: 'note', many: 'notes' },
]

export const useCheck = defineStore('check', () => {
  const card = useCard()
  const sheets = useSheets()
  const view = shallowRef<CheckView>()
  let of = ''
  let looking = new AbortController()

  async function load() {
    const id = card.id
    if (!id) return
    if (of !== id) view.value = undefined
    of = id
    looking.abort()
    looking = new AbortController()
    const v = await api.check(id, looking.signal).catch(() => undefined)
    if (v && of === id) view.value = v
  }

  const all = computed<Finding[]>(() => {
    const v = card.view
    if (!v) return []
    const list = [
      ...v.findings,
      ...(view.value?.findings ?? []),
      ...(card.prints?.of === v.id ? card.prints.findings : []),
      ...(sheets.layout?.findings ?? []),
    ]
    const weight = (f: Finding) => groups.findIndex((g) => g.weight === f.weight)
    return list
      .map((f, i) => ({ f, i }))
      .sort((a, b) => weight(a.f) - weight(b.f) || a.i - b.i)
      .map((k) => k.f)
  })
  /** Those that nobody has left so. */
  const open = computed(() => all.value.filter((f) => !f.left))
  const left = computed(() => all.value.filter((f) => f.left))
  const count = (w: Weight) => open.value.filter((f) => f.weight === w).length
  /** What the strip of stations says. */
  const fact = computed(() => {
    if (!view.value) return '…'
    const g = groups.find((k) => count(k.weight))
    if (!g) return 'all is well'
    const n = count(g.weight)
    return `${n} ${n === 1 ? g.one : g.many}`
  })
  /** Whether all that is told is of the card as it is now. */
  const fresh = computed(() => {
    const now = card.view?.revision
    return [view.value?.revision, sheets.layout?.revision, card.prints?.revision].every((r) => r === now)
  })
  return { view, load, fresh, all, open, left, count, fact }
})
