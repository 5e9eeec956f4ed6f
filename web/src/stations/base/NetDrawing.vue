<script setup lang="ts">
// The net of the base with its measures, as one would draw it before cutting:
// seen from inside, where people score.
import { computed } from 'vue'
import type { Net } from '../../api/types'
import { apply, matrix, type Matrix, type Pt } from '../../parts/geom'
import { roleLook, roleNames, type Role } from '../../parts/lines'
import { usePrefs } from '../../store/prefs'

const props = defineProps<{ net: Net; colour: string; width: number; height: number }>()
const prefs = usePrefs()

const scale = computed(() =>
  // However little room there is, something is seen.
  Math.max(0.1, Math.min((props.width - 120) / props.net.width, (props.height - 150) / props.net.height, 2.6)),
)
const w = computed(() => props.net.width * scale.value)
const h = computed(() => props.net.height * scale.value)

/** Seen from inside the sheet is turned over, about the way its main folds run. */
const upright = computed(() => {
  const main = props.net.lines.find((l) => l.main)
  return !main || main.from.x === main.to.x
})
const seen = (p: Pt): Pt =>
  upright.value
    ? { x: (props.net.width - p.x) * scale.value, y: p.y * scale.value }
    : { x: p.x * scale.value, y: (props.net.height - p.y) * scale.value }

const edge = computed(() => props.net.edge || `M0 0H${props.net.width}V${props.net.height}H0Z`)
const turned = computed<Matrix>(() => {
  const s = scale.value
  return upright.value ? [-s, 0, 0, s, w.value, 0] : [s, 0, 0, -s, 0, h.value]
})

const lines = computed(() =>
  props.net.lines.map((l) => {
    const role: Role = l.role === 'mountain' ? 'valley' : l.role === 'valley' ? 'mountain' : l.role
    const [a, b] = [seen(l.from), seen(l.to)]
    return { role, a, b, d: `M${a.x} ${a.y}L${b.x} ${b.y}` }
  }),
)
const roles = computed(() => [...new Set<Role>(['cut', ...lines.value.map((l) => l.role)])])

/** Where lines run or end along one axis, the sheet's edges too. */
function stops(axis: 'x' | 'y', end: number): { at: number; text: string; from: number; to: number }[] {
  const all = [0, end]
  for (const l of lines.value) {
    const other = axis === 'x' ? 'y' : 'x'
    if (Math.abs(l.a[axis] - l.b[axis]) < 0.01 && Math.abs(l.a[other] - l.b[other]) > 0.01) all.push(l.a[axis])
  }
  const cuts = all.sort((p, q) => p - q).filter((v, i) => i === 0 || v - all[i - 1]! > 0.05)
  return cuts.slice(1).map((to, i) => ({
    from: cuts[i]!,
    to,
    at: (cuts[i]! + to) / 2,
    text: prefs.len((to - cuts[i]!) / scale.value),
  }))
}
const across = computed(() => stops('x', w.value))
const down = computed(() => stops('y', h.value))
const faces = computed(() =>
  props.net.faces
    .filter((f) => f.side === 'inside')
    .map((f) => {
      const c = apply(f.onSheet, { x: f.width / 2, y: f.height / 2 })
      const outer = props.net.faces.find((g) => {
        const m = apply(g.onSheet, { x: g.width / 2, y: g.height / 2 })
        return g.side === 'outside' && Math.hypot(m.x - c.x, m.y - c.y) < 1
      })
      return { name: f.name, outer: outer?.name, narrow: f.width * scale.value < 118, ...seen(c) }
    }),
)
/** The key may be wider than the net. */
const wide = computed(() => Math.max(w.value + 110, roles.value.length * 124 + 20))
const popup = computed(() => props.net.lines.some((l) => !l.main))
</script>

<template>
  <svg
    :width="wide"
    :height="h + 110"
    :viewBox="`${(w + 38 - 72 - wide) / 2} -48 ${wide} ${h + 110}`"
    role="img"
    aria-label="The net of the base"
    data-testid="net"
  >
    <g :transform="matrix(turned)">
      <path :d="edge" :transform="`translate(${2 / scale} ${3 / scale})`" fill="#3a2a18" opacity=".1" />
      <path :d="edge" :fill="colour" stroke="#1f2b38" stroke-width="1.3" vector-effect="non-scaling-stroke" />
    </g>
    <path v-for="(l, i) in lines" :key="i" :d="l.d" fill="none" v-bind="roleLook[l.role]" />
    <template v-if="!popup">
      <g v-for="f in faces" :key="f.name">
        <text :x="f.x" :y="f.y - 2" text-anchor="middle" class="face" :class="{ narrow: f.narrow }">{{ f.name }}</text>
        <text v-if="!f.narrow" :x="f.x" :y="f.y + 14" text-anchor="middle" class="inner">behind it {{ f.outer }}</text>
      </g>
    </template>
    <g class="dim">
      <g v-for="(d, i) in across" :key="'x' + i">
        <path :d="`M${d.from} -8v-14M${d.to} -8v-14M${d.from} -16H${d.to}`" />
        <text v-if="d.to - d.from > 17" :x="d.at" y="-23" text-anchor="middle">{{ d.text }}</text>
      </g>
      <g v-for="(d, i) in down" :key="'y' + i">
        <path :d="`M-8 ${d.from}h-14M-8 ${d.to}h-14M-16 ${d.from}V${d.to}`" />
        <text v-if="d.to - d.from > 11" x="-26" :y="d.at + 4" text-anchor="end">{{ d.text }}</text>
      </g>
    </g>
    <text :x="w / 2" :y="h + 24" text-anchor="middle" class="sheet">
      Sheet {{ prefs.size(net.width, net.height) }}, seen from inside
    </text>
    <g :transform="`translate(${w / 2 - roles.length * 62 + 6} ${h + 46})`" class="key">
      <g v-for="(r, i) in roles" :key="r" :transform="`translate(${i * 124} 0)`">
        <path d="M0 0h34" fill="none" v-bind="roleLook[r]" />
        <text x="41" y="4">{{ roleNames[r].toLowerCase() }}</text>
      </g>
    </g>
  </svg>
</template>

<style scoped>
svg {
  overflow: visible;
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
.face.narrow {
  font-size: 11px;
}
.inner {
  font-size: 11px;
  fill: var(--ink5);
}
</style>
