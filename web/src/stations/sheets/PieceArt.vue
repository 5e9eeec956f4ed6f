<script setup lang="ts">
// A piece as it comes out of the printer: its ink with bleed, before it is cut.
import { computed, useId } from 'vue'
import type { SceneItem, SheetPiece } from '../../api/types'
import { matrix } from '../../parts/geom'
import { useCard } from '../../store/card'
import ItemPaint from '../../surface/ItemPaint.vue'

const props = defineProps<{
  piece: SheetPiece
  bleed: boolean
  /** Where ink ends on the sheet, if before the piece does. */
  within?: { x: number; y: number; width: number; height: number }
  /** What is printed on its sheet, and how large that is: of a piece that is made for a name, since the page knows
   * only the card that is shown. */
  printed?: { href: string; width: number; height: number }
}>()
const card = useCard()
const uid = useId()

const face = computed(() => card.view?.scene.faces.find((f) => f.id === props.piece.face))
const item = computed(() => face.value?.items.find((it) => it.id === props.piece.item))
const inks = computed(() => face.value?.items.filter((it) => !it.piece && it.on === props.piece.item) ?? [])
/** Drawn without its ground: paper has the colour of the sheet. */
const bare = (it: SceneItem): SceneItem => ({ ...it, ground: 'none' })
/** The base shows its outside; an insert is what is printed on the inside. */
const faces = computed(() => {
  const side = props.piece.item === 'insert' ? 'inside' : 'outside'
  return card.view?.scene.faces.filter((f) => f.side === side) ?? []
})
const grow = computed(() => (props.bleed ? (item.value?.bleed ?? 0) * 2 : 0))
</script>

<template>
  <g v-if="printed" class="printed" pointer-events="none">
    <clipPath :id="uid">
      <rect v-if="bleed" :x="piece.box.x" :y="piece.box.y" :width="piece.box.w" :height="piece.box.h" />
      <path v-else :d="piece.outline" />
    </clipPath>
    <image
      :href="printed.href"
      :width="printed.width"
      :height="printed.height"
      preserveAspectRatio="none"
      :clip-path="`url(#${uid})`"
    />
  </g>
  <g v-else class="printed" :clip-path="within ? `url(#${uid}-page)` : undefined">
    <clipPath v-if="within" :id="`${uid}-page`"><rect v-bind="within" /></clipPath>
    <g :transform="matrix(piece.at)" pointer-events="none">
      <template v-if="item">
        <mask
          :id="uid"
          maskUnits="userSpaceOnUse"
          :x="item.bounds.x - 20"
          :y="item.bounds.y - 20"
          :width="item.bounds.w + 40"
          :height="item.bounds.h + 40"
        >
          <path
            :d="item.outline"
            :transform="matrix(item.at)"
            fill="#fff"
            stroke="#fff"
            :stroke-width="grow"
            stroke-linejoin="round"
          />
        </mask>
        <g :mask="`url(#${uid})`">
          <g :transform="matrix(item.at)">
            <image
              v-if="item.picture"
              :href="`/api/pictures/${item.picture.id}/preview?side=256`"
              :x="item.picture.box.x"
              :y="item.picture.box.y"
              :width="item.picture.box.w"
              :height="item.picture.box.h"
              preserveAspectRatio="none"
            />
            <path
              v-else-if="item.fill.paper || item.fill.colour"
              :d="item.rest ?? item.outline"
              :fill="item.fill.paper ? `url(#paper-${item.fill.paper})` : item.fill.colour"
              :stroke="item.fill.paper ? `url(#paper-${item.fill.paper})` : item.fill.colour"
              :stroke-width="grow"
            />
            <path
              v-for="(p, i) in item.parts"
              :key="i"
              :d="p.path"
              :fill="p.colour"
              :stroke="p.colour"
              :stroke-width="grow"
            />
          </g>
          <ItemPaint v-for="it in inks" :key="it.id" :item="bare(it)" :at="it.at" :outline="it.outline" />
        </g>
      </template>
      <template v-else-if="piece.item === 'base' || piece.item === 'insert'">
        <g v-for="f in faces" :key="f.id" :transform="matrix(f.onSheet)">
          <clipPath :id="`${uid}-${f.id}`"><rect :width="f.width" :height="f.height" /></clipPath>
          <g :clip-path="`url(#${uid}-${f.id})`">
            <ItemPaint
              v-for="it in f.items.filter((i) => !i.piece && !i.on)"
              :key="it.id"
              :item="it"
              :at="it.at"
              :outline="it.outline"
            />
          </g>
        </g>
      </template>
    </g>
  </g>
</template>

<style scoped>
.printed {
  mix-blend-mode: multiply;
}
</style>
