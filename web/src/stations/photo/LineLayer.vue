<script setup lang="ts">
// A line round what stays: clicks with ways between them that cling to edges, or straight ones with
// Shift; it is closed by a click on its beginning, by Enter or by a double click.
import { onKeyStroke } from '@vueuse/core'
import { ref, shallowRef } from 'vue'
import { api } from '../../api/client'
import type { Edit, Point } from '../../api/types'
import MarkPath from './MarkPath.vue'

const props = defineProps<{ w: number; h: number; picture: string; edits: Edit[] }>()
const emit = defineEmits<{ close: [points: Point[]] }>()

/** The parts between clicks, each from its click on. */
const parts = shallowRef<Point[][]>([])
/** The way from the last click to the pointer. */
const ahead = shallowRef<Point[]>([])
const last = ref<Point>()
const begin = ref<Point>()

const share = (e: PointerEvent): Point => {
  const r = (e.currentTarget as Element).getBoundingClientRect()
  const of = (v: number) => Math.min(1, Math.max(0, Math.round(v * 1e4) / 1e4))
  return { x: of((e.clientX - r.left) / r.width), y: of((e.clientY - r.top) / r.height) }
}
const near = (a: Point, b: Point) => Math.hypot((a.x - b.x) * props.w, (a.y - b.y) * props.h) < 9

let asked = 0
let busy = false
let wanted: { to: Point; straight: boolean } | undefined
async function look(to: Point, straight: boolean) {
  wanted = { to, straight }
  if (busy) return
  busy = true
  while (wanted && last.value) {
    const [want, from, n] = [wanted, last.value, ++asked]
    wanted = undefined
    const way = want.straight
      ? [from, want.to]
      : await api.way(props.picture, props.edits, from, want.to).catch(() => [from, want.to])
    if (n === asked && last.value === from) ahead.value = way
  }
  busy = false
}
/** Parts come in the order of their clicks. */
let coming: Promise<unknown> = Promise.resolve()
function click(e: PointerEvent) {
  if (e.button) return
  e.stopPropagation()
  const at = share(e)
  if (!last.value) last.value = begin.value = at
  else if (begin.value && clicks > 1 && near(at, begin.value)) void close(e.shiftKey)
  else add(at, e.shiftKey)
}
let clicks = 0
/** One more part, to a place. */
function add(to: Point, straight: boolean) {
  const from = last.value!
  last.value = to
  ahead.value = []
  clicks++
  const way = straight ? [from, to] : api.way(props.picture, props.edits, from, to).catch(() => [from, to])
  coming = Promise.all([coming, way]).then(([, w]) => (parts.value = [...parts.value, w.slice(0, -1)]))
}
async function close(straight = false) {
  if (!begin.value || clicks < 2) return
  add(begin.value, straight)
  await coming
  const all = parts.value.flat()
  parts.value = []
  last.value = begin.value = undefined
  clicks = 0
  emit('close', all)
}
async function back() {
  await coming
  const part = parts.value.at(-1)
  if (part) last.value = part[0]
  else last.value = begin.value = undefined
  parts.value = parts.value.slice(0, -1)
  clicks = parts.value.length
  ahead.value = []
}
onKeyStroke('Enter', (e) => {
  if (!last.value) return
  e.preventDefault()
  void close()
})
onKeyStroke('Backspace', (e) => {
  if (!last.value) return
  e.preventDefault()
  void back()
})
</script>

<template>
  <g>
    <MarkPath v-if="last" :points="[...parts.flat(), last]" means="stays" :w="w" :h="h" />
    <MarkPath v-if="ahead.length" :points="ahead" means="stays" :w="w" :h="h" />
    <circle v-if="begin" :cx="begin.x * w" :cy="begin.y * h" r="5" fill="#fffdf9" stroke="#a8432a" stroke-width="1.6" />
    <rect
      :width="w"
      :height="h"
      fill="transparent"
      data-testid="line-layer"
      @pointerdown="click"
      @pointermove="last && look(share($event), $event.shiftKey)"
      @dblclick.stop="close()"
    />
  </g>
</template>

<style scoped>
rect {
  cursor: crosshair;
}
circle {
  pointer-events: none;
}
</style>
