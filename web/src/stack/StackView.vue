<script setup lang="ts">
// The stack on a face, from the side: its order is changed by dragging names.
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import NameInput from '../parts/NameInput.vue'
import { madeText, shortStock } from '../parts/names'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { elevation, ROW } from './layout'

const card = useCard()
const catalogue = useCatalogue()

const base = computed(() => catalogue.stock(card.view?.card.base.stock))
const drawn = computed(() =>
  card.face
    ? elevation(
        card.face,
        base.value?.thickness ?? 0.3,
        base.value?.colour ?? '#fff',
        (p) => catalogue.all.papers.find((q) => q.id === p)?.ground ?? '#ccc',
      )
    : undefined,
)
const rows = computed(() => {
  const f = card.face
  if (!f) return []
  const items = [...f.items].reverse().map((it) => {
    const doc = card.doc(it.id)
    const on = it.on ? card.items.get(it.on)?.name : undefined
    return {
      id: it.id,
      name: it.name,
      locked: it.locked,
      grouped: !!it.group,
      how: doc ? madeText(doc, on, catalogue.stock(doc.made.stock)?.name) : '',
    }
  })
  return [
    ...items,
    { id: '', name: 'Card base', locked: false, grouped: false, how: shortStock(base.value?.name ?? '') },
  ]
})
// Paper is thin: people say its thickness in millimetres in either unit.
const thick = computed(() => `${(card.face?.thickness ?? 0).toFixed(1)} mm thick`)

// Of a long stack only what is in sight is there; a short one is there whole.
const whole = 80
const seen = ref({ from: 0, to: whole })
function look() {
  const el = list.value
  const port = el?.closest<HTMLElement>('.right')
  if (!el || !port) return
  const top = el.getBoundingClientRect().top - port.getBoundingClientRect().top
  const from = Math.floor(-top / ROW)
  seen.value = { from: from - 12, to: from + Math.ceil(port.clientHeight / ROW) + 12 }
}
useEventListener(() => list.value?.closest<HTMLElement>('.right'), 'scroll', look, { passive: true })
const shown = computed(() =>
  rows.value
    .map((r, i) => ({ r, i }))
    .filter(({ i }) => rows.value.length <= whole || (i >= seen.value.from && i <= seen.value.to)),
)
const bars = computed(() => {
  const n = rows.value.length
  return drawn.value?.bars.filter((b) => n <= whole || (b.row >= seen.value.from && b.row <= seen.value.to)) ?? []
})

const chosenIds = computed(() => new Set(card.selection))
/** The row under the pointer or with the focus, which shows what can be done to it. */
const pointed = ref('')
const dragged = ref('')
const target = ref<number>()
const list = ref<HTMLElement>()
let started = 0

function down(e: PointerEvent, id: string) {
  if (!id || e.button !== 0) return
  card.select([id], e.shiftKey || e.ctrlKey || e.metaKey)
  started = e.clientY
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
  dragged.value = id
}

function motion(e: PointerEvent) {
  if (!dragged.value || Math.abs(e.clientY - started) < 4) return
  const top = list.value?.getBoundingClientRect().top ?? 0
  target.value = Math.max(0, Math.min(rows.value.length - 1, Math.round((e.clientY - top) / ROW)))
}

function up() {
  const id = dragged.value
  const at = target.value
  dragged.value = ''
  target.value = undefined
  if (!id || at === undefined) return
  // Dropped between two rows: directly above the lower one.
  const below = rows.value[at]
  if (below && below.id !== id) void card.change({ do: 'restack', id, above: below.id })
}

function key(e: KeyboardEvent, i: number) {
  const to = e.key === 'ArrowDown' ? i + 1 : e.key === 'ArrowUp' ? i - 1 : -1
  const row = rows.value[to]
  if (row?.id) {
    e.preventDefault()
    e.stopPropagation()
    card.select([row.id])
    list.value?.querySelector<HTMLElement>(`[data-testid="layer-${row.id}"]`)?.focus()
    void nextTick(look)
  }
}

const chosen = (id: string) => (card.selection.includes(id) ? card.selection : [id])
const lock = (id: string, locked: boolean) => void card.change({ do: 'lockItems', ids: chosen(id), locked })
const hide = (id: string, hidden: boolean) =>
  void card.change({ do: 'hideItems', ids: hidden ? chosen(id) : [id], hidden })

const editing = ref('')
defineExpose({ rename: (id: string) => (editing.value = id) })
function rename(id: string, name: string | undefined) {
  editing.value = ''
  if (name) void card.change({ do: 'nameItem', id, name })
}
</script>

<template>
  <section class="sec" data-testid="stack">
    <header>
      <h3>Stack on {{ card.face?.name }}</h3>
      <small data-testid="thickness">{{ thick }}</small>
    </header>
    <div v-if="drawn" class="stack" :class="{ moving: dragged }">
      <svg width="134" :height="drawn.height" aria-hidden="true">
        <g
          v-for="b in bars"
          :key="b.id"
          v-memo="[b, chosenIds.has(b.id)]"
          :class="{ sel: chosenIds.has(b.id) }"
          @pointerdown="b.id && card.select([b.id])"
        >
          <rect
            v-for="(f, i) in b.feet"
            :key="i"
            v-bind="{ x: f.x, y: f.y, width: f.w, height: f.h }"
            fill="#fff"
            stroke="#cfc3ae"
          />
          <path :d="b.leader" fill="none" stroke="#a9b0b5" stroke-width=".9" />
          <rect
            v-bind="{ x: b.x, y: b.y, width: b.w, height: b.h }"
            :fill="b.colour"
            :stroke="b.kind === 'ink' ? 'none' : '#0003'"
            stroke-width=".7"
            class="bar"
          />
        </g>
      </svg>

      <div
        ref="list"
        class="rows"
        :style="{
          height: rows.length * ROW + 'px',
          paddingTop: (shown[0]?.i ?? 0) * ROW + 'px',
        }"
        @pointerleave="pointed = ''"
      >
        <div
          v-for="{ r, i } in shown"
          :key="r.id"
          v-memo="[r, i, chosenIds.has(r.id), target === i, dragged === r.id, editing === r.id, pointed === r.id]"
          class="layer"
          :class="{
            sel: chosenIds.has(r.id),
            base: !r.id,
            drop: target === i,
            own: !!r.id && dragged === r.id,
          }"
          :tabindex="r.id ? 0 : -1"
          :data-testid="r.id ? 'layer-' + r.id : 'layer-base'"
          :title="r.name + ', ' + r.how"
          @pointerenter="pointed = r.id"
          @focusin="pointed = r.id"
          @pointerdown="down($event, r.id)"
          @pointermove="motion"
          @pointerup="up"
          @pointercancel="((dragged = ''), (target = undefined))"
          @keydown="key($event, i)"
          @keydown.enter="card.select([r.id])"
          @dblclick="r.id && (editing = r.id)"
        >
          <NameInput
            v-if="editing === r.id && r.id"
            :value="r.name"
            label="Name"
            data-testid="layer-name"
            @done="rename(r.id, $event)"
          />
          <b v-else>{{ r.name }}</b>
          <small>{{ r.grouped ? 'grouped · ' : '' }}{{ r.how }}</small>
          <span v-if="r.id && (r.locked || pointed === r.id)" class="marks" @pointerdown.stop @dblclick.stop>
            <button
              :aria-label="(r.locked ? 'Unlock ' : 'Lock ') + r.name"
              :title="r.locked ? 'Unlock' : 'Lock in its place'"
              :data-testid="'lock-' + r.id"
              :class="{ held: r.locked }"
              @click="lock(r.id, !r.locked)"
            >
              <svg width="12" height="12" viewBox="0 0 12 12">
                <path d="M6 6.5V11M6 1.2a2.6 2.6 0 1 1 0 5.2a2.6 2.6 0 1 1 0-5.2" />
              </svg>
            </button>
            <button
              :aria-label="'Hide ' + r.name"
              title="Hide: leave it out for now"
              :data-testid="'hide-' + r.id"
              @click="hide(r.id, true)"
            >
              <svg width="12" height="12" viewBox="0 0 12 12"><path d="M2 6h8M4 3.2l-1-1M8 3.2l1-1M6 2.6V1.2" /></svg>
            </button>
          </span>
        </div>
      </div>
    </div>
    <div v-if="card.face?.hidden?.length" class="hidden">
      <small>Hidden, and neither printed nor cut</small>
      <button
        v-for="h in card.face.hidden"
        :key="h.id"
        class="verb"
        :title="'Show ' + h.name"
        :data-testid="'show-' + h.id"
        @click="hide(h.id, false)"
      >
        {{ h.name }} · show
      </button>
    </div>
    <p v-if="card.face && !card.face.items.length && !card.face.hidden?.length" class="hint">
      Nothing lies on this face yet. Drag something up from the tray.
    </p>
  </section>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 6px;
}
.stack {
  display: flex;
  align-items: flex-start;
}
svg {
  flex: none;
  display: block;
}
.bar {
  cursor: pointer;
}
.sel .bar {
  stroke: var(--honey-dark);
  stroke-width: 1.6;
}
.rows {
  flex: 1;
  min-width: 0;
  margin-right: -16px;
}
.layer {
  height: 31px;
  padding: 1px 12px 0 2px;
  border-radius: 6px 0 0 6px;
  cursor: grab;
  overflow: hidden;
  touch-action: none;
  outline-offset: -2px;
}
.layer.base {
  cursor: default;
}
.layer:hover:not(.base) {
  background: var(--paper1);
}
.layer.sel,
.layer.sel:hover {
  background: var(--brick-soft);
}
.layer.own {
  opacity: 0.5;
}
.layer.drop {
  box-shadow: 0 -2px 0 var(--honey-dark);
}
.layer b {
  display: block;
  font-weight: 550;
  font-size: 12.5px;
  line-height: 16px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.layer small {
  font-size: 10.5px;
  line-height: 12px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.layer input {
  width: 100%;
  height: 17px;
  border: 1px solid var(--blue);
  border-radius: 3px;
  font: 550 12.5px 'Figtree Variable';
}
.layer {
  position: relative;
}
.marks {
  position: absolute;
  right: 8px;
  top: 3px;
  display: flex;
  gap: 1px;
  background: inherit;
}
.marks button:not(.held) {
  display: none;
}
.layer:hover .marks button,
.layer:focus-within .marks button {
  display: grid;
}
.marks button {
  display: grid;
  place-items: center;
  width: 20px;
  height: 20px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background: var(--paper0);
  cursor: pointer;
}
.marks button.held {
  background: var(--paper2);
}
.marks path {
  fill: none;
  stroke: var(--ink7);
  stroke-width: 1.4;
  stroke-linecap: round;
}
.hidden {
  margin-top: 8px;
}
.hidden .verb {
  display: block;
  margin-left: -8px;
}
.hint {
  margin: 8px 0 0;
  color: var(--ink5);
  font-size: 12px;
}
</style>
