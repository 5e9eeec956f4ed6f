<script setup lang="ts">
// A stroke of a round brush on a photo of a size on the screen, or a bare line.
import { computed } from 'vue'
import type { Point } from '../../api/types'

const props = defineProps<{
  points: Point[]
  w: number
  h: number
  /** In shares of the width; without one it is a bare line. */
  radius?: number
  means: 'stays' | 'goes'
  closed?: boolean
}>()
const d = computed(
  () =>
    props.points.map((p, i) => `${i ? 'L' : 'M'}${p.x * props.w} ${p.y * props.h}`).join('') +
    (props.closed ? 'Z' : props.points.length === 1 ? 'h.01' : ''),
)
</script>

<template>
  <path v-if="radius" :d="d" :stroke-width="radius * 2 * w" class="mark" :class="means" />
  <path v-else :d="d" class="line" :stroke-dasharray="closed ? '5 4' : undefined" />
</template>

<style scoped>
path {
  fill: none;
  pointer-events: none;
}
.mark {
  stroke-linecap: round;
  stroke-linejoin: round;
  opacity: 0.6;
}
.stays {
  stroke: #4d7a3f;
}
.goes {
  stroke: #6f7c88;
}
.line {
  stroke: #a8432a;
  stroke-width: 1.8;
}
</style>
