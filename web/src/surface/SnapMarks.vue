<script setup lang="ts">
// What a dragged box has caught on: lines across the surface, and equal gaps with
// their width.
import { computed } from 'vue'
import type { Pt } from '../parts/geom'
import { usePrefs } from '../store/prefs'
import type { SnapGap, SnapLine } from './snap'

const props = defineProps<{
  lines: SnapLine[]
  gaps: SnapGap[]
  toScreen: (p: Pt) => Pt
  width: number
  height: number
}>()
const prefs = usePrefs()

const drawn = computed(() =>
  props.lines.map((l) => {
    const p = props.toScreen({ x: l.at, y: l.at })
    return l.axis === 'x' ? `M${p.x} 0V${props.height}` : `M0 ${p.y}H${props.width}`
  }),
)
const marks = computed(() =>
  props.gaps.map((g) => {
    const level = g.axis === 'x'
    const a = props.toScreen(level ? { x: g.from, y: g.level } : { x: g.level, y: g.from })
    const b = props.toScreen(level ? { x: g.to, y: g.level } : { x: g.level, y: g.to })
    const d = level
      ? `M${a.x} ${a.y - 5}v10M${a.x} ${a.y}H${b.x}M${b.x} ${b.y - 5}v10`
      : `M${a.x - 5} ${a.y}h10M${a.x} ${a.y}V${b.y}M${b.x - 5} ${b.y}h10`
    return {
      d,
      x: (a.x + b.x) / 2 + (level ? 0 : 8),
      y: (a.y + b.y) / 2 - (level ? 6 : 0),
      anchor: level ? ('middle' as const) : ('start' as const),
      text: prefs.len(g.to - g.from),
    }
  }),
)
</script>

<template>
  <g pointer-events="none">
    <path v-for="(d, i) in drawn" :key="i" :d="d" />
    <g v-for="(g, i) in marks" :key="'g' + i" data-testid="equal-gap">
      <path :d="g.d" class="gap" />
      <text :x="g.x" :y="g.y" :text-anchor="g.anchor">{{ g.text }}</text>
    </g>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--honey);
  stroke-width: 1.2;
}
.gap {
  stroke-width: 1.4;
}
text {
  fill: #8a5a0a;
  font-size: 11px;
  font-weight: 600;
  paint-order: stroke;
  stroke: #fffdf9;
  stroke-width: 3px;
}
</style>
