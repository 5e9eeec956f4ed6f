// How the open card is put together, and what of it is done.
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { message } from 'ant-design-vue'
import { api, Fault } from '../api/client'
import type { AssemblyView } from '../api/types'
import { useCard } from './card'
import { usePrefs } from './prefs'

export const useAssembly = defineStore('assembly', () => {
  const card = useCard()
  const prefs = usePrefs()
  const view = shallowRef<AssemblyView>()
  /** Steps that were ticked, or are no more, since the view was told. */
  const ticks = shallowRef(new Map<string, boolean>())
  let of = ''
  let asked = 0
  /** How many ticks are not kept yet; they are kept one after another, in the order they were made in. */
  let unkept = 0
  let queue = Promise.resolve()

  async function load() {
    const id = card.id
    if (!id) return
    if (of !== id) {
      view.value = undefined
      ticks.value = new Map()
    }
    of = id
    const mine = ++asked
    const v = await api.assembly(id, prefs.unit).catch(() => undefined)
    if (!v || mine !== asked) return
    view.value = v
    if (!unkept) ticks.value = new Map()
  }

  const steps = computed(() => view.value?.steps ?? [])
  const done = computed(() => {
    const all = new Set(view.value?.done)
    for (const [step, is] of ticks.value) {
      if (is) all.add(step)
      else all.delete(step)
    }
    return all
  })
  function tick(step: string, is: boolean): Promise<void> {
    const id = card.id
    ticks.value = new Map(ticks.value).set(step, is)
    unkept++
    return (queue = queue.then(async () => {
      try {
        await api.tickStep(id, step, is)
      } catch (e) {
        message.warning(e instanceof Fault ? e.message : String(e))
        const still = new Map(ticks.value)
        if (still.get(step) === is) still.delete(step)
        ticks.value = still
      }
      if (!--unkept) await load()
    }))
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
