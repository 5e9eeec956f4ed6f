<script setup lang="ts">
// The paper of the face, its folds with their kind written along them, the
// safe line, and the neighbour faces as ghosts.
import { computed } from 'vue'
import type { SceneFace } from '../api/types'
import { apply, matrix } from '../parts/geom'
import { roleLook } from '../parts/lines'

const props = defineProps<{ face: SceneFace; stock: string; scale: number }>()

const px = computed(() => 1 / props.scale)
const ghosts = computed(() =>
  props.face.neighbours.map((n) => ({
    ...n,
    middle: apply(n.at, { x: n.width / 2, y: n.height / 2 }),
  })),
)
const folds = computed(() =>
  props.face.folds
    .filter((l) => l.main)
    .map((l) => {
      const upright = Math.abs(l.from.x - l.to.x) < 0.01
      const beyond = 10 * px.value
      return {
        role: l.role,
        upright,
        x1: upright ? l.from.x : Math.min(l.from.x, l.to.x) - beyond,
        x2: upright ? l.to.x : Math.max(l.from.x, l.to.x) + beyond,
        y1: upright ? Math.min(l.from.y, l.to.y) - beyond : l.from.y,
        y2: upright ? Math.max(l.from.y, l.to.y) + beyond : l.to.y,
        // Written on the neighbour's side of the fold.
        tx: upright ? l.from.x + (l.from.x < props.face.width / 2 ? -7 : 13) * px.value : props.face.width * 0.16,
        ty: upright ? props.face.height / 2 : l.from.y + (l.from.y < props.face.height / 2 ? -7 : 15) * px.value,
      }
    }),
)
/** Lines of pop-ups, which lie on the face itself. */
const lines = computed(() => props.face.folds.filter((l) => !l.main))
</script>

<template>
  <g>
    <g v-for="g in ghosts" :key="g.id">
      <g :transform="matrix(g.at)"><rect :width="g.width" :height="g.height" fill="#fffdf9" opacity=".55" /></g>
      <text :x="g.middle.x" :y="g.middle.y" :font-size="15 * px" text-anchor="middle" class="ghost">{{ g.name }}</text>
    </g>
    <path :d="face.shape" transform="translate(0.5 0.9)" fill="#3a2a18" opacity=".13" />
    <rect :width="face.width" :height="face.height" fill="transparent" data-testid="face-ground" />
    <path :d="face.shape" :fill="stock" />
    <line
      v-for="(l, i) in lines"
      :key="'l' + i"
      v-bind="{ x1: l.from.x, y1: l.from.y, x2: l.to.x, y2: l.to.y, ...roleLook[l.role] }"
      vector-effect="non-scaling-stroke"
    />
    <g v-for="(l, i) in folds" :key="i" :class="l.role">
      <line v-bind="{ x1: l.x1, x2: l.x2, y1: l.y1, y2: l.y2 }" :stroke-width="1.6 * px" />
      <text
        :x="l.tx"
        :y="l.ty"
        :font-size="11.5 * px"
        text-anchor="middle"
        :transform="l.upright ? `rotate(-90 ${l.tx} ${l.ty})` : undefined"
      >
        {{ l.role }} fold
      </text>
    </g>
    <text
      :x="face.width / 2"
      :y="-9 * px"
      :font-size="14 * px"
      text-anchor="middle"
      class="name"
      data-testid="face-name"
      >{{ face.name }}</text
    >
  </g>
</template>

<style scoped>
.ghost {
  fill: #6f6657;
  font-family: 'Fraunces Variable', serif;
}
.name {
  fill: var(--ink7);
  font-family: 'Fraunces Variable', serif;
}
.mountain line {
  stroke: var(--rust);
  stroke-dasharray: 14 3 2.5 3;
  vector-effect: non-scaling-stroke;
  stroke-width: 1.6;
}
.mountain text {
  fill: var(--rust);
}
.valley line {
  stroke: var(--blue);
  stroke-dasharray: 8 5;
  vector-effect: non-scaling-stroke;
  stroke-width: 1.6;
}
.valley text {
  fill: var(--blue);
}
</style>
