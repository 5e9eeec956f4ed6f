// The words that are edited in place, and which of their letters are chosen.
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Command, Run, StyleLetters } from '../api/types'
import { useCard } from './card'

/** A style without the letters it is of. */
export type Style = Omit<Run, 'from' | 'to'>

export const useLetters = defineStore('letters', () => {
  const card = useCard()
  /** The item whose words are edited; empty for none. */
  const item = ref('')
  /** What they say meanwhile. */
  const text = ref('')
  /** The letters that are chosen, by their number: from the first up to, without, the last. */
  const from = ref(0)
  const to = ref(0)

  const kept = computed(() => card.doc(item.value)?.words?.text ?? '')
  /** What keeps the words as they are typed; none where nothing was. */
  const commands = computed<Command[]>(() =>
    item.value && text.value !== kept.value && text.value.trim() !== ''
      ? [{ do: 'setText', id: item.value, text: text.value }]
      : [],
  )
  const chosen = computed(() => item.value !== '' && to.value > from.value)
  /** The style of the first chosen letter. */
  const style = computed<Style>(() => {
    const run = card.doc(item.value)?.words?.runs?.find((r) => r.from <= from.value && from.value < r.to)
    return run ?? {}
  })

  function begin(id: string, words: string) {
    item.value = id
    text.value = words
    from.value = to.value = 0
  }
  function choose(a: number, b: number) {
    from.value = Math.min(a, b)
    to.value = Math.max(a, b)
  }
  const end = () => (item.value = '')

  /** Changes the style of the chosen letters, of all letters if none is chosen. */
  function restyle(id: string, part: Omit<StyleLetters, 'do' | 'id' | 'from' | 'to'>) {
    const here = item.value === id
    const words = here ? text.value : (card.doc(id)?.words?.text ?? '')
    const some = here && chosen.value
    const range = some ? { from: from.value, to: to.value } : { from: 0, to: Array.from(words).length }
    void card.change(...commands.value, { do: 'styleLetters', id, ...range, ...part })
  }

  return { item, text, from, to, commands, chosen, style, begin, choose, end, restyle }
})
