import { shallowRef, watch, type ShallowRef } from 'vue'
import type { View } from '../api/types'

const REST = 250
const AT_MOST = 1500

/**
 * The open card as it was when the hand last rested: for drawings that stand
 * round the work and may be a moment behind it. Another card is seen at once.
 */
export function useCalm(now: () => View | undefined): ShallowRef<View | undefined> {
  const calm = shallowRef(now())
  let wait = 0
  let since = 0
  watch(now, (v, _, cleanup) => {
    const was = calm.value
    const same = v && was?.id === v.id && JSON.stringify(was.card.base) === JSON.stringify(v.card.base)
    if (!same) {
      calm.value = v
      since = 0
      return
    }
    since ||= performance.now()
    wait = window.setTimeout(
      () => {
        calm.value = v
        since = 0
      },
      Math.max(0, Math.min(REST, since + AT_MOST - performance.now())),
    )
    cleanup(() => window.clearTimeout(wait))
  })
  return calm
}
