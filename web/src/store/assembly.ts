// How the open card is put together, and what of it is done.
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { api } from '../api/client'
import type { AssemblyView } from '../api/types'
import { useCard } from './card'
import { usePrefs } from './prefs'

export const useAssembly = defineStore('assembly', () => {
  const card = useCard()
  const prefs = usePrefs()
  const view = shallowRef<AssemblyView>()
  let of = ''
  let asked = 0

  async function load() {
    const id = card.id
    if (!id) return
    if (of !== id) view.value = undefined
    of = id
    const mine = ++asked
    const v = await api.assembly(id, prefs.unit).catch(() => undefined)
    if (v && mine === asked) view.value = v
  }

  const steps = computed(() => view.value?.steps ?? [])
  const done = computed(() => new Set(view.value?.done ?? []))
  async function tick(step: string, is: boolean) {
    const v = view.value
    if (!v) return
    view.value = { ...v, done: is ? [...v.done, step] : v.done.filter((s) => s !== step) }
    await api.tickStep(card.id, step, is).catch(() => load())
  }
  const left = computed(() => steps.value.filter((s) => !done.value.has(s.id)).length)
  /** What the strip of stations says. */
  const fact = computed(() => {
    const n = steps.value.length
    if (!view.value) return '…'
    if (n && !left.value) return 'put together'
    if (left.value < n) return `${left.value} of ${n} left`
    return n === 1 ? '1 step' : `${n} steps`
  })
  return { view, load, steps, done, tick, left, fact }
})
