<script setup lang="ts">
// A face with the place of a finding ringed, and that place enlarged in a glass beside it.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useId } from 'vue'
import type { Rect, SceneFace } from '../../api/types'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import FaceArt from '../../surface/FaceArt.vue'
import ItemPaint from '../../surface/ItemPaint.vue'
import { matrix } from '../../parts/geom'
import { roleLook } from '../../parts/lines'

const props = defineProps<{
  face: SceneFace
  at?: Rect
  half?: boolean
  caption?: string
  /** The item whose cut is looked at: a corner of it, with the ink that runs past. */
  edge?: string
}>()
const card = useCard()
const catalogue = useCatalogue()
const el = ref<HTMLElement>()
const { width, height } = useElementSize(el)
const uid = useId()

const stock = computed(() => catalogue.paint(card.view?.card.base.stock))
/** The glass is a part of the room; without a place there is none. */
const glass = computed(() => (props.at ? Math.max(90, Math.min(142, width.value * 0.2, height.value * 0.3)) : 0))
/** What has to be in sight: the face, and the place where that lies beside it. */
const extent = computed(() => {
  const a = props.at ?? { x: 0, y: 0, w: 0, h: 0 }
  const x = Math.min(0, Math.max(a.x, -props.face.width / 2))
  const y = Math.min(0, Math.max(a.y, -props.face.height / 2))
  return {
    x,
    y,
    w: Math.max(props.face.width, Math.min(a.x + a.w, props.face.width * 1.5)) - x,
    h: Math.max(props.face.height, Math.min(a.y + a.h, props.face.height * 1.5)) - y,
  }
})
const scale = computed(() => {
  const wide = width.value - (props.at ? 2 * glass.value + 50 : 40)
  return Math.max(0.2, Math.min(wide / extent.value.w, (height.value - 56) / extent.value.h))
})
const left = computed(
  () =>
    Math.max(20, (width.value - extent.value.w * scale.value - (props.at ? 2 * glass.value + 30 : 0)) / 2) -
    extent.value.x * scale.value,
)
const top = computed(() => (height.value - extent.value.h * scale.value) / 2 - extent.value.y * scale.value)
const cutItem = computed(() => props.face.items.find((it) => it.id === props.edge))
const middle = computed(() => {
  if (cutItem.value) return { x: cutItem.value.bounds.x, y: cutItem.value.bounds.y }
  return props.at ? { x: props.at.x + props.at.w / 2, y: props.at.y + props.at.h / 2 } : { x: 0, y: 0 }
})
/** Of a large place the glass shows the middle of it all; of a cut 12 mm. */
const see = computed(() => {
  if (cutItem.value) return 12
  return props.at ? Math.min(Math.max(props.at.w, props.at.h, 10) * 1.2, 70) : 0
})
/** All that the ink of the cut item can reach, in its own coordinates. */
const reach = computed(() => {
  const it = cutItem.value
  if (!it?.piece || !it.bleed) return
  const { x, y, w, h } = it.box
  const b = it.bleed
  return { x: x - b, y: y - b, width: w + 2 * b, height: h + 2 * b }
})
const ring = computed(() => Math.max(14, (see.value / 2) * scale.value))
const spot = computed(() => ({
  x: left.value + middle.value.x * scale.value,
  y: top.value + middle.value.y * scale.value,
}))
const lens = computed(() => ({
  x: Math.min(width.value - glass.value - 14, left.value + props.face.width * scale.value + glass.value + 24),
  y: Math.min(
    height.value - glass.value - (props.edge ? 26 : 14),
    Math.max(glass.value + 14, spot.value.y - glass.value * 0.4),
  ),
}))
const zoom = computed(() => (2 * glass.value) / Math.max(see.value, 1))
/** From the ring to the glass. */
const lead = computed(() => {
  const dx = lens.value.x - spot.value.x
  const dy = lens.value.y - spot.value.y
  const d = Math.hypot(dx, dy) || 1
  return {
    x1: spot.value.x + (dx / d) * ring.value,
    y1: spot.value.y + (dy / d) * ring.value,
    x2: lens.value.x - (dx / d) * glass.value,
    y2: lens.value.y - (dy / d) * glass.value,
    seen: d > ring.value + glass.value,
  }
})
const lines = computed(() => props.face.folds)
</script>

<template>
  <div ref="el" class="place">
    <svg v-if="height > 0" :width="width" :height="height" role="img" :aria-label="caption" data-testid="place">
      <defs>
        <clipPath :id="uid + '-glass'"><circle :cx="lens.x" :cy="lens.y" :r="glass" /></clipPath>
      </defs>
      <g :transform="`translate(${left} ${top}) scale(${scale})`">
        <path :d="face.shape" transform="translate(0.6 1)" fill="#3a2a18" opacity=".13" />
        <path :d="face.shape" :fill="stock" />
        <line
          v-for="(l, i) in lines"
          :key="i"
          v-bind="{ x1: l.from.x, y1: l.from.y, x2: l.to.x, y2: l.to.y, ...roleLook[l.role] }"
          vector-effect="non-scaling-stroke"
        />
        <FaceArt :face="face" fine :px="scale" />
      </g>
      <template v-if="at">
        <circle :cx="spot.x" :cy="spot.y" :r="ring" class="ring" />
        <line v-if="lead.seen" v-bind="{ x1: lead.x1, y1: lead.y1, x2: lead.x2, y2: lead.y2 }" class="ring" />
        <circle :cx="lens.x" :cy="lens.y" :r="glass" fill="#f5efe4" />
        <g :clip-path="`url(#${uid}-glass)`">
          <g :transform="`translate(${lens.x} ${lens.y}) scale(${zoom}) translate(${-middle.x} ${-middle.y})`">
            <path :d="face.shape" :fill="stock" />
            <template v-if="cutItem && reach">
              <mask :id="uid + '-ink'" maskUnits="userSpaceOnUse" x="-2000" y="-2000" width="4000" height="4000">
                <path
                  :d="cutItem.outline"
                  :transform="matrix(cutItem.at)"
                  fill="#fff"
                  stroke="#fff"
                  :stroke-width="2 * cutItem.bleed"
                  stroke-linejoin="round"
                />
              </mask>
              <g :mask="`url(#${uid}-ink)`" data-testid="past-cut">
                <ItemPaint
                  :item="cutItem"
                  :at="cutItem.at"
                  :outline="`M${reach.x} ${reach.y}h${reach.width}v${reach.height}h${-reach.width}z`"
                  fine
                  :px="zoom"
                />
              </g>
            </template>
            <FaceArt v-else :face="face" fine :px="zoom" />
            <path v-if="cutItem" :d="cutItem.outline" :transform="matrix(cutItem.at)" class="at" />
            <rect v-else :x="at.x" :y="at.y" :width="at.w" :height="at.h" class="at" />
          </g>
        </g>
        <circle :cx="lens.x" :cy="lens.y" :r="glass" class="ring" />
        <text v-if="cutItem" :x="lens.x" :y="lens.y + glass + 17" text-anchor="middle" class="told">
          {{ reach ? 'dashed: its cut, with ink beyond' : 'dashed: its cut' }}
        </text>
      </template>
      <text v-if="caption" :x="left" :y="top - 9" class="caption">{{ caption }}</text>
    </svg>
  </div>
</template>

<style scoped>
.place {
  flex: 1;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
}
svg {
  display: block;
}
.ring {
  fill: none;
  stroke: var(--honey);
  stroke-width: 2.5;
}
.at {
  fill: none;
  stroke: var(--stop);
  stroke-width: 1.3;
  stroke-dasharray: 4 3;
  vector-effect: non-scaling-stroke;
}
.told {
  font-size: 12px;
  fill: var(--ink5);
}
.caption {
  font: 600 12px 'Fraunces Variable';
  fill: var(--ink7);
}
</style>
