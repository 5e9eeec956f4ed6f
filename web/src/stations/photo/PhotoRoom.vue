<script setup lang="ts">
// A photo by itself: what can be done to it on the right, what was done to it below.
import { onKeyStroke } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import FoldedCard from '../../parts/FoldedCard.vue'
import type { Pt } from '../../parts/geom'
import { isTyping } from '../../parts/typing'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useCutOut, type Seen } from '../../store/cutout'
import { useEdits, type Way } from '../../store/edits'
import { useMend } from '../../store/mend'
import { usePart } from '../../store/part'
import { usePrefs } from '../../store/prefs'
import BrushLayer from './BrushLayer.vue'
import CutMarks from './CutMarks.vue'
import CutPanel from './CutPanel.vue'
import EditStrip from './EditStrip.vue'
import LightPanel from './LightPanel.vue'
import MarkPath from './MarkPath.vue'
import MendPanel from './MendPanel.vue'
import PhotoView from './PhotoView.vue'
import StraightenPanel from './StraightenPanel.vue'

const card = useCard()
const edits = useEdits()
const catalogue = useCatalogue()
const cut = useCutOut()
const mend = useMend()
const part = usePart()
/** Strokes by which a part is found; what is painted shows by what it does. */
const partMarks = computed(() => {
  const s = part.of?.subject
  return [
    ...(s?.stays ?? []).map((b) => ({ ...b, means: 'stays' as const })),
    ...(s?.goes ?? []).map((b) => ({ ...b, means: 'goes' as const })),
  ]
})
const prefs = usePrefs()

const ways: { id: Way; name: string }[] = [
  { id: 'cut', name: 'Cut out' },
  { id: 'light', name: 'Light and colour' },
  { id: 'straighten', name: 'Straighten' },
  { id: 'mend', name: 'Mend' },
]
const split = ref(false)
const corners = ref<Pt[]>()
const draws = computed(() => (edits.way === 'straighten' ? 'line' : undefined))
watch(
  () => edits.way,
  (way) => {
    corners.value = undefined
    if (way === 'cut') cut.open()
  },
)

/** What lies under the photo on the card: a piece, or the face. */
const paper = computed(() => {
  const on = card.items.get(card.items.get(edits.item)?.on ?? '')
  return on?.fill.colour ?? on?.ground ?? catalogue.stock(card.view?.card.base.stock)?.colour ?? '#fff6e0'
})
const grounds: { id: Seen; name: string; testid: string; says?: string }[] = [
  { id: 'all', name: 'All', testid: 'seen-all' },
  { id: 'paper', name: 'On the paper behind', testid: 'seen-paper' },
  { id: '#ffffff', name: 'White', testid: 'seen-white' },
  { id: '#000000', name: 'Black', testid: 'seen-black' },
  { id: 'mask', name: 'As a mask', testid: 'seen-mask', says: 'What stays in white, what goes in black' },
]
const onColours = computed(() => [...new Set([paper.value, '#fff6e0', '#2f3d4f', '#a8432a', '#cdd8ba'])].slice(0, 4))
const mask = computed(() => edits.way === 'cut' && cut.seen === 'mask')
const ground = computed(() => {
  if (edits.way !== 'cut' || cut.seen === 'paper') return paper.value
  return cut.seen === 'all' ? undefined : mask.value ? '#000000' : cut.seen
})

const made = computed(() => (card.items.get(edits.item)?.piece ? 'photo piece' : 'printed photo'))

/** What the line runs along becomes level or upright, whichever is nearer. */
function level(from: Pt, to: Pt) {
  const angle = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI
  const off = angle - Math.round(angle / 90) * 90
  const last = edits.edits.at(-1)?.lean
  const degrees = Math.round(((last?.degrees ?? 0) - off) * 10) / 10
  const others = last ? edits.edits.slice(0, -1) : edits.edits
  void edits.set(degrees ? [...others, { lean: { degrees: Math.max(-45, Math.min(45, degrees)) } }] : others)
}
function setCorners(on: boolean) {
  const [a, b] = [0.12, 0.88]
  corners.value = on
    ? [
        { x: a, y: a },
        { x: b, y: a },
        { x: b, y: b },
        { x: a, y: b },
      ]
    : undefined
}
async function square() {
  const at = corners.value
  if (!at) return
  corners.value = undefined
  await edits.add({ corners: { at: at as [Pt, Pt, Pt, Pt] } })
}

// As it came while the key is held.
const held = (e: KeyboardEvent) => !isTyping(e) && !e.ctrlKey && !e.metaKey
onKeyStroke('v', (e) => held(e) && (edits.before = true))
onKeyStroke('v', () => (edits.before = false), { eventName: 'keyup' })
onKeyStroke('Escape', (e) => {
  if (isTyping(e)) return
  e.preventDefault()
  if (corners.value) corners.value = undefined
  else edits.close()
})
</script>

<template>
  <div class="photo-room" :class="{ narrow: !prefs.leftOpen }" data-testid="photo-room">
    <aside v-show="prefs.leftOpen" class="side model">
      <h3>{{ card.view?.scene.net.lines.length ? 'Folded card' : 'The card' }}</h3>
      <FoldedCard />
      <template v-if="edits.under && edits.shown">
        <h3>Seen on</h3>
        <div class="on">
          <button
            v-for="c in onColours"
            :key="c"
            :style="{ background: c }"
            :aria-label="'Seen on ' + c"
            @click="cut.seen = c === paper ? 'paper' : (c as Seen)"
          >
            <img :src="edits.shown" alt="" />
          </button>
        </div>
      </template>
    </aside>
    <main class="work">
      <div class="verbs">
        <b data-testid="photo-name">{{ edits.name }}</b>
        <span class="chip">{{ made }}</span>
        <span class="sep" />
        <button
          v-for="w in ways"
          :key="w.id"
          class="verb"
          :aria-pressed="edits.way === w.id"
          :data-testid="'way-' + w.id"
          @click="edits.way = w.id"
        >
          {{ w.name }}
        </button>
        <span class="space" />
        <button class="verb" :aria-pressed="split" data-testid="split-verb" @click="split = !split">
          Side by side
        </button>
        <button
          class="verb"
          title="As it came, while it is held (V)"
          data-testid="before"
          :aria-pressed="edits.before"
          @pointerdown="edits.before = true"
          @pointerup="edits.before = false"
          @pointerleave="edits.before = false"
        >
          Before
        </button>
        <button class="verb done" data-testid="photo-done" @click="edits.close()">Done</button>
      </div>
      <PhotoView
        :split="split"
        :draws="draws"
        :corners="corners"
        :ground="ground"
        :mask="mask"
        @line="level"
        @corner="(i, at) => (corners = corners?.map((c, k) => (k === i ? at : c)))"
      >
        <template #default="{ w, h }">
          <CutMarks v-if="edits.way === 'cut' && !edits.before" :w="w" :h="h" />
          <template v-else-if="edits.way === 'light' && part.by !== 'whole' && !edits.before">
            <MarkPath
              v-for="(s, i) in partMarks"
              :key="i"
              :points="s.points"
              :radius="s.radius"
              :means="s.means"
              :w="w"
              :h="h"
            />
            <BrushLayer
              :w="w"
              :h="h"
              :size="part.size"
              :means="part.brush === 'in' ? 'stays' : 'goes'"
              as="stroke"
              @stroke="part.stroke"
            />
          </template>
          <template v-else-if="edits.way === 'mend' && mend.by !== 'wider' && !edits.before">
            <BrushLayer
              :w="w"
              :h="h"
              :size="mend.size"
              means="goes"
              :as="mend.by === 'copy' && !mend.from ? 'click' : mend.by === 'eyes' ? 'click' : 'stroke'"
              @stroke="mend.stroke"
            />
            <circle
              v-if="mend.by === 'copy' && mend.from"
              :cx="mend.from.x * w"
              :cy="mend.from.y * h"
              :r="mend.size * w"
              fill="none"
              stroke="#fffdf9"
              stroke-width="2"
              stroke-dasharray="4 3"
              pointer-events="none"
            />
          </template>
        </template>
      </PhotoView>
      <div v-if="edits.way === 'cut'" class="seen" role="radiogroup" aria-label="What it is seen on">
        <button
          v-for="g in grounds"
          :key="g.id"
          role="radio"
          :aria-checked="cut.seen === g.id"
          :title="g.says"
          :data-testid="g.testid"
          @click="cut.seen = g.id"
        >
          {{ g.name }}
        </button>
      </div>
    </main>
    <aside class="right">
      <CutPanel v-if="edits.way === 'cut'" />
      <LightPanel v-else-if="edits.way === 'light'" />
      <StraightenPanel
        v-else-if="edits.way === 'straighten'"
        :corners="!!corners"
        @corners="setCorners"
        @square="square"
      />
      <MendPanel v-else />
    </aside>
    <EditStrip class="strip" />
  </div>
</template>

<style scoped>
.photo-room {
  display: grid;
  grid-template: minmax(0, 1fr) auto / 204px minmax(0, 1fr) var(--right);
  grid-template-areas: 'model work right' 'strip strip right';
  min-height: 0;
  height: 100%;
}
.photo-room.narrow {
  grid-template-columns: 0 minmax(0, 1fr) var(--right);
}
.model {
  grid-area: model;
}
.on {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.on button {
  height: 62px;
  padding: 3px;
  border: 0;
  border-radius: 5px;
  cursor: pointer;
}
.on img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.seen {
  position: absolute;
  left: 16px;
  bottom: 12px;
  display: flex;
  gap: 2px;
  padding: 3px;
  border: 1px solid var(--paper3);
  border-radius: 7px;
  background: var(--paper0);
}
.seen button {
  padding: 4px 10px;
  border: 0;
  border-radius: 5px;
  background: none;
  color: var(--ink7);
  font-size: 12.5px;
  cursor: pointer;
}
.seen [aria-checked='true'] {
  background: var(--paper2);
  color: var(--ink9);
  font-weight: 600;
}
.work {
  position: relative;
  grid-area: work;
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.right {
  grid-area: right;
}
.strip {
  grid-area: strip;
}
b {
  padding: 0 8px;
  overflow: hidden;
  text-overflow: ellipsis;
}
b {
  min-width: 40px;
}
@media (max-width: 1150px) {
  .chip,
  .sep {
    display: none;
  }
  .verbs .verb {
    padding: 5px;
    font-size: 12px;
  }
}
.done {
  font-weight: 650;
  color: var(--ink9);
}
</style>
