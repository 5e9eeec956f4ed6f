// Of a long list only the rows in sight are there; a short one is there whole.
import { useEventListener } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import { ROW } from './layout'

/** The list scrolls within the port. */
export function useInSight(
  port: Ref<HTMLElement | undefined>,
  list: Ref<HTMLElement | undefined>,
  count: () => number,
  whole = 80,
) {
  const seen = ref({ from: 0, to: whole })

  function look() {
    const p = port.value
    if (!list.value || !p) return
    const from = Math.floor(p.scrollTop / ROW)
    seen.value = { from: from - 12, to: from + Math.ceil(p.clientHeight / ROW) + 12 }
  }
  useEventListener(port, 'scroll', look, { passive: true })

  const has = computed(() => {
    const all = count() <= whole
    const { from, to } = seen.value
    return (row: number) => all || (row >= from && row <= to)
  })
  /** Brings a row into sight, and leaves the list as it is when the row is there already. */
  function reveal(row: number) {
    const p = port.value
    if (!p || row < 0) return
    const at = row * ROW
    if (at < p.scrollTop) p.scrollTop = at - ROW / 2
    else if (at + ROW > p.scrollTop + p.clientHeight) p.scrollTop = at + 1.5 * ROW - p.clientHeight
    look()
  }
  return { has, look, reveal }
}
