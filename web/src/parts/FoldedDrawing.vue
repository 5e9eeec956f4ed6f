<script setup lang="ts">
// The folded card as a plain drawing, every panel by one matrix: where there is
// no room for solids, and until they are there.
import { computed, useId } from 'vue'
import type { FoldView, SceneFace } from '../api/types'
import FaceArt from '../surface/FaceArt.vue'
import { matrix, then, type Matrix } from './geom'
import { corners, facing, onPlane, project, type Eye } from './space'

const props = defineProps<{
  width: number
  height: number
  panels: FoldView['panels']
  motions: FoldView['frames'][number]
  faces: SceneFace[]
  eye: Eye
  colour: string
}>()

const uid = useId()
const sides = computed(() =>
  props.panels.map((p) => ({
    ...p,
    pts: corners(p.ring),
    out: props.faces.find((f) => f.id === p.outside),
    in: props.faces.find((f) => f.id === p.inside),
  })),
)

interface Shown {
  key: number
  ring: string
  at: Matrix
  face: SceneFace | undefined
  depth: number
  shade: number
}

const shown = computed<Shown[]>(() => {
  const { motions, eye } = props
  if (!motions.length) return []
  const pts = sides.value.flatMap((p, i) => p.pts.map((q) => project(eye, motions[i]!, q)))
  const [xs, ys] = [pts.map((p) => p[0]), pts.map((p) => p[1])]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const k = Math.min((props.width - 12) / (x1 - x0), (props.height - 12) / (y1 - y0))
  const fit: Matrix = [k, 0, 0, k, props.width / 2 - ((x0 + x1) / 2) * k, props.height / 2 - ((y0 + y1) / 2) * k]
  return sides.value
    .map((p, i) => {
      const plane = onPlane(eye, motions[i]!)
      const outside = plane[0] * plane[3] - plane[1] * plane[2] > 0
      const depth = p.pts.reduce((s, q) => s + project(eye, motions[i]!, q)[2], 0) / Math.max(1, p.pts.length)
      return {
        key: i,
        ring: p.ring,
        at: then(plane, fit),
        face: outside ? p.out : p.in,
        depth,
        shade: 0.03 + 0.2 * (1 - facing(plane)),
      }
    })
    .sort((p, q) => p.depth - q.depth)
})
</script>

<template>
  <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true">
    <g v-for="p in shown" :key="p.key" :transform="matrix(p.at)">
      <clipPath :id="`${uid}-${p.key}`"><path :d="p.ring" /></clipPath>
      <path :d="p.ring" :fill="colour" />
      <g v-if="p.face?.items.length" :clip-path="eye.over === 'table' ? `url(#${uid}-${p.key})` : undefined">
        <!-- Within the clip, too: ink is seen on its stock there. -->
        <path :d="p.ring" :fill="colour" />
        <g :transform="matrix(p.face.onSheet)"><FaceArt :face="p.face" /></g>
      </g>
      <path :d="p.ring" fill="#3a2a18" :opacity="p.shade" />
      <path :d="p.ring" fill="none" stroke="#b9a67f" stroke-width="1" vector-effect="non-scaling-stroke" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
</style>
