<script setup lang="ts">
// A drawing as it is understood: the sheet, its lines by their roles, the panels that have faces, and the
// places that are asked about.
import { computed } from 'vue'
import type { DrawingFound } from '../../api/types'
import { roleLook } from '../../parts/lines'

const props = defineProps<{ found: DrawingFound; colour: string; asked: string }>()
defineEmits<{ leaf: [panel: number]; ask: [id: string] }>()

const size = 330
const box = computed(() => {
  const b = props.found.box
  const rim = Math.max(b.w, b.h) * 0.05
  return { x: b.x - rim, y: b.y - rim, w: b.w + 2 * rim, h: b.h + 2 * rim }
})
/** Millimetres to a pixel. */
const px = computed(() => Math.max(box.value.w, box.value.h) / size)
</script>

<template>
  <svg
    :viewBox="`${box.x} ${box.y} ${box.w} ${box.h}`"
    role="img"
    aria-label="The drawing as it is understood"
    data-testid="drawn-picture"
  >
    <path v-if="found.edge" :d="found.edge" :fill="colour" />
    <path
      v-for="(p, i) in found.panels"
      :key="i"
      :d="p.ring"
      class="panel"
      :class="{ leaf: p.leaf >= 0, first: p.leaf === 0 }"
      fill-rule="evenodd"
      :data-testid="'drawn-panel-' + i"
      @click="$emit('leaf', i)"
    >
      <title>
        {{ p.leaf >= 0 ? 'It has faces. Click to take them away.' : 'It has no faces. Click to give it some.' }}
      </title>
    </path>
    <path v-if="found.edge" :d="found.edge" fill="none" v-bind="roleLook.cut" vector-effect="non-scaling-stroke" />
    <path
      v-for="(l, i) in found.lines"
      :key="'l' + i"
      :d="l.path"
      fill="none"
      v-bind="roleLook[l.role]"
      vector-effect="non-scaling-stroke"
    />
    <template v-for="(p, i) in found.panels" :key="'n' + i">
      <text v-if="p.leaf >= 0" :x="p.at.x" :y="p.at.y + 6 * px" :font-size="17 * px" text-anchor="middle">
        {{ p.leaf + 1 }}
      </text>
    </template>
    <g
      v-for="(q, i) in found.questions"
      :key="q.id"
      class="ask"
      :class="{ on: q.id === asked, done: q.answer }"
      @click="$emit('ask', q.id)"
    >
      <circle :cx="q.at.x" :cy="q.at.y" :r="11 * px" vector-effect="non-scaling-stroke" />
      <text :x="q.at.x" :y="q.at.y + 4.5 * px" :font-size="13 * px" text-anchor="middle">{{ i + 1 }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: 100%;
}
.panel {
  fill: transparent;
  cursor: pointer;
}
.panel:hover {
  fill: #a8432a14;
}
.panel.leaf {
  fill: #587a4a1c;
}
.panel.first {
  fill: #e2a42b2e;
}
text {
  font-family: 'Fraunces Variable';
  font-weight: 600;
  fill: var(--ink7);
  pointer-events: none;
}
.ask {
  cursor: pointer;
}
.ask circle {
  fill: #fff6df;
  stroke: var(--caution);
  stroke-width: 1.5;
}
.ask.on circle {
  stroke-width: 3;
}
.ask.done circle {
  fill: #eef3ea;
  stroke: var(--moss);
}
</style>
