// The part of a photo that light and colours are changed in: painted, or found by strokes.
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Point } from '../api/types'
import { useEdits } from './edits'

export type Part = 'whole' | 'painted' | 'found'

export const usePart = defineStore('part', () => {
  const edits = useEdits()
  const by = ref<Part>('whole')
  const brush = ref<'in' | 'out'>('in')
  const size = ref(0.05)
  const of = computed(() => edits.part)

  // The part of the edit that is chosen.
  watch(
    () => [edits.chosen, !!of.value],
    () => {
      if (of.value) by.value = of.value.subject ? 'found' : 'painted'
      else if (edits.edits[edits.chosen]) by.value = 'whole'
    },
  )
  function take(p: Part) {
    by.value = p
    brush.value = 'in'
    if (p === 'whole') void edits.ofPart(undefined)
    // Another part is one more edit.
    else if (of.value) edits.chosen = -1
  }
  function stroke(points: Point[]) {
    const one = { points, radius: size.value }
    const now = of.value ?? {}
    if (by.value === 'painted') {
      const inside = brush.value === 'in' || !now.paint?.length
      void edits.ofPart({ ...now, paint: [...(now.paint ?? []), { ...one, in: inside || undefined, soft: true }] })
      return
    }
    const subject = now.subject ?? {}
    const says = brush.value === 'in' || !subject.stays ? 'stays' : 'goes'
    void edits.ofPart({ ...now, subject: { ...subject, [says]: [...(subject[says] ?? []), one] }, softness: 0.002 })
  }
  const rest = (is: boolean) => of.value && void edits.ofPart({ ...of.value, rest: is || undefined })

  return { by, brush, size, of, take, stroke, rest }
})
