// Shows what a change would lead to while its numbers are still being chosen.
import { onScopeDispose, ref, watch, type Ref } from 'vue'
import type { Command } from '../../api/types'
import { useCard } from '../../store/card'

/** While open, what is asked is tried whenever it changes; wrong says what it would not do. */
export function useTrial(open: Ref<boolean>, command: () => Command | Command[] | undefined) {
  const card = useCard()
  const wrong = ref('')
  let latest = 0

  watch(
    () => (open.value ? JSON.stringify([card.view?.revision, command()]) : ''),
    async (asked) => {
      const turn = ++latest
      const cmd = command()
      if (!asked || !cmd) {
        card.trial = undefined
        wrong.value = ''
        return
      }
      const answer = await card.attempt(...[cmd].flat())
      if (turn !== latest) return
      wrong.value = answer.wrong ?? ''
      card.trial = answer.items
    },
  )
  onScopeDispose(() => (card.trial = undefined))
  return wrong
}
