// Mending a photo: filling in, copying over, red eyes, and making it wider.
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Edit, Point, Wider } from '../api/types'
import { useCard } from './card'
import { useEdits } from './edits'

export type Mend = 'fill' | 'copy' | 'eyes' | 'wider'

export const useMend = defineStore('mend', () => {
  const card = useCard()
  const edits = useEdits()
  const by = ref<Mend>('fill')
  /** The radius of the brush, in shares of the width. */
  const size = ref(0.02)
  const soft = ref(true)
  /** Where copying takes from; without it the next click says that. */
  const from = ref<Point>()

  const last = computed<Edit | undefined>(() => edits.edits.at(-1))
  const others = () => edits.edits.slice(0, -1)
  const brushed = (points: Point[]) => ({ points, radius: size.value })

  function stroke(points: Point[]) {
    const start = points[0]!
    if (by.value === 'fill') {
      // One stroke after the other is one filling.
      const f = last.value?.filled
      if (f?.strokes) void edits.set([...others(), { filled: { ...f, strokes: [...f.strokes, brushed(points)] } }])
      else void edits.add({ filled: { strokes: [brushed(points)] } })
    } else if (by.value === 'copy') {
      if (!from.value) from.value = start
      else void edits.add({ copied: { ...brushed(points), from: from.value, soft: soft.value || undefined } })
    } else if (by.value === 'eyes') {
      const eyes = last.value?.eyes
      const one = { ...start, radius: size.value }
      void edits.set(eyes ? [...others(), { eyes: [...eyes, one] }] : [...edits.edits, { eyes: [one] }])
    }
  }
  const wider = computed(() => last.value?.wider ?? {})
  function widen(part: Partial<Wider>) {
    const next = Object.fromEntries(Object.entries({ ...wider.value, ...part }).filter(([, v]) => v)) as Wider
    const before = last.value?.wider ? others() : edits.edits
    void edits.set(Object.keys(next).some((k) => k !== 'seed') ? [...before, { wider: next }] : before)
  }
  const toFace = () => void card.change({ do: 'widenToFace', id: edits.item })
  /** The last edit that can be filled otherwise, filled so. */
  const again = computed(() => edits.edits.findLastIndex((e) => e.filled || e.wider))
  function otherwise() {
    void edits.set(
      edits.edits.map((e, i) => {
        if (i !== again.value) return e
        if (e.filled) return { filled: { ...e.filled, seed: (e.filled.seed ?? 0) + 1 } }
        return { wider: { ...e.wider!, seed: (e.wider!.seed ?? 0) + 1 } }
      }),
    )
  }
  return { by, size, soft, from, stroke, wider, widen, toFace, again, otherwise }
})
