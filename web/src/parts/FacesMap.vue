<script setup lang="ts">
// The net of faces as a map, outside and inside: click one to work on it.
import { computed } from 'vue'
import type { SceneFace } from '../api/types'
import FaceArt from '../surface/FaceArt.vue'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { matrix } from './geom'
import { useCalm } from './useCalm'

const card = useCard()
const catalogue = useCatalogue()
const stock = computed(() => catalogue.paint(card.view?.card.base.stock))
const calm = useCalm(() => card.view)
const net = computed(() => calm.value?.scene.net)

const sides = computed(() => {
  const faces = calm.value?.scene.faces ?? []
  const folds = !!net.value?.lines.length
  return [
    { name: folds ? 'Outside of the sheet' : 'One side', faces: faces.filter((f) => f.side === 'outside') },
    { name: folds ? 'Inside of the sheet' : 'The other', faces: faces.filter((f) => f.side === 'inside') },
  ]
})

// The head of Back points down on the map of a top fold; its name does not.
const middle = (f: SceneFace) => {
  const m = f.onMap
  return {
    x: m[0] * (f.width / 2) + m[2] * (f.height / 2) + m[4],
    y: m[1] * (f.width / 2) + m[3] * (f.height / 2) + m[5],
  }
}
/** A name in lines that keep within a narrow face as far as they can be read. */
function lines(f: SceneFace) {
  const room = (f.width * scale.value) / (9 * 0.52)
  const out: string[] = []
  for (const word of f.name.split(' ')) {
    const last = out.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= room) out[out.length - 1] = last + ' ' + word
    else out.push(word)
  }
  return out
}
const lettering = (f: SceneFace) => {
  const longest = Math.max(...lines(f).map((l) => l.length))
  return Math.max(8, Math.min(11, (f.width * scale.value) / (longest * 0.5)))
}
/** Where the first line of a name stands. */
const top = (f: SceneFace) => {
  const more = ((lines(f).length - 1) * lettering(f) * 1.1) / scale.value
  return f.items.length ? middle(f).y + f.height / 2 - 5 / scale.value - more : middle(f).y - more / 2
}
const box = (f: SceneFace) => {
  const c = middle(f)
  return { x: c.x - f.width / 2, y: c.y - f.height / 2, width: f.width, height: f.height }
}
/** A tall net leaves room for its other side beside it. */
const tall = computed(() => !!net.value && net.value.height > net.value.width * 1.3)
const scale = computed(() => {
  if (!net.value) return 1
  const [w, h] = tall.value ? [70, 190] : [170, 118]
  return Math.min(w / net.value.width, h / net.value.height)
})
</script>

<template>
  <div v-if="net" class="map" :class="{ tall }">
    <div v-for="s in sides" :key="s.name">
      <small>{{ tall ? s.name.replace(' of the sheet', '') : s.name }}</small>
      <svg
        :width="net.width * scale + 4"
        :height="net.height * scale + 4"
        :viewBox="`${-2 / scale} ${-2 / scale} ${net.width + 4 / scale} ${net.height + 4 / scale}`"
      >
        <g
          v-for="f in s.faces"
          :key="f.id"
          role="button"
          tabindex="0"
          :aria-label="f.name"
          :aria-pressed="f.id === card.faceId"
          :data-testid="'face-' + f.id"
          class="face"
          @click="card.work(f.id)"
          @keydown.enter="card.work(f.id)"
          @keydown.space.prevent="card.work(f.id)"
        >
          <g :transform="matrix(f.onMap)">
            <path :d="f.shape" :fill="stock" />
            <FaceArt :face="f" />
          </g>
          <rect v-bind="box(f)" fill="transparent" />
          <rect v-bind="box(f)" fill="none" stroke="#d8c9af" stroke-width="1" vector-effect="non-scaling-stroke" />
          <text
            :y="top(f)"
            :font-size="lettering(f) / scale"
            :stroke-width="3.5 / scale"
            :class="{ on: f.id === card.faceId, over: f.items.length }"
            text-anchor="middle"
          >
            <tspan v-for="(l, i) in lines(f)" :key="i" :x="middle(f).x" :dy="i && (lettering(f) * 1.1) / scale">
              {{ l }}
            </tspan>
          </text>
        </g>
        <g v-for="f in s.faces" :key="f.id + 'lines'" :transform="matrix(f.onMap)" pointer-events="none">
          <line
            v-for="(l, i) in f.folds"
            :key="i"
            :x1="l.from.x"
            :y1="l.from.y"
            :x2="l.to.x"
            :y2="l.to.y"
            :class="l.role"
            vector-effect="non-scaling-stroke"
          />
        </g>
        <rect
          v-for="f in s.faces.filter((f) => f.id === card.faceId)"
          :key="f.id + 'on'"
          v-bind="box(f)"
          fill="none"
          stroke="#a8432a"
          stroke-width="2"
          vector-effect="non-scaling-stroke"
          pointer-events="none"
        />
      </svg>
    </div>
  </div>
</template>

<style scoped>
.map {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}
small {
  margin: 4px 0 3px;
}
.map.tall {
  flex-direction: row;
  justify-content: space-around;
  align-self: stretch;
}
svg {
  display: block;
  overflow: visible;
}
.cut {
  stroke: #1f2b38;
  stroke-width: 1;
}
.face {
  cursor: pointer;
  outline: none;
}
.face:focus-visible rect:last-of-type {
  stroke: var(--blue);
  stroke-width: 2;
}
line {
  stroke-width: 1.2;
}
.mountain {
  stroke: var(--rust);
  stroke-dasharray: 6 2 1.5 2;
}
.valley {
  stroke: var(--blue);
  stroke-dasharray: 5 3;
}
text {
  fill: var(--ink5);
  font-weight: 500;
}
text.over {
  stroke: #fffdf9e0;
  paint-order: stroke;
  stroke-linejoin: round;
}
text.on {
  fill: var(--brick);
  font-weight: 650;
}
</style>
