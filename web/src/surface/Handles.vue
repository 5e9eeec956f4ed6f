<script setup lang="ts">
// The frame about what is selected, with handles of 8 pixels that catch at 16.
import { computed } from 'vue'
import { apply, type Box, type Matrix, type Pt } from '../parts/geom'
import type { Grip } from './useDrag'

const props = defineProps<{ box: Box; at: Matrix; edges: boolean; plain?: boolean }>()
defineEmits<{ grip: [e: PointerEvent, grip: Grip]; turn: [e: PointerEvent] }>()

const on = (x: number, y: number): Pt =>
  apply(props.at, { x: props.box.x + props.box.w * x, y: props.box.y + props.box.h * y })
const frame = computed(() => {
  const p = [on(0, 0), on(1, 0), on(1, 1), on(0, 1)]
  return 'M' + p.map((q) => `${q.x} ${q.y}`).join('L') + 'z'
})
const grips = computed(() => {
  const all: { grip: Grip; p: Pt; round: boolean }[] = [
    { grip: 'nw', p: on(0, 0), round: false },
    { grip: 'ne', p: on(1, 0), round: false },
    { grip: 'se', p: on(1, 1), round: false },
    { grip: 'sw', p: on(0, 1), round: false },
  ]
  if (props.edges) {
    all.push(
      { grip: 'n', p: on(0.5, 0), round: true },
      { grip: 'e', p: on(1, 0.5), round: true },
      { grip: 's', p: on(0.5, 1), round: true },
      { grip: 'w', p: on(0, 0.5), round: true },
    )
  }
  return all
})
const angle = computed(() => (Math.atan2(props.at[1], props.at[0]) * 180) / Math.PI)
const knob = computed(() => {
  const foot = on(0.5, 1)
  const len = Math.hypot(props.at[2], props.at[3]) || 1
  return { foot, p: { x: foot.x + (props.at[2] / len) * 22, y: foot.y + (props.at[3] / len) * 22 } }
})
</script>

<template>
  <g>
    <path :d="frame" fill="none" stroke="#fffdf9" stroke-width="3" opacity=".7" pointer-events="none" />
    <path :d="frame" fill="none" stroke="#e2a42b" stroke-width="1.5" pointer-events="none" />
    <template v-if="!plain">
      <g class="turn" data-testid="turn-handle" @pointerdown="$emit('turn', $event)">
        <path :d="`M${knob.foot.x} ${knob.foot.y}L${knob.p.x} ${knob.p.y}`" stroke="#b9770e" stroke-width="1.5" />
        <circle :cx="knob.p.x" :cy="knob.p.y" r="10" fill="transparent" />
        <circle :cx="knob.p.x" :cy="knob.p.y" r="5" fill="#e2a42b" stroke="#b9770e" stroke-width="1.2" />
      </g>
      <g
        v-for="g in grips"
        :key="g.grip"
        :class="g.grip"
        :data-testid="'grip-' + g.grip"
        @pointerdown="$emit('grip', $event, g.grip)"
      >
        <rect :x="g.p.x - 8" :y="g.p.y - 8" width="16" height="16" fill="transparent" />
        <circle v-if="g.round" :cx="g.p.x" :cy="g.p.y" r="4" fill="#fffdf9" stroke="#b9770e" stroke-width="1.4" />
        <rect
          v-else
          :x="g.p.x - 4"
          :y="g.p.y - 4"
          width="8"
          height="8"
          rx="1"
          fill="#fffdf9"
          stroke="#b9770e"
          stroke-width="1.4"
          :transform="`rotate(${angle} ${g.p.x} ${g.p.y})`"
        />
      </g>
    </template>
  </g>
</template>

<style scoped>
.nw,
.se {
  cursor: nwse-resize;
}
.ne,
.sw {
  cursor: nesw-resize;
}
.n,
.s {
  cursor: ns-resize;
}
.e,
.w {
  cursor: ew-resize;
}
.turn {
  cursor: grab;
}
</style>
