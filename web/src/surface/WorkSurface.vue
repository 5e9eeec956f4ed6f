<script setup lang="ts">
// The work surface: the face in true proportion with its neighbours ghosted
// beside it, and all that can be done to items with a pointer.
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, toRef, watch } from 'vue'

import { api } from '../api/client'
import type { SceneItem } from '../api/types'
import { apply, matrix, then, type Pt } from '../parts/geom'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'
import { usePoints } from '../store/points'
import { useThings } from '../store/things'
import { useTool } from '../store/tool'
import FaceArt from './FaceArt.vue'
import FaceGround from './FaceGround.vue'
import Handles from './Handles.vue'
import Rulers from './Rulers.vue'
import SnapMarks from './SnapMarks.vue'
import SurfaceTools from './SurfaceTools.vue'
import WordsEditor from './WordsEditor.vue'
import BridgeHandles from './BridgeHandles.vue'
import GradientHandles from './GradientHandles.vue'
import ZoomBar from './ZoomBar.vue'
import { useDrag } from './useDrag'
import { useFrames } from './useFrames'
import { usePointer } from './usePointer'
import { useViewport } from './useViewport'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const tool = useTool()
const things = useThings()
const points = usePoints()

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
  ratio: () => !things.of(card.id, card.selected[0]?.id).free,
  size: (w, h) => prefs.size(w, h),
  len: prefs.lenUnit,
  change: (c) => card.change(c),
})
const pointer = usePointer(el, view, drag)

// What was found elsewhere is brought into sight.
watch(
  () => [card.framed, card.face?.id, width.value, height.value] as const,
  ([f, face]) => {
    if (!f || f.face !== face || !width.value || !height.value) return
    view.show(f.at)
    card.framed = undefined
  },
  { immediate: true, flush: 'post' },
)
const editing = ref('')
watch(editing, (id) => (card.writing = id))
onBeforeUnmount(() => (card.writing = ''))
const preview = shallowRef<Partial<SceneItem>>()
const meanwhile = computed(() =>
  editing.value && preview.value ? new Map([[editing.value, preview.value]]) : undefined,
)
const editedItem = computed(() => (editing.value ? card.items.get(editing.value) : undefined))
const stock = computed(() => catalogue.paint(card.view?.card.base.stock))

const { screen, one, seen, frame, frames, marked } = useFrames(view, drag)
/** The piece whose bridges can be taken hold of. */
const bridged = computed(() => {
  const p = card.pieceOf(card.selected)
  return p?.bridges?.length && !p.locked ? p : undefined
})
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
  if (it?.kind === 'shape' || it?.kind === 'drawing' || it?.kind === 'paper') {
    card.select([it.id])
    void nextTick(() => points.open(it.id))
  }
  if (it?.kind !== 'lettering') return
  card.select([it.id])
  preview.value = undefined
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
  preview.value = undefined
  // Whoever has gone to a field meanwhile stays there.
  const held = document.activeElement
  if (!held || held === document.body || el.value?.contains(held)) pointer.focus()
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

defineExpose({ fit: view.fit, pointOn, itemOn, itemUnder, edit, focus: pointer.focus })
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
          :meanwhile="meanwhile"
          :px="scale"
          :guides="!tool.bare"
          fine
          pick
        />
        <image
          v-if="tool.asPrinted && card.view"
          :href="api.printURL(card.view, catalogue.all.stocksAre, card.face.id)"
          :width="card.face.width"
          :height="card.face.height"
          preserveAspectRatio="none"
          data-testid="as-printed"
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
    </svg>
    <!-- What comes and goes lies on a sheet of its own, so that the face below need not be painted anew. -->
    <svg v-if="card.face" class="over" width="100%" height="100%">
      <SnapMarks
        :lines="drag.lines.value"
        :gaps="drag.gaps.value"
        :to-screen="view.toScreen"
        :width="width"
        :height="height"
      />
      <path
        v-if="drag.swap.value"
        :d="drag.swap.value.outline"
        :transform="matrix(then(drag.swap.value.at, screen))"
        class="swap"
        data-testid="swap"
      />
      <g v-if="frames" pointer-events="none" fill="none">
        <path :d="frames" stroke="#fffdf9" stroke-width="3" opacity=".7" />
        <path :d="frames" stroke="#e2a42b" stroke-width="1.5" />
      </g>
      <Handles
        v-if="frame && !editing && !card.trial && !tool.bare && tool.tool !== 'points'"
        :box="frame.box"
        :at="frame.at"
        :edges="!!one && one.freeRatio"
        :plain="one?.kind === 'mat' || (!!one && !!card.doc(one.id)?.window) || card.selected.some((it) => it.locked)"
        class="held"
        @grip="pointer.grip"
        @turn="pointer.turn"
      />
      <GradientHandles
        v-if="one?.fill.gradient && !drag.live.value && !tool.bare && !card.trial"
        class="held"
        :item="one"
        :at="seen(one)"
        :local="view.local"
        @change="card.change({ do: 'setFill', ids: [one.id], fill: { gradient: $event } })"
      />
      <BridgeHandles
        v-if="bridged && !editing && !drag.live.value && !tool.bare && !card.trial && tool.tool === 'choose'"
        class="held"
        :item="bridged"
        :at="seen(bridged)"
        :local="view.local"
        :to-face="view.toFace"
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
      :local="view.local"
      @set="preview = $event"
      @done="edited"
    />
    <SurfaceTools v-if="overlay" :overlay="overlay" :one="one" :at="one && seen(one)" :item-under="itemUnder" />
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
.over {
  position: absolute;
  inset: 0;
  pointer-events: none;
  will-change: transform;
}
.held {
  pointer-events: auto;
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
.band {
  fill: #e2a42b22;
  stroke: var(--honey-dark);
  stroke-dasharray: 4 3;
}
.swap {
  fill: var(--honey);
  fill-opacity: 0.25;
  stroke: var(--honey-dark);
  stroke-width: 3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
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
