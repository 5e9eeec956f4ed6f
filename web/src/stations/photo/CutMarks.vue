<script setup lang="ts">
// The marks that say what stays and what goes, and the brush; drawn over the photo.
import { computed, ref, shallowRef } from 'vue'
import type { Brushed, Point } from '../../api/types'
import type { Pt } from '../../parts/geom'
import { useCutOut } from '../../store/cutout'

const props = defineProps<{ w: number; h: number }>()
const cut = useCutOut()

const points = shallowRef<Point[]>([])
const at = ref<Pt>()
let held = -1

const path = (all: Point[]) =>
  all.map((p, i) => `${i ? 'L' : 'M'}${p.x * props.w} ${p.y * props.h}`).join('') + (all.length === 1 ? 'h.01' : '')
const strokes = computed(() => {
  const s = cut.now?.subject
  const of = (all: Brushed[] | undefined, is: string) =>
    (all ?? []).map((b) => ({ d: path(b.points), r: b.radius, is }))
  return [...of(s?.stays, 'stays'), ...of(s?.goes, 'goes')]
})
const free = computed(() => cut.by === 'round' && cut.brush === 'stays' && !cut.now?.subject?.round)

const share = (e: PointerEvent): Point => {
  const r = (e.currentTarget as Element).getBoundingClientRect()
  const of = (v: number) => Math.round(v * 1e4) / 1e4
  return { x: of((e.clientX - r.left) / r.width), y: of((e.clientY - r.top) / r.height) }
}
function down(e: PointerEvent) {
  if (e.button) return
  e.stopPropagation()
  if (cut.by === 'ground' && cut.brush !== 'in' && cut.brush !== 'out') {
    cut.click(share(e))
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
  if (!free.value) cut.stroke(all)
  else if (all.length > 5) cut.round(all)
}
</script>

<template>
  <g>
    <path v-for="(s, i) in strokes" :key="i" :d="s.d" :stroke-width="s.r * 2 * w" class="mark" :class="s.is" />
    <path v-if="cut.now?.subject?.round" :d="path(cut.now.subject.round) + 'Z'" class="line" />
    <circle
      v-for="(p, i) in cut.now?.ground?.at ?? []"
      :key="'g' + i"
      :cx="p.x * w"
      :cy="p.y * h"
      r="4"
      fill="#fffdf9"
      stroke="#1f2b38"
    />
    <path
      v-if="points.length"
      :d="path(points)"
      :stroke-width="free ? 2 : cut.size * 2 * w"
      class="mark"
      :class="free ? 'free' : cut.brush"
    />
    <rect
      :width="w"
      :height="h"
      fill="transparent"
      :class="cut.by === 'ground' ? 'click' : 'draw'"
      data-testid="cut-marks"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="((held = -1), (points = []))"
      @pointerleave="at = undefined"
    />
    <circle
      v-if="at && !free && !(cut.by === 'ground' && (cut.brush === 'stays' || cut.brush === 'goes'))"
      :cx="at.x * w"
      :cy="at.y * h"
      :r="cut.size * w"
      fill="none"
      stroke="#1f2b38"
      stroke-width="1.4"
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
.stays,
.in {
  stroke: #4d7a3f;
}
.goes,
.out {
  stroke: #6f7c88;
}
.free {
  stroke: #a8432a;
  opacity: 1;
}
.line {
  fill: none;
  stroke: #a8432a;
  stroke-width: 1.6;
  stroke-dasharray: 5 4;
  pointer-events: none;
}
.draw {
  cursor: none;
}
.click {
  cursor: crosshair;
}
</style>
