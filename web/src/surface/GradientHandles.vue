<script setup lang="ts">
// A gradient on the item itself: its two ends and its colours are dragged, a
// double click on the line adds a colour.
import { computed, ref } from 'vue'
import type { Fill, SceneItem } from '../api/types'
import { apply, type Matrix, type Pt } from '../parts/geom'
import { useTool } from '../store/tool'

type Gradient = NonNullable<Fill['gradient']>

const props = defineProps<{ item: SceneItem; at: Matrix; local: (e: PointerEvent | MouseEvent) => Pt }>()
const emit = defineEmits<{ change: [g: Gradient] }>()
const tool = useTool()

const held = ref<Gradient>()
const now = computed<Gradient>(() => held.value ?? props.item.fill.gradient!)

const screen = (x: number, y: number): Pt =>
  apply(props.at, { x: props.item.box.x + x * props.item.box.w, y: props.item.box.y + y * props.item.box.h })
/** Where a pointer is, in shares of the item's box. */
function shares(e: PointerEvent | MouseEvent): Pt {
  const [a, b, c, d, tx, ty] = props.at
  const p = props.local(e)
  const det = a * d - b * c
  const x = (d * (p.x - tx) - c * (p.y - ty)) / det
  const y = (a * (p.y - ty) - b * (p.x - tx)) / det
  return { x: (x - props.item.box.x) / props.item.box.w, y: (y - props.item.box.y) / props.item.box.h }
}
const ends = computed(() => ({
  from: screen(now.value.fromX, now.value.fromY),
  to: screen(now.value.toX, now.value.toY),
}))
const stops = computed(() =>
  now.value.stops.map((s) => ({
    colour: s.colour,
    x: ends.value.from.x + (ends.value.to.x - ends.value.from.x) * s.at,
    y: ends.value.from.y + (ends.value.to.y - ends.value.from.y) * s.at,
  })),
)
/** How far along the line a pointer is, 0 to 1. */
function along(e: PointerEvent | MouseEvent): number {
  const p = props.local(e)
  const { from, to } = ends.value
  const d = { x: to.x - from.x, y: to.y - from.y }
  const k = ((p.x - from.x) * d.x + (p.y - from.y) * d.y) / (d.x * d.x + d.y * d.y || 1)
  return Math.round(Math.min(1, Math.max(0, k)) * 1000) / 1000
}

let drag: ((e: PointerEvent) => void) | undefined
function hold(e: PointerEvent, f: (e: PointerEvent) => void) {
  e.stopPropagation()
  e.preventDefault()
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  drag = f
}
const copy = (): Gradient => JSON.parse(JSON.stringify(now.value)) as Gradient
const round = (v: number) => Math.round(v * 1000) / 1000
const end = (e: PointerEvent, which: 'from' | 'to') =>
  hold(e, (m) => {
    const p = shares(m)
    const g = copy()
    g[`${which}X`] = round(p.x)
    g[`${which}Y`] = round(p.y)
    held.value = g
  })
function stop(e: PointerEvent, i: number) {
  tool.stop = i
  hold(e, (m) => {
    const g = copy()
    // Colours do not overtake each other.
    g.stops[i]!.at = Math.min(g.stops[i + 1]?.at ?? 1, Math.max(g.stops[i - 1]?.at ?? 0, along(m)))
    held.value = g
  })
}
function up() {
  drag = undefined
  if (held.value) emit('change', held.value)
  held.value = undefined
}
function add(e: MouseEvent) {
  const at = along(e)
  const g = copy()
  const i = g.stops.findIndex((s) => s.at > at)
  const k = i < 0 ? g.stops.length : i
  g.stops.splice(k, 0, { at, colour: g.stops[Math.max(0, k - 1)]!.colour })
  tool.stop = k
  emit('change', g)
}
</script>

<template>
  <g class="gradient" data-testid="gradient-handles" @pointermove="drag?.($event)" @pointerup="up" @pointercancel="up">
    <path
      :d="`M${ends.from.x} ${ends.from.y}L${ends.to.x} ${ends.to.y}`"
      stroke="#fffdf9"
      stroke-width="4"
      opacity=".8"
    />
    <path :d="`M${ends.from.x} ${ends.from.y}L${ends.to.x} ${ends.to.y}`" stroke="#1f2b38" stroke-width="1.3" />
    <path
      :d="`M${ends.from.x} ${ends.from.y}L${ends.to.x} ${ends.to.y}`"
      stroke="transparent"
      stroke-width="14"
      class="line"
      data-testid="gradient-line"
      @pointerdown.stop
      @dblclick.stop="add"
    />
    <rect
      v-for="which in ['from', 'to'] as const"
      :key="which"
      :x="ends[which].x - 9"
      :y="ends[which].y - 9"
      width="18"
      height="18"
      rx="3"
      fill="#fffdf9"
      stroke="#1f2b38"
      stroke-width="1.3"
      :data-testid="'gradient-' + which"
      @pointerdown="end($event, which)"
    />
    <circle
      v-for="(s, i) in stops"
      :key="i"
      :cx="s.x"
      :cy="s.y"
      r="6.5"
      :fill="s.colour"
      :stroke="tool.stop === i ? '#b9770e' : '#fffdf9'"
      :stroke-width="tool.stop === i ? 3 : 2"
      :data-testid="'gradient-stop-' + i"
      @pointerdown="stop($event, i)"
    />
  </g>
</template>

<style scoped>
.gradient {
  cursor: move;
}
.line {
  cursor: copy;
}
</style>
