// How the open card's base folds: asked for anew when the base has changed, or
// when what lies on it is to be looked at again.
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { api } from '../api/client'
import type { FoldView } from '../api/types'
import { useCard } from './card'

export const useFold = defineStore('fold', () => {
  const card = useCard()
  const view = shallowRef<FoldView>()
  let asked = ''

  const key = computed(() => (card.view ? card.id + JSON.stringify(card.view.card.base) : ''))

  let answer = Promise.resolve()

  /** Asks for it if the card has changed since; done when the answer is there. */
  function load(): Promise<void> {
    const want = key.value + card.view?.revision
    if (card.view && asked !== want) {
      asked = want
      answer = ask(card.id, want)
    }
    return answer
  }

  async function ask(id: string, want: string) {
    try {
      const v = await api.fold(id)
      if (asked === want) view.value = v
    } catch {
      if (asked === want) asked = '' // the next change asks again
    }
  }

  /** Asks for it anew though the card is as it was. */
  async function again() {
    asked = ''
    await load()
  }

  watch(key, (now, before) => {
    if (now.slice(0, 18) !== before.slice(0, 18)) view.value = undefined
    void load()
  })

  return { view, load, again }
})
