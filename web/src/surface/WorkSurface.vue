<script setup lang="ts">
// The work surface: the face in true proportion with its neighbours ghosted
// beside it, and all that can be done to items with a pointer.
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, toRef, watch } from 'vue'
import type { SceneItem } from '../api/types'
import { apply, matrix, then, union, type Matrix, type Pt } from '../parts/geom'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'
import { useTool } from '../store/tool'
import FaceArt from './FaceArt.vue'
import FaceGround from './FaceGround.vue'
import Handles from './Handles.vue'
import Rulers from './Rulers.vue'
import WordsEditor from './WordsEditor.vue'
import CropTool from './CropTool.vue'
import DrawTool from './DrawTool.vue'
import GapTool from './GapTool.vue'
import GradientHandles from './GradientHandles.vue'
import PickTool from './PickTool.vue'
import RulerTool from './RulerTool.vue'
import ToolBar from './ToolBar.vue'
import ZoomBar from './ZoomBar.vue'
import { useDrag } from './useDrag'
import { usePointer } from './usePointer'
import { useViewport } from './useViewport'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const tool = useTool()

const el = ref<HTMLElement>()
const room = computed(() => {
  const f = card.face
  if (!f) return undefined
  const left = f.neighbours.some((n) => apply(n.at, { x: n.width / 2, y: n.height / 2 }).x < 0)
  return { width: f.width, height: f.height, left }
})
const view = useViewport(el, room)
const { scale, offset, width, height } = view
const drag = useDrag({
  face: toRef(() => card.face),
  selected: toRef(() => card.selected),
  scale,
  ratio: () => prefs.ratio,
  size: (w, h) => prefs.size(w, h),
  len: prefs.lenUnit,
  change: (c) => card.change(c),
})
const pointer = usePointer(el, view, drag)

const editing = ref('')
const preview = ref('')
const outlines = computed(() =>
  editing.value && preview.value ? new Map([[editing.value, preview.value]]) : undefined,
)
const editedItem = computed(() => (editing.value ? card.items.get(editing.value) : undefined))
const one = computed(() => (card.selected.length === 1 ? card.selected[0] : undefined))
const stock = computed(() => catalogue.stock(card.view?.card.base.stock)?.colour ?? '#fff6e0')

const screen = computed<Matrix>(() => [scale.value, 0, 0, scale.value, offset.value.x, offset.value.y])
/** Where an item is shown now, in pixels. */
const seen = (it: SceneItem): Matrix => {
  const m = drag.live.value?.get(it.id)
  return then(m ? then(it.at, m) : it.at, screen.value)
}
/** The frame of what is selected, in pixels. */
const frame = computed(() => {
  if (one.value) return { box: one.value.box, at: seen(one.value) }
  if (card.selected.length < 2) return undefined
  const m = drag.live.value?.get(card.selected[0]!.id)
  return { box: union(card.selected.map((it) => it.bounds)), at: m ? then(m, screen.value) : screen.value }
})
/** The frames of several things that are selected, as one path. */
const frames = computed(() => {
  if (card.selected.length < 2 || card.trial || tool.bare) return ''
  return card.selected
    .map((it) => {
      const at = seen(it)
      const { x, y, w, h } = it.box
      const p = [
        { x, y },
        { x: x + w, y },
        { x: x + w, y: y + h },
        { x, y: y + h },
      ].map((q) => apply(at, q))
      return 'M' + p.map((q) => `${q.x.toFixed(1)} ${q.y.toFixed(1)}`).join('L') + 'z'
    })
    .join('')
})
const marked = computed(() => {
  if (!card.selected.length || drag.live.value) return undefined
  return union(card.selected.map((it) => it.bounds))
})
const snapLines = computed(() =>
  drag.lines.value.map((l) => {
    const at = l.at * scale.value + (l.axis === 'x' ? offset.value.x : offset.value.y)
    return l.axis === 'x' ? `M${at} 0V${height.value}` : `M0 ${at}H${width.value}`
  }),
)
/** Equal gaps, as lines with a tick at either end and their width. */
const snapGaps = computed(() =>
  drag.gaps.value.map((g) => {
    const level = g.axis === 'x'
    const a = view.toScreen(level ? { x: g.from, y: g.level } : { x: g.level, y: g.from })
    const b = view.toScreen(level ? { x: g.to, y: g.level } : { x: g.level, y: g.to })
    const d = level
      ? `M${a.x} ${a.y - 5}v10M${a.x} ${a.y}H${b.x}M${b.x} ${b.y - 5}v10`
      : `M${a.x - 5} ${a.y}h10M${a.x} ${a.y}V${b.y}M${b.x - 5} ${b.y}h10`
    return {
      d,
      x: (a.x + b.x) / 2 + (level ? 0 : 8),
      y: (a.y + b.y) / 2 - (level ? 6 : 0),
      text: prefs.len(g.to - g.from),
    }
  }),
)
/** What the tools that lie above the face are given. */
const overlay = computed(
  () =>
    card.face && {
      face: card.face,
      scale: scale.value,
      toFace: view.toFace,
      toScreen: view.toScreen,
      local: view.local,
    },
)
const note = computed(() => {
  const n = drag.note.value
  if (!n) return undefined
  const p = view.toScreen(n.at)
  return {
    text: n.text,
    style: { left: Math.min(p.x + 16, width.value - 190) + 'px', top: Math.min(p.y + 14, height.value - 34) + 'px' },
  }
})

function edit(id: string | undefined) {
  const it = id ? card.items.get(id) : undefined
  if (it?.kind !== 'lettering') return
  card.select([it.id])
  preview.value = ''
  editing.value = it.id
}

/** A double click goes into a group, and then into the words. */
function open(e: MouseEvent) {
  const id = pointer.itemAt(e)
  if (!id) return
  if (card.enter(id)) card.select(card.unit(id))
  else if (card.items.get(id)?.picture) {
    card.select([id])
    // Another choice puts the tool down, and this was one.
    void nextTick(() => tool.take('crop'))
  } else edit(id)
}

function edited() {
  editing.value = ''
  preview.value = ''
  pointer.focus()
}

useEventListener(el, 'wheel', view.wheel, { passive: false })

/** Where a pointer is on the face; undefined beside the surface. */
function pointOn(e: { clientX: number; clientY: number }): Pt | undefined {
  const r = el.value?.getBoundingClientRect()
  if (!r || e.clientX < r.left || e.clientX > r.right || e.clientY < r.top || e.clientY > r.bottom) return undefined
  return view.toFace(view.local(e))
}

/** The item under a place of the window, whatever tool lies above it. */
const itemUnder = (p: Pt) =>
  document
    .elementsFromPoint(p.x, p.y)
    .map((e) => e.closest<SVGElement>('[data-item]')?.dataset.item)
    .find((id) => id !== undefined)
function itemOn(at: Pt): string | undefined {
  const r = el.value?.getBoundingClientRect()
  const p = view.toScreen(at)
  return r && itemUnder({ x: p.x + r.left, y: p.y + r.top })
}
watch(
  () => card.selection,
  () => tool.tool === 'crop' && tool.take('crop'),
)

defineExpose({ fit: view.fit, pointOn, itemOn, edit, focus: pointer.focus })
</script>

<template>
  <div
    ref="el"
    class="surface"
    :class="{ pan: pointer.space.value }"
    tabindex="0"
    role="application"
    :aria-label="card.face ? card.face.name + ', the work surface' : 'Work surface'"
    data-testid="surface"
    @pointerdown="editing || pointer.down($event)"
    @pointermove="pointer.motion"
    @pointerup="pointer.up"
    @pointercancel="pointer.lost"
    @dblclick="open($event)"
  >
    <svg v-if="card.face" :key="card.face.id" width="100%" height="100%">
      <g :transform="matrix(screen)">
        <FaceGround :face="card.face" :stock="stock" :scale="scale" />
        <FaceArt
          :opacity="card.trial ? 0.55 : undefined"
          :face="card.face"
          :live="drag.live.value"
          :outlines="outlines"
          :px="scale"
          :guides="!tool.bare"
          fine
          pick
        />
        <rect
          v-if="!tool.bare"
          v-bind="{ x: card.face.safe.x, y: card.face.safe.y, width: card.face.safe.w, height: card.face.safe.h }"
          class="safe"
          data-testid="safe-line"
        />
      </g>
      <g v-if="card.trial" class="trial" :transform="matrix(screen)" data-testid="trial">
        <path v-for="it in card.trial" :key="it.id" :d="it.outline" :transform="matrix(it.at)" />
      </g>
      <path v-for="(d, i) in snapLines" :key="i" :d="d" class="snap" />
      <g v-for="(g, i) in snapGaps" :key="'g' + i" data-testid="equal-gap">
        <path :d="g.d" class="snap gap" />
        <text :x="g.x" :y="g.y" class="gap-text" :text-anchor="g.d.includes('H') ? 'middle' : 'start'">
          {{ g.text }}
        </text>
      </g>
      <g v-if="frames" pointer-events="none" fill="none">
        <path :d="frames" stroke="#fffdf9" stroke-width="3" opacity=".7" />
        <path :d="frames" stroke="#e2a42b" stroke-width="1.5" />
      </g>
      <Handles
        v-if="frame && !editing && !card.trial && !tool.bare"
        :box="frame.box"
        :at="frame.at"
        :edges="!!one && one.freeRatio"
        :plain="one?.kind === 'mat' || card.selected.some((it) => it.locked)"
        @grip="pointer.grip"
        @turn="pointer.turn"
      />
      <GradientHandles
        v-if="one?.fill.gradient && !drag.live.value && !tool.bare && !card.trial"
        :item="one"
        :at="seen(one)"
        :local="view.local"
        @change="card.change({ do: 'setFill', ids: [one.id], fill: { gradient: $event } })"
      />
      <rect v-if="pointer.bandBox.value" v-bind="pointer.bandBox.value" class="band" />
      <Rulers :width="width" :height="height" :scale="scale" :offset="offset" :marked="marked" />
    </svg>
    <div v-if="note" class="note" :style="note.style">{{ note.text }}</div>
    <WordsEditor
      v-if="editedItem"
      :key="editing"
      :item="editedItem"
      :scale="scale"
      :offset="offset"
      @outline="preview = $event"
      @done="edited"
    />
    <RulerTool v-if="overlay && tool.tool === 'ruler'" v-bind="overlay" />
    <GapTool v-if="overlay && tool.tool === 'gap'" v-bind="overlay" />
    <DrawTool v-if="overlay && (tool.tool === 'draw' || tool.tool === 'rub')" v-bind="overlay" />
    <PickTool v-if="overlay && tool.tool === 'pick'" v-bind="overlay" />
    <CropTool
      v-if="tool.tool === 'crop' && one?.picture"
      :key="one.id"
      :item="one"
      :at="seen(one)"
      :local="view.local"
      :item-at="itemUnder"
    />
    <ToolBar />
    <ZoomBar :percent="view.percent.value" @by="view.zoomBy" @fit="view.fit" />
  </div>
</template>

<style scoped>
.surface {
  position: relative;
  flex: 1;
  min-height: 0;
  overflow: hidden;
  touch-action: none;
  outline: none;
}
.surface:focus-visible::after {
  content: '';
  position: absolute;
  inset: 0;
  border: 2px solid var(--blue);
  pointer-events: none;
}
.surface.pan {
  cursor: grab;
}
svg {
  display: block;
}
.safe {
  fill: none;
  stroke: #6f7c88;
  stroke-width: 1;
  stroke-dasharray: 7 5;
  vector-effect: non-scaling-stroke;
  opacity: 0.45;
  pointer-events: none;
}
.trial path {
  fill: #e2a42b4d;
  stroke: var(--honey-dark);
  stroke-width: 1.8;
  stroke-dasharray: 6 3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.snap {
  stroke: var(--honey);
  stroke-width: 1.2;
}
.gap {
  stroke-width: 1.4;
  fill: none;
}
.gap-text {
  fill: #8a5a0a;
  font-size: 11px;
  font-weight: 600;
  paint-order: stroke;
  stroke: #fffdf9;
  stroke-width: 3px;
}
.band {
  fill: #e2a42b22;
  stroke: var(--honey-dark);
  stroke-dasharray: 4 3;
}
.note {
  position: absolute;
  padding: 3px 9px;
  border-radius: 4px;
  background: var(--ink9);
  color: #fff;
  font-weight: 550;
  font-size: 12px;
  pointer-events: none;
  white-space: nowrap;
}
</style>
