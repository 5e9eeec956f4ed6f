<script setup lang="ts">
// Slides and zooms a picture inside its opening; what is cropped off is seen
// faintly. Let go over another opening, the two swap pictures.
import { clamp, useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api } from '../api/client'
import type { SceneItem } from '../api/types'
import { apply, matrix, wayBack, type Box, type Matrix, type Pt } from '../parts/geom'
import { useCard } from '../store/card'
import { useTool } from '../store/tool'

const props = defineProps<{
  item: SceneItem
  at: Matrix
  local: (e: PointerEvent | WheelEvent) => Pt
  itemAt: (p: Pt) => string | undefined
}>()
const card = useCard()
const tool = useTool()

const el = ref<HTMLElement>()
const box = ref<Box>({ ...props.item.picture!.box })
watch(
  () => props.item.picture,
  (p) => p && (box.value = { ...p.box }),
)
const photo = computed(() => card.doc(props.item.id)?.photo)
const cover = computed(() => props.item.picture!.cover)
const least = computed(() => props.item.picture!.least)
const opening = computed(() => props.item.box)

/** The box where it covers what it has to. */
function covering(b: Box): Box {
  const c = cover.value
  if (!c) return b
  return { ...b, x: clamp(b.x, c.x + c.w - b.w, c.x), y: clamp(b.y, c.y + c.h - b.h, c.y) }
}
function commit() {
  const b = box.value
  const o = opening.value
  void card.change({
    do: 'cropPhoto',
    id: props.item.id,
    fit: !!photo.value?.fit,
    zoom: Math.max(1, b.w / least.value.x),
    shiftX: (b.x + b.w / 2) / o.w,
    shiftY: (b.y + b.h / 2) / o.h,
  })
}

let from: { p: Pt; box: Box } | undefined
const target = ref('')
function down(e: PointerEvent) {
  if (e.button !== 0) return
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  from = { p: props.local(e), box: { ...box.value } }
}
function motion(e: PointerEvent) {
  if (!from) return
  const p = props.local(e)
  const d = wayBack(props.at, { x: p.x - from.p.x, y: p.y - from.p.y })
  box.value = covering({ ...from.box, x: from.box.x + d.x, y: from.box.y + d.y })
  const over = card.items.get(props.itemAt({ x: e.clientX, y: e.clientY }) ?? '')
  target.value = over && over.id !== props.item.id && (over.kind === 'photo' || over.slot === 'photo') ? over.id : ''
}
function up() {
  if (!from) return
  from = undefined
  const other = target.value
  target.value = ''
  if (!other) return commit()
  tool.take('choose')
  void card.change({ do: 'swapPictures', a: props.item.id, b: other })
}
let later: ReturnType<typeof setTimeout> | undefined
useEventListener(
  el,
  'wheel',
  (e: WheelEvent) => {
    e.preventDefault()
    e.stopPropagation()
    const k = Math.exp(-e.deltaY * 0.0015)
    const b = box.value
    const w = Math.min(least.value.x * 50, Math.max(least.value.x, b.w * k))
    const f = w / b.w
    const c = { x: opening.value.x + opening.value.w / 2, y: opening.value.y + opening.value.h / 2 }
    box.value = covering({ x: c.x + (b.x - c.x) * f, y: c.y + (b.y - c.y) * f, w, h: b.h * f })
    clearTimeout(later)
    later = setTimeout(commit, 250)
  },
  { passive: false },
)
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.key === 'Enter' && !(e.target as HTMLElement).matches('input, button')) tool.take('choose')
})

const picture = computed(() => ({
  href: api.previewURL(props.item.picture!.id, 1600),
  x: box.value.x,
  y: box.value.y,
  width: box.value.w,
  height: box.value.h,
}))
const says = computed(() => apply(props.at, { x: opening.value.x, y: opening.value.y + opening.value.h }))
</script>

<template>
  <div
    ref="el"
    class="tool over-face"
    data-testid="crop"
    @pointerdown.stop="down"
    @pointermove="motion"
    @pointerup="up"
    @pointercancel="from = undefined"
    @dblclick.stop="tool.take('choose')"
  >
    <svg width="100%" height="100%">
      <g :transform="matrix(at)">
        <image v-bind="picture" preserveAspectRatio="none" opacity=".35" />
        <clipPath id="crop-opening"><path :d="item.outline" /></clipPath>
        <image v-bind="picture" preserveAspectRatio="none" clip-path="url(#crop-opening)" />
        <path :d="item.outline" class="edge" :class="{ swap: target }" />
      </g>
    </svg>
    <!-- It stays above the tools at the lower edge. -->
    <div class="says" :style="{ left: says.x + 'px', top: `min(${says.y + 10}px, 100% - 82px)` }">
      {{
        target ? 'Let go to swap the two pictures' : 'Drag the picture, turn the wheel to zoom, Enter when it is right'
      }}
    </div>
  </div>
</template>

<style scoped>
.tool {
  cursor: grab;
}
.edge {
  fill: none;
  stroke: var(--honey-dark);
  stroke-width: 1.6;
  vector-effect: non-scaling-stroke;
}
.edge.swap {
  stroke-dasharray: 5 4;
}
</style>
