// How each thing is handled: whether it keeps its ratio and what its places are counted
// from. That belongs to the thing, and is remembered for those that were handled last.
import { defineStore } from 'pinia'
import { useStorage } from '@vueuse/core'

export interface Handling {
  free?: boolean
  from?: 'edge' | 'centre' | 'fold'
}

/** How many things are remembered. */
const most = 400

export const useThings = defineStore('things', () => {
  const all = useStorage<Record<string, Handling>>('sectilis.things', {})
  const of = (card: string, item: string | undefined): Handling => (item && all.value[`${card}/${item}`]) || {}
  function set(card: string, items: string[], h: Handling) {
    const next = { ...all.value }
    for (const it of items) {
      const key = `${card}/${it}`
      const was = next[key]
      delete next[key] // The last handled come last.
      next[key] = { ...was, ...h }
    }
    const keys = Object.keys(next)
    for (const key of keys.slice(0, Math.max(0, keys.length - most))) delete next[key]
    all.value = next
  }
  return { of, set }
})
