// Which sections of the right column stand open, for each kind of thing that is selected.
import { defineStore } from 'pinia'
import { useStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useCard } from './card'

/** What is folded until a person opens it: what is rarely changed of a kind of thing. */
const lesser: Record<string, string[]> = {
  face: [],
  photo: ['made', 'opening-panel', 'look', 'colours'],
  lettering: ['measures', 'letters-panel', 'made', 'look', 'colours'],
  paper: ['form', 'opening-panel', 'look', 'colours'],
  mat: ['measures', 'opening-panel', 'look', 'colours'],
}
const usual = ['opening-panel', 'ends-panel', 'look', 'colours']

export const useSections = defineStore('sections', () => {
  const card = useCard()
  const chosen = useStorage<Record<string, boolean>>('sectilis.sections', {})
  /** What is selected, as a person would call it. */
  const kind = computed(() => {
    const kinds = new Set(card.told.map((it) => it.kind))
    return kinds.size > 1 ? 'several' : ([...kinds][0] ?? 'face')
  })
  const open = (id: string) => chosen.value[`${kind.value} ${id}`] ?? !(lesser[kind.value] ?? usual).includes(id)
  const toggle = (id: string) => (chosen.value = { ...chosen.value, [`${kind.value} ${id}`]: !open(id) })
  return { open, toggle }
})
