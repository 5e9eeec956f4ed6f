<script setup lang="ts">
// The folded card in the hand: every panel where the fold puts it, with what is
// on it. The slider opens it; dragging or the arrow keys turn it about.
import { Slider } from 'ant-design-vue'
import { usePreferredReducedMotion } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { api } from '../api/client'
import type { FoldView, View } from '../api/types'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { useFold } from '../store/fold'
import FoldedDrawing from './FoldedDrawing.vue'
import FoldedSolid from './FoldedSolid.vue'
import { between, type Eye } from './space'
import { useCalm } from './useCalm'

withDefaults(defineProps<{ width?: number; height?: number }>(), { width: 174, height: 168 })

const card = useCard()
const catalogue = useCatalogue()
const fold = useFold()

const open = ref(40)
const turn = ref({ yaw: 0, pitch: 0 })
const seenFrom = computed(() => fold.view?.eye)
/** Something stands up inside, or may by a person's own lines: the card is seen lying on a table. */
const popup = computed(
  () =>
    seenFrom.value === 'table' ||
    (seenFrom.value === 'level' && card.view?.card.base.kind !== 'easel' && !!card.view?.card.base.lines?.length),
)
/** Whether there is anything to open. */
const folds = computed(() => !!card.view?.scene.net.lines.length)
const level = computed(() => popup.value || seenFrom.value === 'level')
watch(
  [() => card.view?.card.base.kind, seenFrom],
  () => {
    open.value = popup.value ? 90 : 40
    turn.value = { yaw: 0, pitch: 0 }
  },
  { immediate: true },
)

const eye = computed<Eye>(() => ({
  over: popup.value ? 'table' : level.value ? 'level' : 'upright',
  // What does not fold is seen from its front.
  yaw: (popup.value ? 0.5 : level.value ? -0.2 : folds.value ? 0.24 : Math.PI - 0.24) + turn.value.yaw,
  pitch: (popup.value ? 1.08 : level.value ? 0.35 : 0.2) + turn.value.pitch,
}))

/** Made anew when the hand rests, so that it does not hold up the work. */
const calm = useCalm(() => card.view)
/** The card and how it folds, which also tells on which panels its pieces are: the two belong together. */
const seen = shallowRef<{ view: View; fold: FoldView }>()
watch(
  calm,
  async (v) => {
    await fold.load()
    if (v && v === calm.value && fold.view) seen.value = { view: v, fold: fold.view }
  },
  { immediate: true },
)
/** How many pieces are on it. */
const pieces = computed(() => {
  const f = seen.value?.fold
  const all = seen.value?.view.scene.faces.flatMap((face) => face.items.filter((it) => it.piece)) ?? []
  return all.filter((it) => f && (f.bent[it.id] || (f.homes[it.id] ?? -1) >= 0)).length
})

const motions = computed(() => {
  const frames = seen.value?.fold.frames
  if (!frames?.length) return []
  // Quite closed, all leaves would lie in one plane.
  const at = (1 - Math.max(open.value, 1.5) / 180) * (frames.length - 1)
  const [a, b] = [frames[Math.floor(at)]!, frames[Math.ceil(at)]!]
  return a.map((m, i) => between(m, b[i]!, at % 1))
})

const stock = computed(() => catalogue.stock(card.view?.card.base.stock))
/** Without WebGL, and for who wants no motion, the plain drawing stays. */
const still = usePreferredReducedMotion()
const failed = ref(false)
const sheet = computed(() => {
  if (!seen.value || still.value === 'reduce' || failed.value) return undefined
  const v = seen.value.view
  return {
    fold: seen.value.fold,
    faces: v.scene.faces,
    colour: stock.value?.colour ?? '#fff6e0',
    thickness: stock.value?.thickness ?? 0.3,
    look: (face: string, piece?: string) => api.lookURL(v, catalogue.all.stocksAre, face, piece),
  }
})

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
    <div
      class="hand"
      :style="{ width: width + 'px', height: height - 14 + 'px' }"
      tabindex="0"
      role="img"
      :aria-label="`The card, ${open}° open. Arrow keys turn it.`"
      data-testid="folded-card"
      :data-panels="seen?.fold.panels.length"
      :data-pieces="pieces"
      @pointerdown="down"
      @pointermove="motion"
      @pointerup="from = undefined"
      @pointercancel="from = undefined"
      @dblclick="turn = { yaw: 0, pitch: 0 }"
      @keydown="key"
    >
      <template v-if="seen && fold.view && motions.length">
        <FoldedSolid
          v-if="sheet"
          :width="width"
          :height="height - 14"
          :sheet="sheet"
          :motions="motions"
          :eye="eye"
          @failed="failed = true"
        />
        <FoldedDrawing
          v-else
          :width="width"
          :height="height - 14"
          :panels="seen.fold.panels"
          :motions="motions"
          :faces="seen.view.scene.faces"
          :eye="eye"
          :colour="stock?.colour ?? '#fff6e0'"
        />
      </template>
    </div>
    <svg :width="width" height="14" aria-hidden="true">
      <ellipse :cx="width / 2" cy="7" :rx="width * 0.4" ry="6" fill="#0000000f" />
    </svg>
    <Slider
      v-if="folds"
      v-model:value="open"
      :min="0"
      :max="180"
      :tooltip-open="false"
      aria-label="How far the card is open"
      data-testid="opening"
    />
    <div v-if="folds" class="ends">
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
.hand {
  cursor: grab;
  touch-action: none;
}
svg {
  display: block;
}
:deep(.ant-slider) {
  margin: 4px 6px 2px;
}
</style>
