// Where what is selected is shown, in pixels: its frames, while it is dragged too.
import { computed } from 'vue'
import type { SceneItem } from '../api/types'
import { apply, then, union, type Matrix } from '../parts/geom'
import { useCard } from '../store/card'
import { useTool } from '../store/tool'
import type { useDrag } from './useDrag'
import type { useViewport } from './useViewport'

export function useFrames(view: ReturnType<typeof useViewport>, drag: ReturnType<typeof useDrag>) {
  const card = useCard()
  const tool = useTool()
  const { scale, offset } = view
  const one = computed(() => (card.selected.length === 1 ? card.selected[0] : undefined))

  const screen = computed<Matrix>(() => [scale.value, 0, 0, scale.value, offset.value.x, offset.value.y])
  /** Where an item is shown now, in pixels. */
  const seen = (it: SceneItem): Matrix => {
    const m = drag.live.value?.get(it.id)
    return then(m ? then(it.at, m) : it.at, screen.value)
  }
  /** The frame of what is selected, in pixels. */
  const frame = computed(() => {
    if (one.value) return { box: one.value.box, at: seen(one.value) }
    if (card.selected.length < 2) return undefined
    const m = drag.live.value?.get(card.selected[0]!.id)
    return { box: union(card.selected.map((it) => it.bounds)), at: m ? then(m, screen.value) : screen.value }
  })
  /** The frames of several things that are selected, as one path. */
  const frames = computed(() => {
    if (card.selected.length < 2 || card.trial || tool.bare) return ''
    return card.selected
      .map((it) => {
        const at = seen(it)
        const { x, y, w, h } = it.box
        const p = [
          { x, y },
          { x: x + w, y },
          { x: x + w, y: y + h },
          { x, y: y + h },
        ].map((q) => apply(at, q))
        return 'M' + p.map((q) => `${q.x.toFixed(1)} ${q.y.toFixed(1)}`).join('L') + 'z'
      })
      .join('')
  })
  const marked = computed(() => {
    if (!card.selected.length || drag.live.value) return undefined
    return union(card.selected.map((it) => it.bounds))
  })

  return { screen, one, seen, frame, frames, marked }
}
