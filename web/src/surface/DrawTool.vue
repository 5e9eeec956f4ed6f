<script setup lang="ts">
// Drawing by hand and rubbing out, with mouse, finger or stylus. What is drawn is
// seen at once, roughly; the smooth stroke follows from the program.
import { computed, ref, shallowRef, watch } from 'vue'
import type { Touch } from '../api/types'
import type { Pt } from '../parts/geom'
import { useCard } from '../store/card'
import { useTool } from '../store/tool'
import type { Overlay } from './overlay'

const props = defineProps<Overlay>()
const card = useCard()
const tool = useTool()

const touches = shallowRef<Touch[]>([])
/** Strokes that are on their way to the program. */
const sent = shallowRef<Touch[][]>([])
const at = ref<Pt>()
let held = -1
/** The stroke that was drawn last; a run of strokes on a face becomes one group. */
let run = Promise.resolve('')
watch(
  () => props.face.id,
  () => (run = Promise.resolve('')),
)
const rubbing = computed(() => tool.tool === 'rub')
const width = computed(() => (rubbing.value ? tool.pen.rubber : tool.pen.machine ? 0.5 : tool.pen.weight) * props.scale)

const round = (v: number) => Math.round(v * 1000) / 1000
function touch(e: PointerEvent): Touch {
  const p = props.toFace(props.local(e))
  // A mouse and most fingers know no pressure and say one half.
  const pressure = e.pointerType === 'pen' ? e.pressure : 0.5
  return { x: round(p.x), y: round(p.y), pressure: round(pressure) }
}
function down(e: PointerEvent) {
  if (e.button !== 0 || held >= 0) return
  held = e.pointerId
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  touches.value = [touch(e)]
}
function motion(e: PointerEvent) {
  at.value = props.local(e)
  if (e.pointerId !== held) return
  const all = e.getCoalescedEvents?.() ?? []
  touches.value = [...touches.value, ...(all.length ? all : [e]).map(touch)]
}
async function up(e: PointerEvent) {
  if (e.pointerId !== held) return
  held = -1
  const stroke = touches.value
  touches.value = []
  if (rubbing.value) {
    void card.change({
      do: 'rubOut',
      face: props.face.id,
      touches: stroke,
      width: tool.pen.rubber,
      whole: tool.pen.whole,
    })
    return
  }
  sent.value = [...sent.value, stroke]
  const p = { ...tool.pen }
  const face = props.face.id
  run = run.then(async (last) => {
    const v = await card.change({
      do: 'drawStroke',
      face,
      touches: stroke,
      tip: p.tip,
      weight: p.weight,
      colour: p.colour,
      opacity: p.machine ? 1 : p.opacity,
      machine: p.machine,
      ...(last ? { with: last } : {}),
    })
    return v?.made?.at(-1) ?? last
  })
  await run
  sent.value = sent.value.filter((s) => s !== stroke)
}
function lost() {
  held = -1
  touches.value = []
}

const path = (ts: Touch[]) =>
  ts
    .map(props.toScreen)
    .map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`)
    .join('') + (ts.length === 1 ? 'h.1' : '')
</script>

<template>
  <div
    class="tool"
    :data-testid="rubbing ? 'rubber' : 'drawing'"
    @pointerdown.stop="down"
    @pointermove="motion"
    @pointerup="up"
    @pointercancel="lost"
    @pointerleave="at = undefined"
    @dblclick.stop
  >
    <svg width="100%" height="100%">
      <path
        v-for="(s, i) in sent"
        :key="i"
        :d="path(s)"
        :stroke="tool.pen.colour"
        :stroke-width="width"
        :opacity="tool.pen.opacity"
      />
      <path
        v-if="touches.length"
        :d="path(touches)"
        :stroke="rubbing ? '#fffdf9' : tool.pen.colour"
        :stroke-width="width"
        :opacity="rubbing ? 0.75 : tool.pen.opacity"
      />
      <circle v-if="at" :cx="at.x" :cy="at.y" :r="Math.max(width / 2, 2)" class="tip" />
    </svg>
  </div>
</template>

<style scoped>
.tool {
  position: absolute;
  inset: 0;
  cursor: none;
  touch-action: none;
}
svg {
  display: block;
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.tip {
  stroke: #1f2b38;
  stroke-width: 1;
  opacity: 0.7;
}
</style>
