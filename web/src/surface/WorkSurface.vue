<script setup lang="ts">
// The work surface: the face in true proportion with its neighbours ghosted
// beside it, and all that can be done to items with a pointer.
import { Tooltip } from 'ant-design-vue'
import { useEventListener } from '@vueuse/core'
import { computed, ref, toRef } from 'vue'
import type { SceneItem } from '../api/types'
import { apply, matrix, then, union, type Matrix, type Pt } from '../parts/geom'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'
import FaceArt from './FaceArt.vue'
import FaceGround from './FaceGround.vue'
import Handles from './Handles.vue'
import Rulers from './Rulers.vue'
import WordsEditor from './WordsEditor.vue'
import { useDrag, type Grip } from './useDrag'
import { useViewport } from './useViewport'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()

const el = ref<HTMLElement>()
const face = toRef(() => card.face)
const room = computed(() => {
  const f = card.face
  if (!f) return undefined
  const boxes = f.neighbours.map((n) => apply(n.at, { x: f.width / 2, y: f.height / 2 }))
  return { width: f.width, height: f.height, side: { x: boxes.some((b) => b.x < 0) ? -1 : 0, y: 0, w: 0, h: 0 } }
})
const view = useViewport(el, room)
const drag = useDrag({
  face,
  selected: toRef(() => card.selected),
  scale: view.scale,
  ratio: () => prefs.ratio,
  size: (w, h) => prefs.size(w, h),
  len: prefs.lenUnit,
  change: (c) => card.change(c),
})

const editing = ref('')
const preview = ref('')
const outlines = computed(() =>
  editing.value && preview.value ? new Map([[editing.value, preview.value]]) : undefined,
)
const space = ref(false)
const band = ref<{ from: Pt; to: Pt }>()
const one = computed(() => (card.selected.length === 1 ? card.selected[0] : undefined))
const editedItem = computed(() => (editing.value ? card.items.get(editing.value) : undefined))
const stock = computed(() => catalogue.stock(card.view?.card.base.stock)?.colour ?? '#fff6e0')

const screen = computed<Matrix>(() => [
  view.scale.value,
  0,
  0,
  view.scale.value,
  view.offset.value.x,
  view.offset.value.y,
])
const lived = (it: SceneItem): Matrix => {
  const m = drag.live.value?.get(it.id)
  return m ? then(it.at, m) : it.at
}
/** The frame of what is selected, in pixels. */
const frame = computed(() => {
  if (one.value) return { box: one.value.box, at: then(lived(one.value), screen.value) }
  if (card.selected.length < 2) return undefined
  const first = card.selected[0]!
  const m = drag.live.value?.get(first.id)
  return { box: union(card.selected.map((it) => it.bounds)), at: m ? then(m, screen.value) : screen.value }
})
const marked = computed(() => {
  if (!card.selected.length || drag.live.value) return undefined
  return union(card.selected.map((it) => it.bounds))
})

/** Takes the focus without a ring: the pointer knows where it is. */
const look = () => el.value?.focus({ preventScroll: true, focusVisible: false } as FocusOptions)

type Track = (to: Pt, e: PointerEvent) => void
let track: Track | undefined
let moved = false
let from: Pt = { x: 0, y: 0 }
let release: (() => void) | undefined

function follow(e: PointerEvent, t: Track, done?: () => void) {
  e.preventDefault()
  e.stopPropagation()
  el.value?.setPointerCapture(e.pointerId)
  look()
  track = t
  release = done
  moved = false
  from = view.local(e)
}

function itemAt(e: Event): string | undefined {
  return (e.target as Element).closest<SVGElement>('[data-item]')?.dataset.item
}

function down(e: PointerEvent) {
  if (editing.value) return
  if (e.button === 1 || space.value) {
    let last = view.local(e)
    return follow(e, (_, m) => {
      const p = view.local(m)
      view.pan(p.x - last.x, p.y - last.y)
      last = p
    })
  }
  if (e.button !== 0) return
  const id = itemAt(e)
  if (!id) {
    const start = view.local(e)
    return follow(
      e,
      (_, m) => (band.value = { from: start, to: view.local(m) }),
      () => choose(e.shiftKey),
    )
  }
  const add = e.shiftKey || e.ctrlKey || e.metaKey
  if (add) card.select([id], true)
  else if (!card.selection.includes(id)) card.select([id])
  if (!card.selection.includes(id)) return
  const go = drag.move(view.toFace(view.local(e)))
  follow(
    e,
    (to, m) => go(to, m.shiftKey, m.altKey),
    () => {
      if (!moved && !add) card.select([id])
    },
  )
}

/** Selects what the band encloses, or nothing when there was only a click. */
function choose(add: boolean) {
  const b = band.value
  band.value = undefined
  if (!b || !moved) {
    if (!add) card.select([])
    return
  }
  const p = view.toFace({ x: Math.min(b.from.x, b.to.x), y: Math.min(b.from.y, b.to.y) })
  const q = view.toFace({ x: Math.max(b.from.x, b.to.x), y: Math.max(b.from.y, b.to.y) })
  const inside = (card.face?.items ?? []).filter(
    ({ bounds: r }) => r.x >= p.x && r.y >= p.y && r.x + r.w <= q.x && r.y + r.h <= q.y,
  )
  card.select([...new Set([...(add ? card.selection : []), ...inside.map((it) => it.id)])])
}

function motion(e: PointerEvent) {
  if (!track) return
  const p = view.local(e)
  if (!moved && Math.hypot(p.x - from.x, p.y - from.y) < 3) return
  moved = true
  track(view.toFace(p), e)
}

function up() {
  if (!track) return
  track = undefined
  release?.()
  release = undefined
  if (moved) void drag.drop()
  else drag.cancel()
}

function cancel() {
  track = undefined
  release = undefined
  band.value = undefined
  drag.cancel()
}

function grip(e: PointerEvent, g: Grip) {
  const go = drag.resize(g)
  follow(e, (to, m) => go(to, m.shiftKey))
}

function turned(e: PointerEvent) {
  const go = drag.turnAbout(view.toFace(view.local(e)))
  follow(e, (to, m) => go(to, m.shiftKey))
}

function edit(id: string | undefined) {
  const it = id ? card.items.get(id) : undefined
  if (it?.kind !== 'lettering') return
  card.select([it.id])
  preview.value = ''
  editing.value = it.id
}

function edited() {
  editing.value = ''
  preview.value = ''
  look()
}

useEventListener(el, 'wheel', view.wheel, { passive: false })
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.key === ' ' && document.activeElement === el.value) {
    space.value = true
    e.preventDefault()
  }
  if (e.key === 'Escape' && track) cancel()
})
useEventListener(window, 'keyup', (e: KeyboardEvent) => {
  if (e.key === ' ') space.value = false
})

/** Where a pointer is on the face; undefined beside the surface. */
function pointOn(e: { clientX: number; clientY: number }): Pt | undefined {
  const r = el.value?.getBoundingClientRect()
  if (!r || e.clientX < r.left || e.clientX > r.right || e.clientY < r.top || e.clientY > r.bottom) return undefined
  return view.toFace(view.local(e))
}

const bandBox = computed(() => {
  const b = band.value
  if (!b) return undefined
  return {
    x: Math.min(b.from.x, b.to.x),
    y: Math.min(b.from.y, b.to.y),
    width: Math.abs(b.to.x - b.from.x),
    height: Math.abs(b.to.y - b.from.y),
  }
})
const noteAt = computed(() => {
  const n = drag.note.value
  if (!n) return undefined
  const p = view.toScreen(n.at)
  return {
    left: Math.min(p.x + 16, view.width.value - 190) + 'px',
    top: Math.min(p.y + 14, view.height.value - 34) + 'px',
  }
})

defineExpose({ fit: view.fit, pointOn, edit, focus: look })
</script>

<template>
  <div
    ref="el"
    class="surface"
    :class="{ pan: space }"
    tabindex="0"
    role="application"
    :aria-label="card.face ? card.face.name + ', the work surface' : 'Work surface'"
    data-testid="surface"
    @pointerdown="down"
    @pointermove="motion"
    @pointerup="up"
    @pointercancel="cancel"
    @dblclick="edit(itemAt($event))"
  >
    <svg v-if="card.face" :key="card.face.id" width="100%" height="100%">
      <g :transform="matrix(screen)">
        <FaceGround :face="card.face" :stock="stock" :scale="view.scale.value" />
        <FaceArt :face="card.face" :live="drag.live.value" :outlines="outlines" :px="view.scale.value" fine pick />
        <rect
          v-bind="{ x: card.face.safe.x, y: card.face.safe.y, width: card.face.safe.w, height: card.face.safe.h }"
          class="safe"
          data-testid="safe-line"
        />
      </g>
      <line
        v-for="(l, i) in drag.lines.value"
        :key="i"
        v-bind="
          l.axis === 'x'
            ? {
                x1: l.at * view.scale.value + view.offset.value.x,
                x2: l.at * view.scale.value + view.offset.value.x,
                y1: 0,
                y2: view.height.value,
              }
            : {
                y1: l.at * view.scale.value + view.offset.value.y,
                y2: l.at * view.scale.value + view.offset.value.y,
                x1: 0,
                x2: view.width.value,
              }
        "
        stroke="#e2a42b"
        stroke-width="1.2"
      />
      <template v-if="card.selected.length > 1">
        <Handles
          v-for="it in card.selected"
          :key="it.id"
          :box="it.box"
          :at="then(lived(it), screen)"
          :edges="false"
          plain
        />
      </template>
      <Handles
        v-if="frame && !editing"
        :box="frame.box"
        :at="frame.at"
        :edges="!!one && one.freeRatio"
        :plain="one?.kind === 'mat'"
        @grip="grip"
        @turn="turned"
      />
      <rect v-if="bandBox && moved" v-bind="bandBox" fill="#e2a42b22" stroke="#b9770e" stroke-dasharray="4 3" />
      <Rulers
        :width="view.width.value"
        :height="view.height.value"
        :scale="view.scale.value"
        :offset="view.offset.value"
        :marked="marked"
      />
    </svg>
    <div v-if="drag.note.value" class="note" :style="noteAt">{{ drag.note.value.text }}</div>
    <WordsEditor
      v-if="editedItem"
      :key="editing"
      :item="editedItem"
      :scale="view.scale.value"
      :offset="view.offset.value"
      @outline="preview = $event"
      @done="edited"
    />
    <div class="zoom" @pointerdown.stop @dblclick.stop>
      <button aria-label="Smaller" @click="view.zoomBy(1 / 1.25)">–</button>
      <Tooltip title="Fit the face (0)">
        <button class="now" data-testid="zoom" @click="view.fit()">{{ view.percent.value }} % of real</button>
      </Tooltip>
      <button aria-label="Larger" @click="view.zoomBy(1.25)">+</button>
    </div>
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
.zoom {
  position: absolute;
  right: 16px;
  bottom: 14px;
  display: flex;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: var(--paper0);
  overflow: hidden;
}
.zoom button {
  border: 0;
  background: none;
  height: 26px;
  padding: 0 10px;
  font: 550 12px 'Figtree Variable';
  color: var(--ink9);
  cursor: pointer;
}
.zoom button:hover {
  background: var(--paper1);
}
.zoom .now {
  min-width: 92px;
}
</style>
