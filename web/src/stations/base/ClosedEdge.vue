<script setup lang="ts">
// The closed card seen along its folds, drawn apart: which panel lies on which.
import { computed } from 'vue'
import type { FoldPanel, NetLayer } from '../../api/types'

const props = defineProps<{
  edge: NetLayer[]
  panels: FoldPanel[]
  layers: number
  name: (face: string) => string
}>()

const wide = 118
const step = 12
const rows = computed(() => {
  const lo = Math.min(...props.edge.map((l) => l.from))
  const k = wide / (Math.max(...props.edge.map((l) => l.to)) - lo)
  const out: { bars: { x: number; w: number }[]; names: string[] }[] = []
  for (const l of props.edge) {
    const row = (out[l.depth] ??= { bars: [], names: [] })
    row.bars.push({ x: (l.from - lo) * k, w: (l.to - l.from) * k })
    const p = props.panels[l.panel]
    const name = [p?.outside, p?.inside].flatMap((f) => (f ? [props.name(f)] : [])).join(' / ')
    if (name && !row.names.includes(name)) row.names.push(name)
  }
  return out
})
const height = computed(() => rows.value.length * step + 4)
</script>

<template>
  <figure data-testid="closed-edge">
    <figcaption>Closed, from Front backward; {{ layers }} layers where most lie on each other</figcaption>
    <svg :width="262" :height="height" role="img" aria-label="The panels of the closed card, from Front backward">
      <g v-for="(r, i) in rows" :key="i" :transform="`translate(0 ${i * step + 6})`">
        <line v-for="(b, j) in r.bars" :key="j" :x1="b.x + 2" :x2="b.x + b.w - 2" class="paper" />
        <line :x1="wide + 4" :x2="wide + 14" class="leader" />
        <text :x="wide + 18" y="3.5">
          {{ r.names[0] }}
          <title>{{ r.names.join(', ') }}</title>
        </text>
      </g>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 8px 0 0;
}
figcaption {
  color: var(--ink5);
  font-size: 11.5px;
  margin-bottom: 4px;
}
.paper {
  stroke: var(--ink7);
  stroke-width: 3;
  stroke-linecap: round;
}
.leader {
  stroke: var(--ink3);
}
text {
  font: 11px 'Figtree Variable';
  fill: var(--ink7);
}
</style>
