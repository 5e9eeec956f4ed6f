<script setup lang="ts">
// The marks that say what stays and what goes, over the photo, and the brush that makes them.
import { computed } from 'vue'
import type { Brushed, Point } from '../../api/types'
import { useCutOut } from '../../store/cutout'
import BrushLayer from './BrushLayer.vue'

const props = defineProps<{ w: number; h: number }>()
const cut = useCutOut()

const path = (all: Point[]) =>
  all.map((p, i) => `${i ? 'L' : 'M'}${p.x * props.w} ${p.y * props.h}`).join('') + (all.length === 1 ? 'h.01' : '')
const strokes = computed(() => {
  const s = cut.now?.subject
  const of = (all: Brushed[] | undefined, is: string) =>
    (all ?? []).map((b) => ({ d: path(b.points), r: b.radius, is }))
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
    <path v-for="(s, i) in strokes" :key="i" :d="s.d" :stroke-width="s.r * 2 * w" class="mark" :class="s.is" />
    <path v-if="cut.now?.subject?.round" :d="path(cut.now.subject.round) + 'Z'" class="round" />
    <BrushLayer
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

<style scoped>
.mark {
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
  opacity: 0.6;
  pointer-events: none;
}
.stays {
  stroke: #4d7a3f;
}
.goes {
  stroke: #6f7c88;
}
.round {
  fill: none;
  stroke: #a8432a;
  stroke-width: 1.6;
  stroke-dasharray: 5 4;
  pointer-events: none;
}
</style>
