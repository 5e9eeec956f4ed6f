// Something that opens above the page: Esc closes it before it means anything
// else, Enter in a field does what its main button does, and the focus goes into
// it and back to what opened it.
import { useEventListener } from '@vueuse/core'
import { nextTick, watch, type Ref } from 'vue'
import { settled } from './reading'

/** content finds what is to have the focus, once it is there; main is what its main button does. */
export function usePopover(open: Ref<boolean>, content?: string, main?: () => unknown) {
  if (content && main) {
    useEventListener(window, 'keydown', async (e: KeyboardEvent) => {
      const el = e.target as HTMLElement
      if (e.key !== 'Enter' || !open.value || !el.matches('input') || !el.closest(content)) return
      e.preventDefault()
      // What was typed last counts, once it has been read; what cannot be read stops it.
      await settled()
      await nextTick()
      if (!document.querySelector(`${content} [aria-invalid=true]`)) await main()
    })
  }
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
  let from: HTMLElement | undefined
  watch(open, (is) => {
    if (!content) return
    if (!is) {
      // Where the focus went on its own, it stays.
      if (document.activeElement?.closest(content)) from?.focus({ preventScroll: true })
      return
    }
    from = document.activeElement instanceof HTMLElement ? document.activeElement : undefined
    into(content, 20)
  })
}

/** Puts the focus on the first control there, which may take some frames to show. */
function into(content: string, frames: number) {
  const all = [...document.querySelectorAll<HTMLElement>(`${content} :is(button, input, [tabindex="0"])`)]
  const first = all.find((e) => e.checkVisibility())
  if (first) first.focus({ preventScroll: true })
  else if (frames) requestAnimationFrame(() => into(content, frames - 1))
}
