<script setup lang="ts">
// The net of the base with its measures, as one would draw it before cutting.
import { computed } from 'vue'
import type { Net } from '../../api/types'
import { apply } from '../../parts/geom'
import { usePrefs } from '../../store/prefs'

const props = defineProps<{ net: Net; colour: string; width: number; height: number }>()
const prefs = usePrefs()

const scale = computed(() =>
  Math.min((props.width - 120) / props.net.width, (props.height - 150) / props.net.height, 2.6),
)
const w = computed(() => props.net.width * scale.value)
const h = computed(() => props.net.height * scale.value)

/** Where the sheet is divided by folds, along one axis. */
function stops(axis: 'x' | 'y', end: number): { at: number; text: string; from: number; to: number }[] {
  const cuts = [0, ...props.net.lines.filter((l) => l.from[axis] === l.to[axis]).map((l) => l.from[axis]), end]
  return cuts.slice(1).map((to, i) => ({
    from: cuts[i]! * scale.value,
    to: to * scale.value,
    at: ((cuts[i]! + to) / 2) * scale.value,
    text: prefs.len(to - cuts[i]!),
  }))
}
const across = computed(() => stops('x', props.net.width))
const down = computed(() => stops('y', props.net.height))
const faces = computed(() =>
  props.net.faces
    .filter((f) => f.side === 'outside')
    .map((f) => {
      const c = apply(f.onSheet, { x: f.width / 2, y: f.height / 2 })
      const inner = props.net.faces.find((g) => {
        const m = apply(g.onSheet, { x: g.width / 2, y: g.height / 2 })
        return g.side === 'inside' && Math.hypot(m.x - c.x, m.y - c.y) < 1
      })
      return { name: f.name, inner: inner?.name, x: c.x * scale.value, y: c.y * scale.value }
    }),
)
</script>

<template>
  <svg
    :width="w + 110"
    :height="h + 110"
    :viewBox="`-72 -48 ${w + 110} ${h + 110}`"
    role="img"
    aria-label="The net of the base"
    data-testid="net"
  >
    <rect x="2" y="3" :width="w" :height="h" fill="#3a2a18" opacity=".1" />
    <rect :width="w" :height="h" :fill="colour" stroke="#1f2b38" stroke-width="1.3" />
    <line
      v-for="(l, i) in net.lines"
      :key="i"
      :x1="l.from.x * scale"
      :y1="l.from.y * scale"
      :x2="l.to.x * scale"
      :y2="l.to.y * scale"
      :class="l.role"
    />
    <g v-for="f in faces" :key="f.name">
      <text :x="f.x" :y="f.y - 2" text-anchor="middle" class="face">{{ f.name }}</text>
      <text :x="f.x" :y="f.y + 14" text-anchor="middle" class="inner">behind it {{ f.inner }}</text>
    </g>
    <g class="dim">
      <g v-for="(d, i) in across" :key="'x' + i">
        <path :d="`M${d.from} -8v-14M${d.to} -8v-14M${d.from} -16H${d.to}`" />
        <text :x="d.at" y="-23" text-anchor="middle">{{ d.text }}</text>
      </g>
      <g v-for="(d, i) in down" :key="'y' + i">
        <path :d="`M-8 ${d.from}h-14M-8 ${d.to}h-14M-16 ${d.from}V${d.to}`" />
        <text x="-26" :y="d.at + 4" text-anchor="end">{{ d.text }}</text>
      </g>
    </g>
    <text :x="w / 2" :y="h + 26" text-anchor="middle" class="sheet">
      Sheet {{ prefs.size(net.width, net.height) }}, seen from outside
    </text>
    <g :transform="`translate(${w / 2 - 92} ${h + 48})`" class="key">
      <path d="M0 0h28" stroke="#1f2b38" stroke-width="1.6" />
      <text x="36" y="4">cut</text>
      <path d="M84 0h40" stroke="#a4572b" stroke-width="1.7" stroke-dasharray="11 3 2 3" />
      <text x="132" y="4">mountain</text>
    </g>
  </svg>
</template>

<style scoped>
.mountain {
  stroke: var(--rust);
  stroke-width: 1.8;
  stroke-dasharray: 11 3 2 3;
}
.valley {
  stroke: var(--blue);
  stroke-width: 1.8;
  stroke-dasharray: 6 4;
}
.dim path {
  stroke: var(--ink3);
  fill: none;
}
.dim text,
.key text,
.sheet {
  font-size: 12px;
  fill: var(--ink7);
}
.face {
  font: 600 14px 'Fraunces Variable';
  fill: var(--ink7);
}
.inner {
  font-size: 11px;
  fill: var(--ink5);
}
</style>
