<script setup lang="ts">
// Rulers along the upper and the left edge, in the unit that is chosen, with
// the extent of what is selected.
import { computed } from 'vue'
import { INCH } from '../parts/measure'
import type { Box, Pt } from '../parts/geom'
import { usePrefs } from '../store/prefs'

const props = defineProps<{ width: number; height: number; scale: number; offset: Pt; marked?: Box }>()
const prefs = usePrefs()
const BAR = 22

interface Tick {
  at: number
  size: number
  label?: string
}

function ticks(length: number, start: number): Tick[] {
  if (!length || !Number.isFinite(props.scale)) return []
  const unit = prefs.unit === 'in' ? INCH : 10
  // The finest division that is still 5 pixels wide.
  const parts = (prefs.unit === 'in' ? [16, 8, 4, 2, 1] : [10, 2, 1]).find((n) => (unit / n) * props.scale >= 5) ?? 1
  const every = [1, 2, 5, 10, 20, 50].find((n) => n * unit * props.scale >= (prefs.unit === 'in' ? 26 : 22)) ?? 50
  const step = unit / parts
  const out: Tick[] = []
  const first = Math.floor((BAR - start) / props.scale / step)
  const last = Math.ceil((length - start) / props.scale / step)
  for (let i = first; i <= last; i++) {
    const at = start + i * step * props.scale
    if (at < BAR) continue
    const whole = i % parts === 0
    const value = i / parts
    const labelled = whole && value % every === 0
    out.push({
      at,
      size: labelled ? 12 : whole ? 9 : (i * 2) % parts === 0 ? 7 : 4,
      label: labelled ? String(prefs.unit === 'in' ? value : value * 10) : undefined,
    })
  }
  return out
}

const across = computed(() => ticks(props.width, props.offset.x))
const down = computed(() => ticks(props.height, props.offset.y))
</script>

<template>
  <g class="rulers" pointer-events="none">
    <rect :width="width" :height="BAR" fill="#fffdf9" />
    <rect :width="BAR" :height="height" fill="#fffdf9" />
    <template v-if="marked">
      <rect :x="marked.x * scale + offset.x" :y="BAR - 4" :width="marked.w * scale" height="4" fill="#e2a42b" />
      <rect :x="BAR - 4" :y="marked.y * scale + offset.y" width="4" :height="marked.h * scale" fill="#e2a42b" />
    </template>
    <g v-for="t in across" :key="'x' + t.at">
      <line :x1="t.at" :x2="t.at" :y1="BAR - t.size" :y2="BAR" />
      <text v-if="t.label" :x="t.at + 3" y="10">{{ t.label }}</text>
    </g>
    <g v-for="t in down" :key="'y' + t.at">
      <line :y1="t.at" :y2="t.at" :x1="BAR - t.size" :x2="BAR" />
      <text v-if="t.label" x="2" :y="t.at + 10">{{ t.label }}</text>
    </g>
    <rect :width="BAR" :height="BAR" fill="#fffdf9" />
    <text x="5" y="15" class="unit">{{ prefs.unit }}</text>
    <path :d="`M0 ${BAR}H${width}M${BAR} 0V${height}`" stroke="#e9dfcd" fill="none" />
  </g>
</template>

<style scoped>
line {
  stroke: #8d969c;
  stroke-width: 1;
  shape-rendering: crispEdges;
}
text {
  font-size: 10px;
  fill: #566370;
}
.unit {
  font-size: 9px;
}
</style>
