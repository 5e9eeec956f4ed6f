<script setup lang="ts">
// The folded card as a plain drawing: two leaves about their fold, opened by
// the slider. The projection is parallel, so that a face's own drawing can be
// laid on its leaf by one matrix.
import { Slider } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { SceneFace } from '../api/types'
import FaceArt from '../surface/FaceArt.vue'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { matrix, type Matrix, type Pt } from './geom'

const props = withDefaults(defineProps<{ width?: number; height?: number }>(), { width: 174, height: 168 })

const card = useCard()
const catalogue = useCatalogue()
const open = ref(40)

interface V3 {
  x: number
  y: number
  z: number
}

const tilt = 0.2 // radians: how far from above (side fold) or from the side (top fold) one looks
const lean = 10 // degrees that the back leaf leans away while the card is closed

const scaled = (v: V3, k: number): V3 => ({ x: v.x * k, y: v.y * k, z: v.z * k })

interface Leaf {
  face: SceneFace
  at: Matrix
  edge: string
}

const leaves = computed<Leaf[]>(() => {
  const v = card.view
  if (!v) return []
  const { width: w, height: h, kind } = v.card.base
  const side = kind === 'sideFold'
  const project = (p: V3): Pt =>
    side
      ? { x: p.x, y: p.y * Math.cos(tilt) - p.z * Math.sin(tilt) }
      : { x: p.x * Math.cos(tilt) - p.z * Math.sin(tilt), y: p.y }
  const radians = (deg: number) => (deg * Math.PI) / 180
  const back = radians(lean * (1 - open.value / 180))
  const front = back + radians(open.value)
  // Away from the fold along a leaf; z is negative towards the viewer.
  const away = (a: number): V3 =>
    side ? { x: Math.cos(a), y: 0, z: -Math.sin(a) } : { x: 0, y: Math.cos(a), z: -Math.sin(a) }
  const along: V3 = side ? { x: 0, y: 1, z: 0 } : { x: 1, y: 0, z: 0 }
  const zero: V3 = { x: 0, y: 0, z: 0 }

  /** A face on its leaf: where its corner lies and where its axes run. */
  const frame = (id: SceneFace['id']): [V3, V3, V3] => {
    const leaf = away(id === 'front' || id === 'insideFirst' ? front : back)
    const neg = scaled(leaf, -1)
    if (side) {
      return id === 'front' || id === 'insideSecond' ? [zero, leaf, along] : [scaled(leaf, w), neg, along]
    }
    if (id === 'back') return [scaled(along, w), scaled(along, -1), leaf]
    return id === 'insideFirst' ? [scaled(leaf, h), along, neg] : [zero, along, leaf]
  }

  const shown = (['insideSecond', 'back', 'insideFirst', 'front'] as const)
    .map((id) => {
      const [o, e1, e2] = frame(id)
      const [po, p1, p2] = [project(o), project(e1), project(e2)]
      return { id, m: [p1.x, p1.y, p2.x, p2.y, po.x, po.y] as Matrix }
    })
    // A face whose axes run the right way round is turned towards the viewer.
    .filter(({ m }) => m[0] * m[3] - m[1] * m[2] > 0)
  const corners = shown.flatMap(({ m }) => [
    [m[4], m[5]],
    [m[4] + m[0] * w, m[5] + m[1] * w],
    [m[4] + m[2] * h, m[5] + m[3] * h],
    [m[4] + m[0] * w + m[2] * h, m[5] + m[1] * w + m[3] * h],
  ])
  const xs = corners.map((c) => c[0]!)
  const ys = corners.map((c) => c[1]!)
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const k = Math.min((props.width - 16) / (x1 - x0), (props.height - 30) / (y1 - y0))
  const dx = props.width / 2 - ((x0 + x1) / 2) * k
  const dy = (props.height - 12) / 2 - ((y0 + y1) / 2) * k
  return shown.flatMap(({ id, m }) => {
    const face = v.scene.faces.find((f) => f.id === id)
    if (!face) return []
    const at: Matrix = [m[0] * k, m[1] * k, m[2] * k, m[3] * k, m[4] * k + dx, m[5] * k + dy]
    return [{ face, at, edge: `M0 0H${w}V${h}H0z` }]
  })
})

const stock = computed(() => catalogue.stock(card.view?.card.base.stock)?.colour ?? '#fff6e0')
</script>

<template>
  <div>
    <svg
      :width="width"
      :height="height"
      :viewBox="`0 0 ${width} ${height}`"
      role="img"
      :aria-label="`The card, ${open}° open`"
      data-testid="folded-card"
    >
      <ellipse :cx="width / 2" :cy="height - 10" :rx="width * 0.42" ry="7" fill="#0000000f" />
      <g v-for="l in leaves" :key="l.face.id" :transform="matrix(l.at)" :data-testid="'leaf-' + l.face.id">
        <path :d="l.edge" :fill="stock" />
        <FaceArt :face="l.face" />
        <path v-if="l.face.side === 'inside'" :d="l.edge" fill="#3a2a18" :opacity="0.07" />
        <path :d="l.edge" fill="none" stroke="#cdbb9b" stroke-width="1" vector-effect="non-scaling-stroke" />
      </g>
    </svg>
    <Slider
      v-model:value="open"
      :min="0"
      :max="180"
      :tooltip-open="false"
      aria-label="How far the card is open"
      data-testid="opening"
    />
    <div class="ends">
      <span>Closed</span><span>{{ open === 0 ? '' : open === 180 ? '' : `${open}° open` }}</span
      ><span>Flat</span>
    </div>
  </div>
</template>

<style scoped>
.ends {
  display: flex;
  justify-content: space-between;
  color: var(--ink5);
  font-size: 11px;
}
svg {
  display: block;
}
:deep(.ant-slider) {
  margin: 4px 6px 2px;
}
</style>
