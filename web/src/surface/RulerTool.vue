<script setup lang="ts">
// Measures between any two places of the face; its ends catch on edges and
// middles as dragged items do.
import { computed, ref } from 'vue'
import type { Pt } from '../parts/geom'
import { usePrefs } from '../store/prefs'
import { around, snap } from './snap'
import type { Overlay } from './overlay'

const props = defineProps<Overlay>()
const prefs = usePrefs()

const from = ref<Pt>()
const to = ref<Pt>()
const held = ref(false)

const near = computed(() =>
  around([{ x: 0, y: 0, w: props.face.width, h: props.face.height }, ...props.face.items.map((it) => it.bounds)], []),
)
function place(e: PointerEvent): Pt {
  const p = props.toFace(props.local(e))
  if (e.shiftKey) return p
  const s = snap({ ...p, w: 0, h: 0 }, near.value, 6 / props.scale)
  return { x: p.x + s.dx, y: p.y + s.dy }
}
function down(e: PointerEvent) {
  if (e.button !== 0) return
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  from.value = place(e)
  to.value = from.value
  held.value = true
}
function motion(e: PointerEvent) {
  if (held.value) to.value = place(e)
}

const drawn = computed(() => {
  if (!from.value || !to.value) return undefined
  const a = props.toScreen(from.value)
  const b = props.toScreen(to.value)
  const dx = to.value.x - from.value.x
  const dy = to.value.y - from.value.y
  const len = Math.hypot(b.x - a.x, b.y - a.y) || 1
  const n = { x: (-(b.y - a.y) / len) * 7, y: ((b.x - a.x) / len) * 7 }
  return {
    d: `M${a.x} ${a.y}L${b.x} ${b.y}M${a.x - n.x} ${a.y - n.y}L${a.x + n.x} ${a.y + n.y}M${b.x - n.x} ${b.y - n.y}L${b.x + n.x} ${b.y + n.y}`,
    at: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 },
    length: prefs.lenUnit(Math.hypot(dx, dy)),
    parts: `${prefs.len(Math.abs(dx))} across · ${prefs.len(Math.abs(dy))} down`,
  }
})
</script>

<template>
  <div
    class="tool over-face"
    data-testid="ruler"
    @pointerdown.stop="down"
    @pointermove="motion"
    @pointerup="held = false"
    @pointercancel="held = false"
    @dblclick.stop
  >
    <svg v-if="drawn" width="100%" height="100%">
      <path :d="drawn.d" stroke="#fffdf9" stroke-width="4" />
      <path :d="drawn.d" stroke="#b9770e" stroke-width="1.6" />
    </svg>
    <div v-if="drawn" class="says" :style="{ left: drawn.at.x + 12 + 'px', top: drawn.at.y + 10 + 'px' }">
      <b data-testid="ruler-length">{{ drawn.length }}</b>
      <span>{{ drawn.parts }}</span>
    </div>
  </div>
</template>

<style scoped>
.tool {
  cursor: crosshair;
}
svg {
  fill: none;
}
.says {
  display: grid;
}
.says span {
  font-size: 11px;
  opacity: 0.85;
}
</style>
