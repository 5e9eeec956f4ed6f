// Of a long list only the rows in sight are there; a short one is there whole.
import { useEventListener } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import { ROW } from './layout'

/** The list scrolls within the column that it stands in. */
export function useInSight(list: Ref<HTMLElement | undefined>, count: () => number, whole = 80) {
  const seen = ref({ from: 0, to: whole })
  const port = () => list.value?.closest<HTMLElement>('.right')

  function look() {
    const p = port()
    if (!list.value || !p) return
    const top = list.value.getBoundingClientRect().top - p.getBoundingClientRect().top
    const from = Math.floor(-top / ROW)
    seen.value = { from: from - 12, to: from + Math.ceil(p.clientHeight / ROW) + 12 }
  }
  useEventListener(port, 'scroll', look, { passive: true })

  const has = computed(() => {
    const all = count() <= whole
    const { from, to } = seen.value
    return (row: number) => all || (row >= from && row <= to)
  })
  /** Brings a row into sight. */
  function reveal(row: number) {
    const p = port()
    if (!p || has.value(row)) return
    const top = (list.value?.getBoundingClientRect().top ?? 0) - p.getBoundingClientRect().top + p.scrollTop
    p.scrollTop = top + (row - 3) * ROW
    look()
  }
  return { has, look, reveal }
}
