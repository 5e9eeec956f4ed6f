<script setup lang="ts">
// What is drawn on a photo with a round brush, a bare line, or clicks; in shares of the photo.
import { ref, shallowRef } from 'vue'
import type { Point } from '../../api/types'
import type { Pt } from '../../parts/geom'
import MarkPath from './MarkPath.vue'

const props = defineProps<{
  w: number
  h: number
  /** The radius of the brush, in shares of the width. */
  size: number
  means: 'stays' | 'goes'
  /** A bare line in place of a stroke, or clicks. */
  as: 'stroke' | 'line' | 'click'
}>()
const emit = defineEmits<{ stroke: [points: Point[]] }>()

const points = shallowRef<Point[]>([])
const at = ref<Pt>()
let held = -1

const share = (e: PointerEvent): Point => {
  const r = (e.currentTarget as Element).getBoundingClientRect()
  const of = (v: number) => Math.round(v * 1e4) / 1e4
  return { x: of((e.clientX - r.left) / r.width), y: of((e.clientY - r.top) / r.height) }
}
function down(e: PointerEvent) {
  if (e.button) return
  e.stopPropagation()
  if (props.as === 'click') {
    emit('stroke', [share(e)])
    return
  }
  held = e.pointerId
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  points.value = [share(e)]
}
function move(e: PointerEvent) {
  at.value = share(e)
  if (e.pointerId !== held) return
  const last = points.value.at(-1)!
  // Near ones tell nothing more.
  if (Math.hypot((at.value.x - last.x) * props.w, (at.value.y - last.y) * props.h) > 2.5)
    points.value = [...points.value, at.value]
}
function up(e: PointerEvent) {
  if (e.pointerId !== held) return
  held = -1
  const all = points.value
  points.value = []
  emit('stroke', all)
}
</script>

<template>
  <g>
    <MarkPath
      v-if="points.length"
      :points="points"
      :radius="as === 'line' ? undefined : size"
      :means="means"
      :w="w"
      :h="h"
    />
    <rect
      :width="w"
      :height="h"
      fill="transparent"
      :class="as"
      data-testid="brush-layer"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="((held = -1), (points = []))"
      @pointerleave="at = undefined"
    />
    <g v-if="at && as === 'stroke'" fill="none" pointer-events="none">
      <circle :cx="at.x * w" :cy="at.y * h" :r="size * w" stroke="#fffdf9" stroke-width="2.6" opacity=".7" />
      <circle :cx="at.x * w" :cy="at.y * h" :r="size * w" stroke="#1f2b38" stroke-width="1.2" />
    </g>
  </g>
</template>

<style scoped>
rect.stroke {
  cursor: none;
}
rect.line,
rect.click {
  cursor: crosshair;
}
</style>
