<script setup lang="ts">
// One sheet from above: ink, lines, marks, names.
import { computed } from 'vue'
import type { SheetPiece, SheetView } from '../../api/types'
import { apply } from '../../parts/geom'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'
import { shortStock } from '../../parts/names'
import { inkWithin, printedFor } from './page'
import PieceArt from './PieceArt.vue'
import type { Laying } from './useLaying'

const props = defineProps<{
  sheet: SheetView
  scale: number
  on: boolean
  bleed: boolean
  marks: boolean
  names: boolean
  laying: Laying
}>()
defineEmits<{ choose: [] }>()
const card = useCard()
const prefs = usePrefs()

const px = computed(() => 1 / props.scale)
const dark = computed(() => {
  const n = parseInt(props.sheet.stock.colour.slice(1), 16)
  return ((n >> 16) * 299 + ((n >> 8) & 255) * 587 + (n & 255) * 114) / 1000 < 140
})
const pen = computed(() => (dark.value ? '#fffdf9' : '#1f2b38'))
const drag = computed(() => props.laying.drag.value)
/** Pieces that are being dragged from this sheet. */
const moving = computed(() => {
  const d = drag.value
  return d && props.sheet.pieces.some((p) => p.id === d.piece) ? props.laying.withTied(d.piece) : []
})
const shift = (id: string) =>
  moving.value.includes(id) && drag.value ? `translate(${drag.value.dx} ${drag.value.dy})` : undefined
const picked = (id: string) => props.laying.picked.value.flatMap(props.laying.withTied).includes(id)
const outlineOf = (p: SheetPiece) => p.outline
/** Lines between the pieces of tied sets, from each to the next. */
const ties = computed(() => {
  const sets = new Map<number, SheetPiece[]>()
  for (const p of props.sheet.pieces) if (p.tie) sets.set(p.tie, [...(sets.get(p.tie) ?? []), p])
  return [...sets.values()].flatMap((set) => set.slice(1).map((p, i) => ({ a: set[i]?.place ?? p.place, b: p.place })))
})
/** Its size, and how much of it is used. */
const used = computed(() => {
  const share = Math.round(props.sheet.used * 100) + ' % used'
  const { of, size, margin } = props.sheet
  const edge = margin ? '' : ' borderless'
  return `${of < 0 ? prefs.size(size.width, size.height) : size.name + edge} · ${share}`
})

const isPrinted = (id: string) =>
  !!card.view?.scene.faces.some((f) =>
    f.items.some((it) => (it.id === id ? it.picture || it.fill.paper || it.fill.colour : !it.piece && it.on === id)),
  )

interface Label {
  text: string
  x: number
  y: number
  font: number
}
/** As large as goes on the piece, mm; nothing where that could not be read. */
function label(text: string, x: number, y: number, room: number): Label[] {
  const font = Math.min(11.5 * px.value, (room * 1.7) / text.length)
  return font < 7 * px.value ? [] : [{ text, x, y, font }]
}
/** Whether a name at a place would lie on another piece. */
function onOther(p: SheetPiece, x: number, y: number) {
  const half = p.name.length * 3.2 * px.value
  return props.sheet.pieces.some(
    (o) =>
      o.id !== p.id &&
      o.box.x < x + half &&
      x - half < o.box.x + o.box.w &&
      o.box.y < y + 6 * px.value &&
      y - 6 * px.value < o.box.y + o.box.h,
  )
}
/** Names of the pieces, the base's two faces each by its own. */
const labels = computed(() =>
  props.sheet.pieces.flatMap((p) => {
    const middle = { x: p.box.x + p.box.w / 2, y: p.box.y + p.box.h / 2 }
    if (p.item !== 'base' || p.row) {
      if (!isPrinted(p.item)) return label(p.name, middle.x, middle.y, p.box.w)
      // A name would cover what is printed: it stands at the foot, or below a small piece.
      const below = p.box.h * props.scale < 70
      const foot = p.box.y + p.box.h + (below ? 10 : -9) * px.value
      return below && onOther(p, middle.x, foot) ? [] : label(p.name, middle.x, foot, p.box.w)
    }
    const faces = card.view?.scene.faces.filter((f) => f.side === 'outside') ?? []
    return faces.flatMap((f) => {
      const at = apply(p.at, apply(f.onSheet, { x: f.width / 2, y: f.height / 2 }))
      return label('Base · ' + f.name, at.x, at.y, p.box.w)
    })
  }),
)
</script>

<template>
  <figure
    :class="{ on, over: drag?.over === sheet.number, moving: moving.length }"
    :style="{ width: Math.max(sheet.size.width * scale, 190) + 'px' }"
    :data-testid="'sheet-' + sheet.number"
  >
    <figcaption @click="$emit('choose')">
      <b>{{ sheet.of < 0 ? 'Scrap' : 'Sheet' }} {{ sheet.number }} · {{ shortStock(sheet.stock.name) }}</b>
      <small>{{ used }}</small>
    </figcaption>
    <svg
      :width="sheet.size.width * scale"
      :height="sheet.size.height * scale"
      :viewBox="`0 0 ${sheet.size.width} ${sheet.size.height}`"
      role="group"
      :aria-label="`Sheet ${sheet.number}, ${sheet.pieces.length} pieces`"
      :data-sheet="sheet.number"
      @pointerdown="$emit('choose')"
    >
      <rect
        :width="sheet.size.width"
        :height="sheet.size.height"
        :fill="sheet.stock.pattern ? `url(#paper-${sheet.stock.pattern})` : sheet.stock.colour"
      />
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
      <g v-for="p in sheet.pieces" :key="'art' + p.id" :transform="shift(p.id)">
        <path v-if="moving.includes(p.id)" :d="outlineOf(p)" :fill="sheet.stock.colour" />
        <PieceArt :piece="p" :bleed="bleed" :within="inkWithin(sheet)" :printed="printedFor(sheet, p)" />
      </g>
      <g
        v-for="p in sheet.pieces"
        :key="p.id"
        fill="none"
        :transform="shift(p.id)"
        :opacity="moving.includes(p.id) ? 0.8 : 1"
      >
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
      <g v-if="marks" fill="none" :stroke="pen">
        <path v-for="(c, i) in sheet.crops ?? []" :key="'crop' + i" :d="c" class="crop" />
      </g>
      <g v-for="(t, i) in ties" :key="'tie' + i" class="tie">
        <path :d="`M${t.a.x} ${t.a.y}L${t.b.x} ${t.b.y}`" />
        <circle :cx="(t.a.x + t.b.x) / 2" :cy="(t.a.y + t.b.y) / 2" :r="4 * px" />
      </g>
      <g
        v-for="p in sheet.pieces"
        :key="'hold' + p.id"
        class="hold"
        :class="{ picked: picked(p.id), wrong: p.wrong }"
        :transform="shift(p.id)"
        role="button"
        tabindex="0"
        :aria-label="p.name"
        :aria-pressed="picked(p.id)"
        :data-testid="'piece-' + p.id"
        @pointerdown="laying.grab($event, p.id)"
        @keydown.space.prevent="laying.pick(p.id, true)"
        @focus="laying.picked.value.includes(p.id) || laying.pick(p.id, false)"
      >
        <title>{{ p.name }}</title>
        <path :d="outlineOf(p)" />
        <circle v-if="p.byHand" class="pin" :cx="p.place.x" :cy="p.box.y + 7 * px" :r="3.2 * px" />
      </g>
      <g v-if="names" pointer-events="none">
        <text
          v-for="(l, i) in labels"
          :key="i"
          :x="l.x"
          :y="l.y + 4 * px"
          :font-size="l.font"
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
  margin-bottom: 6px;
}
figcaption b,
figcaption small {
  display: block;
  line-height: 1.35;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
figcaption b {
  font-weight: 600;
  font-size: 12.5px;
}
.moving svg {
  overflow: visible;
  position: relative;
  z-index: 2;
}
.over svg {
  outline: 2px dashed var(--honey);
  outline-offset: 2px;
}
.hold {
  cursor: grab;
  outline: none;
  touch-action: none;
}
.hold path {
  fill: transparent;
  stroke: none;
}
.hold:hover path {
  stroke: var(--honey);
  stroke-width: 1.4;
}
.hold.picked path,
.hold:focus-visible path {
  stroke: var(--honey-dark);
  stroke-width: 2.6;
}
.hold.wrong path {
  stroke: var(--stop);
  stroke-width: 2.2;
}
.pin {
  fill: var(--honey);
  stroke: var(--paper0);
  stroke-width: 1.4;
  vector-effect: non-scaling-stroke;
}
.tie path {
  fill: none;
  stroke: var(--honey-dark);
  stroke-width: 1.2;
  stroke-dasharray: 3 3;
}
.tie circle {
  fill: var(--honey);
}
.crop {
  stroke-width: 0.8;
}
.tie {
  pointer-events: none;
}
svg {
  display: block;
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
