<script setup lang="ts">
// What is on a face, in the order of its stack: used by the work surface, the
// map of faces and the folded card alike. Items may be shown elsewhere than
// they are while they are dragged.
import { computed, useId } from 'vue'
import type { SceneFace, SceneItem } from '../api/types'
import { matrix, then, type Matrix } from '../parts/geom'
import ItemPaint from './ItemPaint.vue'

const props = defineProps<{
  face: SceneFace
  /** Large pictures and shadows; small drawings do without. */
  fine?: boolean
  /** Pixels to the millimetre, which tells how fine pictures need to be. */
  px?: number
  /** Maps that are put behind the place of some items for now. */
  live?: Map<string, Matrix>
  /** What stands in for items' own outlines and inks for now. */
  meanwhile?: Map<string, Partial<SceneItem>>
  pick?: boolean
  /** Guides are for those who work on a face. */
  guides?: boolean
}>()

const uid = useId()

const at = (it: SceneItem): Matrix => {
  const m = props.live?.get(it.id)
  return m ? then(it.at, m) : it.at
}
const shape = (it: SceneItem) => props.meanwhile?.get(it.id)?.outline ?? it.outline
const shown = (item: SceneItem) => ({
  item: props.meanwhile?.has(item.id) ? { ...item, ...props.meanwhile.get(item.id) } : item,
  at: at(item),
  outline: shape(item),
  fine: props.fine,
  px: props.px,
  pick: props.pick,
})
const shadow = (it: SceneItem) => matrix(then(at(it), [1, 0, 0, 1, 0.25 + it.lift * 0.3, 0.4 + it.lift * 0.6]))

/** Ink that is dragged off its carrier is not clipped by it meanwhile. */
const loose = (it: SceneItem) =>
  !!it.joined || (!it.piece && !!props.live?.has(it.id) && !(it.on && props.live.has(it.on)))

const seen = (it: SceneItem) => props.guides || (it.role !== 'guide' && !it.slot)
const inkOn = (carrier: string) =>
  props.face.items.filter((it) => !it.piece && (it.on ?? '') === carrier && !loose(it) && seen(it))
const baseInks = computed(() => inkOn(''))
const pieces = computed(() => props.face.items.filter((it) => it.piece).map((item) => ({ item, inks: inkOn(item.id) })))
const looseInks = computed(() => props.face.items.filter(loose))
</script>

<template>
  <g>
    <clipPath :id="`${uid}-face`"><path :d="face.shape" /></clipPath>
    <g :clip-path="`url(#${uid}-face)`" class="laid">
      <ItemPaint v-for="it in baseInks" :key="it.id" v-bind="shown(it)" />
    </g>
    <g v-for="p in pieces" :key="p.item.id">
      <path
        v-if="fine"
        :d="shape(p.item)"
        :transform="shadow(p.item)"
        fill="#3a2a18"
        :opacity="p.item.lift ? 0.2 : 0.16"
      />
      <!-- A stock that shows through its inks lies below all of them, and what is no ink above. -->
      <ItemPaint v-if="p.item.tints" v-bind="shown(p.item)" only="stock" />
      <g :class="{ laid: p.item.tints }">
        <ItemPaint v-bind="shown(p.item)" :only="p.item.tints ? 'ink' : undefined" />
        <template v-if="p.inks.length">
          <clipPath :id="`${uid}-${p.item.id}`"><path :d="shape(p.item)" :transform="matrix(at(p.item))" /></clipPath>
          <g :clip-path="`url(#${uid}-${p.item.id})`">
            <ItemPaint v-for="it in p.inks" :key="it.id" v-bind="shown(it)" />
          </g>
        </template>
      </g>
      <ItemPaint v-if="p.item.tints" v-bind="shown(p.item)" only="marks" />
    </g>
    <ItemPaint v-for="it in looseInks" :key="it.id" v-bind="shown(it)" />
  </g>
</template>

<style scoped>
/* Printers lay no white: of an ink no more is seen than the stock below gives back. */
.laid {
  mix-blend-mode: multiply;
}
</style>
