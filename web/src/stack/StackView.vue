<script setup lang="ts">
// The stack on a face, from the side: its order is changed by dragging names.
import { computed, nextTick, ref, watch } from 'vue'
import PanelSection from '../parts/PanelSection.vue'
import { madeText, shortStock } from '../parts/names'
import { useCard } from '../store/card'
import { usePrefs } from '../store/prefs'
import { useCatalogue } from '../store/catalogue'
import { elevation, isPart, rowsOf, ROW } from './layout'
import StackRow, { type Row } from './StackRow.vue'
import { useInSight } from './useInSight'

const card = useCard()
const prefs = usePrefs()
const catalogue = useCatalogue()

const base = computed(() => catalogue.stock(card.view?.card.base.stock))
/** Pieces whose parts are shown: those that were opened, and the one of what is chosen. */
const opened = ref(new Set<string>())
const showsParts = (piece: string) =>
  opened.value.has(piece) || card.selected.some((it) => isPart(it) && it.on === piece)
const ids = computed(() => (card.face ? rowsOf(card.face.items, showsParts) : []))
const partsOf = computed(() => {
  const out = new Map<string, number>()
  for (const it of card.face?.items ?? []) if (isPart(it) && it.on) out.set(it.on, (out.get(it.on) ?? 0) + 1)
  return out
})
function openParts(piece: string, open: boolean) {
  opened.value = new Set([...opened.value].filter((id) => id !== piece).concat(open ? [piece] : []))
  // What is chosen among them would keep them open.
  if (!open && card.selected.some((it) => isPart(it) && it.on === piece)) card.select([piece])
}

const drawn = computed(() =>
  card.face
    ? elevation(
        card.face,
        ids.value,
        base.value?.thickness ?? 0.3,
        base.value?.colour ?? '#fff',
        (p) => catalogue.all.papers.find((q) => q.id === p)?.ground ?? '#ccc',
      )
    : undefined,
)
const rows = computed<Row[]>(() => {
  const f = card.face
  if (!f) return []
  return ids.value.map((id) => {
    const it = card.items.get(id)
    if (!it) return { id, name: 'Card base', locked: false, how: shortStock(base.value?.name ?? ''), told: '' }
    const doc = card.doc(id)
    const on = it.on ? card.items.get(it.on)?.name : undefined
    const how = doc ? madeText(doc, on, catalogue.stock(doc.made.stock)?.name) : ''
    return {
      id,
      name: it.name,
      locked: !!it.locked,
      how: it.group ? 'grouped · ' + how : how,
      told: prefs.said(card.findings(id).find((f) => f.weight !== 'note')?.why ?? ''),
      part: isPart(it),
      parts: partsOf.value.get(id),
      open: showsParts(id),
    }
  })
})
// Paper is thin: people say its thickness in millimetres in either unit.
const thick = computed(() => `${(card.face?.thickness ?? 0).toFixed(1)} mm thick`)

const layers = computed(() => {
  const n = card.face?.items.length ?? 0
  return `${n} ${n === 1 ? 'thing' : 'things'} · ${(card.face?.thickness ?? 0).toFixed(1)} mm`
})

const port = ref<HTMLElement>()
const list = ref<HTMLElement>()
const sight = useInSight(port, list, () => rows.value.length)
// What was selected on the face is in sight in the stack.
watch(
  () => (card.selection.length === 1 ? card.selection[0] : ''),
  (id) => id && nextTick(() => sight.reveal(rows.value.findIndex((r) => r.id === id))),
)
const shown = computed(() => rows.value.map((r, i) => ({ r, i })).filter(({ i }) => sight.has.value(i)))
const bars = computed(() => drawn.value?.bars.filter((b) => sight.has.value(b.row)) ?? [])

const chosenIds = computed(() => new Set(card.selection))
/** The row under the pointer or with the focus, which shows what can be done to it. */
const pointed = ref('')
const dragged = ref('')
const target = ref<number>()
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
  const box = port.value?.getBoundingClientRect()
  if (box && e.clientY < box.top + 12) port.value?.scrollBy(0, -ROW / 4)
  else if (box && e.clientY > box.bottom - 12) port.value?.scrollBy(0, ROW / 4)
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
    void nextTick(sight.look)
  }
}

const chosen = (id: string) => (card.selection.includes(id) ? card.selection : [id])
const lock = (id: string, locked: boolean) => void card.change({ do: 'lockItems', ids: chosen(id), locked })
const hide = (id: string, hidden: boolean) =>
  void card.change({ do: 'hideItems', ids: hidden ? chosen(id) : [id], hidden })

const editing = ref('')
defineExpose({
  rename: (id: string) => {
    sight.reveal(rows.value.findIndex((r) => r.id === id))
    editing.value = id
  },
})
function rename(id: string, name: string | undefined) {
  editing.value = ''
  if (name) void card.change({ do: 'nameItem', id, name })
}
</script>

<template>
  <PanelSection id="stack" :title="'Stack on ' + card.face?.name" :fact="layers">
    <template #verbs
      ><small data-testid="thickness">{{ thick }}</small></template
    >
    <div v-if="drawn" ref="port" class="stack" :class="{ moving: dragged, low: card.told.length }">
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
        <StackRow
          v-for="{ r, i } in shown"
          :key="r.id"
          v-memo="[r, i, chosenIds.has(r.id), target === i, dragged === r.id, editing === r.id, pointed === r.id]"
          :row="r"
          :selected="chosenIds.has(r.id)"
          :drop="target === i"
          :dragged="!!r.id && dragged === r.id"
          :editing="!!r.id && editing === r.id"
          :pointed="pointed === r.id"
          @named="rename(r.id, $event)"
          @lock="lock(r.id, $event)"
          @hide="hide(r.id, true)"
          @open="openParts(r.id, $event)"
          @pointerenter="pointed = r.id"
          @focusin="pointed = r.id"
          @pointerdown="down($event, r.id)"
          @pointermove="motion"
          @pointerup="up"
          @pointercancel="((dragged = ''), (target = undefined))"
          @keydown="key($event, i)"
          @keydown.enter="card.select([r.id])"
          @dblclick="r.id && (editing = r.id)"
        />
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
  </PanelSection>
</template>

<style scoped>
.stack {
  position: relative;
  display: flex;
  align-items: flex-start;
  max-height: 440px;
  margin-right: -16px;
  overflow: hidden auto;
  scrollbar-width: thin;
}
/* What is selected needs the room below. */
.stack.low {
  max-height: 125px;
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
