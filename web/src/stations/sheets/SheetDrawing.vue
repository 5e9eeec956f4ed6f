<script setup lang="ts">
// One sheet from above: ink, lines, marks, names.
import { computed } from 'vue'
import type { SheetView } from '../../api/types'
import { apply } from '../../parts/geom'
import { useCard } from '../../store/card'
import { shortStock } from '../../parts/names'
import PieceArt from './PieceArt.vue'

const props = defineProps<{
  sheet: SheetView
  scale: number
  on: boolean
  bleed: boolean
  marks: boolean
  names: boolean
}>()
defineEmits<{ choose: [] }>()
const card = useCard()

const px = computed(() => 1 / props.scale)
const dark = computed(() => {
  const n = parseInt(props.sheet.stock.colour.slice(1), 16)
  return ((n >> 16) * 299 + ((n >> 8) & 255) * 587 + (n & 255) * 114) / 1000 < 140
})
const pen = computed(() => (dark.value ? '#fffdf9' : '#1f2b38'))
const used = computed(() => Math.round(props.sheet.used * 100) + ' % used')

const isPrinted = (id: string) =>
  !!card.view?.scene.faces.some((f) =>
    f.items.some((it) => (it.id === id ? it.picture || it.fill.paper || it.fill.colour : !it.piece && it.on === id)),
  )

/** Names of a piece, the base's two faces each by its own. */
const labels = computed(() =>
  props.sheet.pieces.flatMap((p) => {
    const middle = { x: p.box.x + p.box.w / 2, y: p.box.y + p.box.h / 2 }
    if (p.id !== 'base') {
      // A name would cover what is printed: it stands at the foot, or below a small piece.
      const foot = p.box.y + p.box.h + (p.box.h * props.scale < 70 ? 10 : -9) * px.value
      return [{ text: p.name, x: middle.x, y: isPrinted(p.id) ? foot : middle.y, room: p.box.w }]
    }
    const faces = card.view?.scene.faces.filter((f) => f.side === 'outside') ?? []
    return faces.map((f) => {
      const onNet = apply(f.onSheet, { x: f.width / 2, y: f.height / 2 })
      return { text: 'Base · ' + f.name, ...apply(p.at, onNet), room: p.box.w }
    })
  }),
)
</script>

<template>
  <figure :class="{ on }" :style="{ width: sheet.size.width * scale + 'px' }" :data-testid="'sheet-' + sheet.number">
    <figcaption>
      <b>Sheet {{ sheet.number }} · {{ shortStock(sheet.stock.name) }}</b>
      <small>{{ used }}</small>
    </figcaption>
    <svg
      :width="sheet.size.width * scale"
      :height="sheet.size.height * scale"
      :viewBox="`0 0 ${sheet.size.width} ${sheet.size.height}`"
      role="button"
      tabindex="0"
      :aria-label="`Sheet ${sheet.number}, ${sheet.pieces.length} pieces`"
      @click="$emit('choose')"
      @keydown.enter="$emit('choose')"
    >
      <rect :width="sheet.size.width" :height="sheet.size.height" :fill="sheet.stock.colour" />
      <rect
        :x="sheet.margin"
        :y="sheet.margin"
        :width="sheet.size.width - 2 * sheet.margin"
        :height="sheet.size.height - 2 * sheet.margin"
        fill="none"
        :stroke="pen"
        stroke-opacity=".22"
        :stroke-width="px"
        :stroke-dasharray="`${2 * px} ${4 * px}`"
      />
      <PieceArt v-for="p in sheet.pieces" :key="'art' + p.id" :piece="p" :bleed="bleed" />
      <g v-for="p in sheet.pieces" :key="p.id" fill="none">
        <path
          v-for="(l, i) in p.lines"
          :key="i"
          :d="l.path"
          :class="l.role"
          :stroke="l.role === 'cut' ? pen : undefined"
        />
      </g>
      <g v-if="marks">
        <g v-for="(m, i) in sheet.marks" :key="i" fill="none" :stroke="pen">
          <circle :cx="m.at.x" :cy="m.at.y" r="2.65" stroke-width=".7" />
          <circle :cx="m.at.x" :cy="m.at.y" r=".9" :fill="pen" stroke="none" />
          <circle v-if="m.second" :cx="m.second.x" :cy="m.second.y" r=".9" :fill="pen" stroke="none" />
        </g>
      </g>
      <g v-if="names">
        <text
          v-for="(l, i) in labels"
          :key="i"
          :x="l.x"
          :y="l.y + 4 * px"
          :font-size="Math.min(11.5 * px, (l.room * 1.7) / l.text.length)"
          text-anchor="middle"
          :stroke="sheet.stock.colour"
          :fill="dark ? '#fffdf9' : '#41505f'"
          :stroke-width="3.5 * px"
        >
          {{ l.text }}
        </text>
      </g>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
figcaption {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  margin-bottom: 6px;
}
figcaption b {
  font-weight: 600;
  font-size: 12.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
figcaption small {
  flex: none;
}
svg {
  display: block;
  cursor: pointer;
  box-shadow: 0 2px 5px #0002;
}
.on svg {
  outline: 2px solid var(--honey);
  outline-offset: 2px;
}
path {
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
}
.mountain {
  stroke: var(--rust);
  stroke-dasharray: 9 3 2 3;
}
.valley {
  stroke: var(--blue);
  stroke-dasharray: 6 4;
}
text {
  paint-order: stroke;
  stroke-opacity: 0.85;
  stroke-linejoin: round;
  font-weight: 500;
}
</style>
