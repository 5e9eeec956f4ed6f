// Closes something that is open above the page, before Esc means anything else.
import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'

export function useEscape(open: Ref<boolean>) {
  useEventListener(
    window,
    'keydown',
    (e: KeyboardEvent) => {
      if (e.key !== 'Escape' || !open.value) return
      open.value = false
      e.preventDefault()
      e.stopPropagation()
    },
    { capture: true },
  )
}
