<script setup lang="ts">
// The bed from above: cutting mat, sheet, and the paths in running order. What
// has been run is drawn full, what is under way in brick, the rest faint.
import { computed } from 'vue'
import type { Job, SheetView } from '../../api/types'
import { apply, matrix, type Matrix } from '../../parts/geom'
import { INCH } from '../../parts/measure'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { inkWithin, printedFor } from '../sheets/page'
import PieceArt from '../sheets/PieceArt.vue'

const props = defineProps<{
  sheet: SheetView
  bed: [number, number]
  job: Job | undefined
  size: number
  /** Where the corner of a sheet belongs. */
  corner: [number, number]
  travel: boolean
  /** Whether each piece tells how far it was cut from its print. */
  apart: boolean
  /** Whether a path is to be pointed at, and the one that was. */
  pointing?: boolean
  pointed?: { pass: number; path: number }
}>()
const prefs = usePrefs()
const catalogue = useCatalogue()
const emit = defineEmits<{ point: [path: { pass: number; path: number }] }>()

const running = computed(() => (props.job?.state === 'running' && props.job.kind === 'run' ? props.job : undefined))
const done = computed(() =>
  props.job?.kind === 'run' ? props.job.state === 'done' : props.sheet.state.state === 'done',
)
const at = computed(() => running.value?.run)
/** How the sheet was found to lie; it is put at the lower left corner of the cutting mat. */
const found = computed(() => props.job?.lies ?? props.sheet.state.lies)
const belongs = computed<Matrix>(() => [
  1,
  0,
  0,
  1,
  Math.min(props.corner[0], props.bed[0] - props.sheet.size.width),
  Math.max(0, props.bed[1] - props.corner[1] - props.sheet.size.height),
])
const lies = computed(() => (found.value?.at as Matrix | undefined) ?? belongs.value)
const gantry = computed(() => (at.value ? apply(lies.value, at.value).y : 0))

interface Run {
  pass: number
  path: number
  d: string
  role: string
  state: 'run' | 'now' | 'wait'
}

const paths = computed<Run[]>(() =>
  props.sheet.passes.flatMap((p, i) =>
    p.lines.map((d, j) => {
      const r = at.value
      let state: Run['state'] = done.value ? 'run' : 'wait'
      const to = props.pointed
      if (props.pointing && to)
        state = i < to.pass || (i === to.pass && j < to.path) ? 'run' : i === to.pass && j === to.path ? 'now' : 'wait'
      if (r) state = i < r.pass || (i === r.pass && j < r.path) ? 'run' : i === r.pass && j === r.path ? 'now' : 'wait'
      const valley = props.sheet.pieces.some((q) => q.lines.some((l) => l.role === 'valley' && l.path === d))
      return {
        pass: i,
        path: j,
        d,
        role: p.tool === 1 ? 'pen' : p.tool === 2 ? (valley ? 'valley' : 'mountain') : 'cut',
        state,
      }
    }),
  ),
)
const errors = computed(() =>
  (props.sheet.state.apart ?? []).flatMap((a) => {
    const p = props.sheet.pieces.find((q) => q.id === a.piece)
    return p ? [{ ...a, x: p.box.x + p.box.w / 2, y: p.box.y + p.box.h / 2, outline: p.outline }] : []
  }),
)
/** The ruling along the edges of the mat, in the unit that is chosen. */
const unit = computed(() =>
  prefs.unit === 'in' ? { step: INCH / 4, whole: 4, half: 2 } : { step: 5, whole: 10, half: 2 },
)
const marked = (along: number) => Array.from({ length: Math.floor(along / unit.value.step) + 1 }, (_, i) => i)
const length = (i: number) => (i % unit.value.whole === 0 ? 5 : i % unit.value.half === 0 ? 3 : 1.8)
const ticks = computed(() => {
  const [w, h] = props.bed
  const at = (i: number) => i * unit.value.step
  return [
    ...marked(w).map((i) => ({ d: `M${at(i)} 0v${length(i)}M${at(i)} ${h}v${-length(i)}` })),
    ...marked(h).map((i) => ({ d: `M0 ${at(i)}h${length(i)}M${w} ${at(i)}h${-length(i)}` })),
  ]
})
const figures = computed(() => {
  const { step, whole } = unit.value
  const said = (i: number) => (prefs.unit === 'in' ? String(i / whole) : String(i * step))
  const at = (along: number) => marked(along).filter((i) => i > 0 && i % whole === 0)
  return [
    ...at(props.bed[0]).map((i) => ({ text: said(i), x: i * step, y: -2 })),
    ...at(props.bed[1]).map((i) => ({ text: said(i), x: -5, y: i * step + 1.5 })),
  ]
})
</script>

<template>
  <svg
    :width="size"
    :height="size"
    :viewBox="`-22 -14 ${bed[0] + 44} ${bed[1] + 28}`"
    role="img"
    aria-label="The bed of the cutter"
    data-testid="bed"
  >
    <rect x="-22" y="-14" :width="bed[0] + 44" :height="bed[1] + 28" fill="#e9dfcd" />
    <rect x="-22" y="-14" width="6" :height="bed[1] + 28" fill="#d8c9af" />
    <rect :x="bed[0] + 16" y="-14" width="6" :height="bed[1] + 28" fill="#d8c9af" />
    <rect
      x="-9"
      y="-8"
      :width="bed[0] + 18"
      :height="bed[1] + 16"
      rx="6"
      fill="#f2e8d6"
      stroke="#cdbb9b"
      stroke-width=".6"
    />
    <!-- The cutting mat is ruled along its edges alone: what lies on it is to be seen. -->
    <g stroke="#a8977a" stroke-width=".35" data-testid="mat-rule">
      <path v-for="t in ticks" :key="t.d" :d="t.d" />
      <path :d="`M0 0H${bed[0]}V${bed[1]}H0Z`" fill="none" stroke="#d8c9af" />
    </g>
    <g fill="#8a7a5f" font-size="4.2" text-anchor="middle">
      <text v-for="n in figures" :key="n.text + n.x" :x="n.x" :y="n.y">{{ n.text }}</text>
    </g>
    <g :transform="matrix(lies)">
      <rect x=".6" y="1" :width="sheet.size.width" :height="sheet.size.height" fill="#3a2a18" opacity=".12" />
      <rect :width="sheet.size.width" :height="sheet.size.height" :fill="sheet.stock.colour" />
      <g v-for="(m, i) in sheet.marks" :key="i" fill="none" stroke="#1f2b38">
        <circle :cx="m.at.x" :cy="m.at.y" :r="catalogue.all.mark.ring" :stroke-width="catalogue.all.mark.stroke" />
        <circle :cx="m.at.x" :cy="m.at.y" :r="catalogue.all.mark.dot" fill="#1f2b38" stroke="none" />
        <circle
          v-if="m.second"
          :cx="m.second.x"
          :cy="m.second.y"
          :r="catalogue.all.mark.dot"
          fill="#1f2b38"
          stroke="none"
        />
      </g>
      <PieceArt
        v-for="p in sheet.pieces"
        :key="p.id"
        :piece="p"
        bleed
        :within="inkWithin(sheet)"
        :printed="printedFor(sheet, p)"
      />
      <g v-if="travel" class="travel"><path v-for="(p, i) in sheet.passes" :key="i" :d="p.moves" /></g>
      <path v-for="(p, i) in paths" :key="i" :d="p.d" fill="none" :class="[p.role, p.state]" />
      <g v-if="pointing" class="pointing">
        <path
          v-for="(p, i) in paths"
          :key="i"
          :d="p.d"
          role="button"
          tabindex="0"
          :aria-label="`Path ${i + 1} of ${paths.length}`"
          :aria-pressed="pointed?.pass === p.pass && pointed.path === p.path"
          :data-testid="`path-${p.pass}-${p.path}`"
          @click="emit('point', { pass: p.pass, path: p.path })"
          @keydown.enter.prevent="emit('point', { pass: p.pass, path: p.path })"
          @keydown.space.prevent="emit('point', { pass: p.pass, path: p.path })"
        />
      </g>
      <g v-if="apart" class="apart">
        <template v-for="e in errors" :key="e.piece">
          <path :d="e.outline" :class="{ off: e.off }" />
          <text :x="e.x" :y="e.y" :class="{ off: e.off }">{{ e.mean.toFixed(2) }} mm</text>
        </template>
      </g>
      <g v-if="at" :transform="`translate(${at.x} ${at.y})`">
        <circle r="6" fill="#a8432a" opacity=".2" />
        <circle r="2.2" fill="#a8432a" />
      </g>
    </g>
    <g v-for="m in found?.marks ?? []" :key="m.number" class="seen">
      <circle :cx="m.at.x" :cy="m.at.y" r="6.5" :class="{ out: !m.used }" />
    </g>
    <rect v-if="at" x="-24" :y="gantry - 6" :width="bed[0] + 48" height="12" rx="2" fill="#41505f" opacity=".16" />
  </svg>
</template>

<style scoped>
path {
  vector-effect: non-scaling-stroke;
}
.cut {
  stroke: var(--ink9);
  stroke-width: 1.4;
}
.mountain {
  stroke: var(--rust);
  stroke-width: 1.5;
  stroke-dasharray: 9 3 2 3;
}
.valley {
  stroke: var(--blue);
  stroke-width: 1.5;
  stroke-dasharray: 6 4;
}
.pen {
  stroke: var(--moss);
  stroke-width: 1.5;
}
.wait {
  opacity: 0.42;
}
.now {
  stroke: var(--brick);
  stroke-width: 2.2;
}
.pointing path {
  fill: none;
  stroke: transparent;
  stroke-width: 14;
  pointer-events: stroke;
  cursor: pointer;
}
.pointing path:hover,
.pointing path:focus-visible {
  stroke: var(--honey);
  stroke-opacity: 0.45;
  outline: none;
}
.travel path {
  fill: none;
  stroke: var(--honey-dark);
  stroke-width: 1;
  stroke-dasharray: 1.5 3;
}
.seen circle {
  fill: none;
  stroke: var(--moss);
  stroke-width: 1.6;
  stroke-dasharray: 3 2;
  vector-effect: non-scaling-stroke;
}
.seen .out {
  stroke: var(--stop);
}
.apart path {
  fill: var(--moss);
  fill-opacity: 0.12;
  stroke: none;
}
.apart path.off {
  fill: var(--stop);
}
.apart text {
  font-size: 7px;
  font-weight: 600;
  text-anchor: middle;
  dominant-baseline: middle;
  fill: var(--moss);
  stroke: var(--paper0);
  stroke-width: 2px;
  paint-order: stroke;
}
.apart text.off {
  fill: var(--stop);
}
</style>
