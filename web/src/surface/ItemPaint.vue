<script setup lang="ts">
// One item in its own coordinates: its stock, its ink, its picture.
import { computed, useId } from 'vue'
import { api } from '../api/client'
import type { SceneItem } from '../api/types'
import { matrix, type Matrix } from '../parts/geom'
import { roleLook } from '../parts/lines'

const props = defineProps<{
  item: SceneItem
  at: Matrix
  outline: string
  fine?: boolean
  px?: number
  pick?: boolean
}>()

const uid = useId()
/** Lines are thin on small pictures of the card. */
const look = computed(() => {
  const r = props.item.role
  if (!r) return undefined
  const l = roleLook[r]
  return {
    ...l,
    stroke: (r === 'pen' && props.item.fill.colour) || l.stroke,
    'stroke-width': props.fine ? l['stroke-width'] : 0.6,
  }
})
const fill = computed(() =>
  props.item.fill.paper ? `url(#paper-${props.item.fill.paper})` : (props.item.fill.colour ?? 'none'),
)
/** A preview that is no coarser than the screen, and not much finer. */
const side = (box: { w: number; h: number }) => {
  if (!props.fine) return 256
  return Math.max(box.w, box.h) * (props.px ?? 4) * window.devicePixelRatio > 800 ? 1600 : 800
}
const picture = computed(() => {
  const p = props.item.picture
  return (
    p && {
      href: api.previewURL(p.id, side(p.box)),
      x: p.box.x,
      y: p.box.y,
      width: p.box.w,
      height: p.box.h,
    }
  )
})
</script>

<template>
  <g
    :transform="matrix(at)"
    :data-item="pick ? item.id : undefined"
    :data-testid="pick ? 'item-' + item.id : undefined"
  >
    <template v-if="item.role">
      <path :d="outline" class="line" v-bind="look" />
      <path v-if="pick" :d="outline" class="line" stroke="transparent" stroke-width="12" />
    </template>
    <path v-if="item.piece" :d="outline" :fill="item.ground" />
    <template v-if="picture">
      <clipPath :id="uid"><path :d="outline" /></clipPath>
      <path :d="outline" fill="#e9dfcd" />
      <image v-bind="picture" preserveAspectRatio="none" :clip-path="`url(#${uid})`" />
    </template>
    <path v-else-if="fill !== 'none' && !item.role" :d="outline" :fill="fill" />
    <path
      v-if="item.piece && fine"
      :d="outline"
      fill="none"
      stroke="#1f2b38"
      stroke-opacity=".22"
      stroke-width=".8"
      vector-effect="non-scaling-stroke"
    />
    <!-- Letters are thin: their whole box can be caught. -->
    <rect
      v-if="pick && item.kind === 'lettering'"
      :x="item.box.x"
      :y="item.box.y"
      :width="item.box.w"
      :height="item.box.h"
      fill="transparent"
    />
  </g>
</template>

<style scoped>
.line {
  fill: none;
  vector-effect: non-scaling-stroke;
}
</style>
