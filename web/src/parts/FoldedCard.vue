<script setup lang="ts">
// The folded card in the hand: every panel where the fold puts it, with what is
// on it. The slider opens it; dragging or the arrow keys turn it about.
import { Slider } from 'ant-design-vue'
import { computed, ref, useId, watch } from 'vue'
import type { SceneFace } from '../api/types'
import FaceArt from '../surface/FaceArt.vue'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { useFold } from '../store/fold'
import { matrix, then, type Matrix } from './geom'
import { between, corners, facing, onPlane, project, type Eye } from './space'

const props = withDefaults(defineProps<{ width?: number; height?: number }>(), { width: 174, height: 168 })

const card = useCard()
const catalogue = useCatalogue()
const fold = useFold()
void fold.load()

const uid = useId()
const open = ref(40)
const turn = ref({ yaw: 0, pitch: 0 })
/** Something stands up inside: the card is seen lying on a table. */
const popup = computed(
  () =>
    ['stepCard', 'popupBox', 'vFold'].includes(card.view?.card.base.kind ?? '') ||
    (['topFold', 'tent'].includes(card.view?.card.base.kind ?? '') && !!card.view?.card.base.lines?.length),
)
const level = computed(() => popup.value || ['topFold', 'tent', 'easel'].includes(card.view?.card.base.kind ?? ''))
watch(
  () => card.view?.card.base.kind,
  () => {
    open.value = popup.value ? 90 : 40
    turn.value = { yaw: 0, pitch: 0 }
  },
  { immediate: true },
)

const eye = computed<Eye>(() => ({
  over: popup.value ? 'table' : level.value ? 'level' : 'upright',
  yaw: (popup.value ? 0.5 : level.value ? -0.2 : 0.24) + turn.value.yaw,
  pitch: (popup.value ? 1.08 : level.value ? 0.35 : 0.2) + turn.value.pitch,
}))

const panels = computed(() =>
  (fold.view?.panels ?? []).map((p) => ({
    ...p,
    pts: corners(p.ring),
    out: card.view?.scene.faces.find((f) => f.id === p.outside),
    in: card.view?.scene.faces.find((f) => f.id === p.inside),
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
  const frames = fold.view?.frames
  if (!frames?.length) return []
  // Quite closed, all leaves would lie in one plane.
  const at = (1 - Math.max(open.value, 1.5) / 180) * (frames.length - 1)
  const [a, b] = [frames[Math.floor(at)]!, frames[Math.ceil(at)]!]
  const motions = a.map((m, i) => between(m, b[i]!, at % 1))
  const pts = panels.value.flatMap((p, i) => p.pts.map((q) => project(eye.value, motions[i]!, q)))
  const [xs, ys] = [pts.map((p) => p[0]), pts.map((p) => p[1])]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const k = Math.min((props.width - 12) / (x1 - x0), (props.height - 22) / (y1 - y0))
  const fit: Matrix = [k, 0, 0, k, props.width / 2 - ((x0 + x1) / 2) * k, (props.height - 14) / 2 - ((y0 + y1) / 2) * k]
  return panels.value
    .map((p, i) => {
      const m = motions[i]!
      const plane = onPlane(eye.value, m)
      const outside = plane[0] * plane[3] - plane[1] * plane[2] > 0
      const depth = p.pts.reduce((s, q) => s + project(eye.value, m, q)[2], 0) / Math.max(1, p.pts.length)
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

const stock = computed(() => catalogue.stock(card.view?.card.base.stock)?.colour ?? '#fff6e0')

let from: { x: number; y: number; yaw: number; pitch: number } | undefined
function down(e: PointerEvent) {
  from = { x: e.clientX, y: e.clientY, ...turn.value }
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
}
function motion(e: PointerEvent) {
  if (!from) return
  turn.value = { yaw: from.yaw + (e.clientX - from.x) / 120, pitch: from.pitch - (e.clientY - from.y) / 120 }
}
function key(e: KeyboardEvent) {
  const step = 0.12
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, step],
    ArrowDown: [0, -step],
  }
  const d = by[e.key]
  if (!d) return
  e.preventDefault()
  e.stopPropagation()
  turn.value = { yaw: turn.value.yaw + d[0], pitch: turn.value.pitch + d[1] }
}
</script>

<template>
  <div>
    <svg
      :width="width"
      :height="height"
      :viewBox="`0 0 ${width} ${height}`"
      tabindex="0"
      role="img"
      :aria-label="`The card, ${open}° open. Arrow keys turn it.`"
      data-testid="folded-card"
      @pointerdown="down"
      @pointermove="motion"
      @pointerup="from = undefined"
      @pointercancel="from = undefined"
      @dblclick="turn = { yaw: 0, pitch: 0 }"
      @keydown="key"
    >
      <ellipse :cx="width / 2" :cy="height - 9" :rx="width * 0.4" ry="6" fill="#0000000f" />
      <g v-for="p in shown" :key="p.key" :transform="matrix(p.at)" :data-testid="'panel-' + p.key">
        <clipPath :id="`${uid}-${p.key}`"><path :d="p.ring" /></clipPath>
        <path :d="p.ring" :fill="stock" />
        <g v-if="p.face?.items.length" :clip-path="popup ? `url(#${uid}-${p.key})` : undefined">
          <g :transform="matrix(p.face.onSheet)"><FaceArt :face="p.face" /></g>
        </g>
        <path :d="p.ring" fill="#3a2a18" :opacity="p.shade" />
        <path :d="p.ring" fill="none" stroke="#b9a67f" stroke-width="1" vector-effect="non-scaling-stroke" />
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
      <span>Closed</span><span>{{ open === 0 || open === 180 ? '' : `${open}° open` }}</span
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
  cursor: grab;
  touch-action: none;
}
:deep(.ant-slider) {
  margin: 4px 6px 2px;
}
</style>
