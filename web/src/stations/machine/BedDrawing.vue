<script setup lang="ts">
// The bed from above: cutting mat, sheet, and the paths in running order. What
// has been run is drawn full, what is under way in brick, the rest faint.
import { computed } from 'vue'
import type { Job, SheetView } from '../../api/types'
import PieceArt from '../sheets/PieceArt.vue'

const props = defineProps<{ sheet: SheetView; bed: [number, number]; job: Job | undefined; size: number }>()

const done = computed(() => props.sheet.state.state === 'done' && !props.job)
const at = computed(() => (props.job?.state === 'running' ? props.job.run : undefined))
/** The sheet lies at the lower left corner of the cutting mat. */
const origin = computed(() => ({ x: 0, y: props.bed[1] - props.sheet.size.height }))

interface Run {
  d: string
  role: string
  state: 'run' | 'now' | 'wait'
}

const paths = computed<Run[]>(() =>
  props.sheet.passes.flatMap((p, i) =>
    p.lines.map((d, j) => {
      const r = at.value
      let state: Run['state'] = done.value || (props.job && props.job.state === 'done') ? 'run' : 'wait'
      if (r) state = i < r.pass || (i === r.pass && j < r.path) ? 'run' : i === r.pass && j === r.path ? 'now' : 'wait'
      return { d, role: p.tool === 2 ? 'score' : 'cut', state }
    }),
  ),
)
const lines = computed(() => Array.from({ length: Math.floor(props.bed[0] / 25.4) + 1 }, (_, i) => i * 25.4))
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
      fill="#dfe6e4"
      stroke="#b9c5c3"
      stroke-width=".6"
    />
    <g stroke="#c3cfcd">
      <path
        v-for="(l, i) in lines"
        :key="i"
        :d="`M${l} 0V${bed[1]}M0 ${l}H${bed[0]}`"
        :stroke-width="i % 6 ? 0.4 : 0.8"
      />
    </g>
    <g :transform="`translate(${origin.x} ${origin.y})`">
      <rect x=".6" y="1" :width="sheet.size.width" :height="sheet.size.height" fill="#3a2a18" opacity=".12" />
      <rect :width="sheet.size.width" :height="sheet.size.height" :fill="sheet.stock.colour" />
      <g v-for="(m, i) in sheet.marks" :key="i" fill="none" stroke="#1f2b38">
        <circle :cx="m.at.x" :cy="m.at.y" r="2.65" stroke-width=".7" />
        <circle :cx="m.at.x" :cy="m.at.y" r=".9" fill="#1f2b38" stroke="none" />
        <circle v-if="m.second" :cx="m.second.x" :cy="m.second.y" r=".9" fill="#1f2b38" stroke="none" />
      </g>
      <PieceArt v-for="p in sheet.pieces" :key="p.id" :piece="p" bleed />
      <path v-for="(p, i) in paths" :key="i" :d="p.d" fill="none" :class="[p.role, p.state]" />
      <g v-if="at" :transform="`translate(${at.x} ${at.y})`">
        <circle r="6" fill="#a8432a" opacity=".2" />
        <circle r="2.2" fill="#a8432a" />
      </g>
    </g>
    <rect
      v-if="at"
      x="-24"
      :y="origin.y + at.y - 6"
      :width="bed[0] + 48"
      height="12"
      rx="2"
      fill="#41505f"
      opacity=".16"
    />
  </svg>
</template>

<style scoped>
path.cut,
path.score {
  vector-effect: non-scaling-stroke;
}
.cut {
  stroke: var(--ink9);
  stroke-width: 1.4;
}
.score {
  stroke: var(--rust);
  stroke-width: 1.5;
  stroke-dasharray: 9 3 2 3;
}
.wait {
  opacity: 0.42;
}
.now {
  stroke: var(--brick);
  stroke-width: 2.2;
}
</style>
