<script setup lang="ts">
// The marks that say what stays and what goes, over the photo, and the brush that makes them.
import { computed } from 'vue'
import type { Brushed, Point } from '../../api/types'
import { useCutOut } from '../../store/cutout'
import { useEdits } from '../../store/edits'
import BrushLayer from './BrushLayer.vue'
import LineLayer from './LineLayer.vue'
import MarkPath from './MarkPath.vue'

defineProps<{ w: number; h: number }>()
const cut = useCutOut()
const edits = useEdits()

const strokes = computed(() => {
  const s = cut.now?.subject
  const of = (all: Brushed[] | undefined, means: 'stays' | 'goes') => (all ?? []).map((b) => ({ ...b, means }))
  return [...of(s?.stays, 'stays'), ...of(s?.goes, 'goes')]
})
const paints = computed(() => cut.brush === 'in' || cut.brush === 'out')
const as = computed(() => {
  if (paints.value) return 'stroke'
  if (cut.by === 'ground') return 'click'
  return cut.by === 'round' && cut.brush === 'stays' && !cut.now?.subject?.round ? 'line' : 'stroke'
})
function drawn(all: Point[]) {
  if (as.value === 'click') cut.click(all[0]!)
  else if (as.value === 'stroke') cut.stroke(all)
  else if (all.length > 5) cut.round(all)
}
</script>

<template>
  <g>
    <MarkPath v-for="(s, i) in strokes" :key="i" v-bind="s" :w="w" :h="h" />
    <MarkPath v-if="cut.now?.subject?.round" :points="cut.now.subject.round" means="stays" closed :w="w" :h="h" />
    <MarkPath v-if="cut.now?.within" :points="cut.now.within" means="stays" closed :w="w" :h="h" />
    <LineLayer
      v-if="cut.by === 'line' && !paints && edits.photo"
      :w="w"
      :h="h"
      :picture="edits.photo.picture"
      :edits="cut.before"
      data-testid="cut-marks"
      @close="cut.within"
    />
    <BrushLayer
      v-else
      :w="w"
      :h="h"
      :size="cut.size"
      :means="cut.brush === 'stays' || cut.brush === 'in' ? 'stays' : 'goes'"
      :as="as"
      data-testid="cut-marks"
      @stroke="drawn"
    />
    <circle
      v-for="(p, i) in cut.now?.ground?.at ?? []"
      :key="'g' + i"
      :cx="p.x * w"
      :cy="p.y * h"
      r="4"
      fill="#fffdf9"
      stroke="#1f2b38"
      pointer-events="none"
    />
  </g>
</template>
