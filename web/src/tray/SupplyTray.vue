<script setup lang="ts">
// The strip along the near edge where supplies wait. They are dragged up onto
// the card with the pointer, or placed in the middle with Enter.
import { Button, Progress } from 'ant-design-vue'
import { computed, nextTick, ref } from 'vue'
import { api } from '../api/client'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'
import { fontSupply, paperSupply, photoSupply, shapes, shapeSupply, type Supply } from './supplies'

const emit = defineEmits<{ place: [s: Supply]; drop: [s: Supply, e: PointerEvent]; files: [files: File[]] }>()

const catalogue = useCatalogue()
const prefs = usePrefs()

const tabs = ['Photos', 'Papers', 'Shapes', 'Lettering'] as const
const tab = ref<(typeof tabs)[number]>('Papers')
const find = ref('')
const search = ref<HTMLInputElement>()
const chooser = ref<HTMLInputElement>()

const matches = (name: string) => name.toLowerCase().includes(find.value.trim().toLowerCase())

const supplies = computed<Supply[]>(() => {
  const c = catalogue.all
  const all = {
    Photos: () => catalogue.pictures.map(photoSupply),
    Papers: () => c.papers.map(paperSupply),
    Shapes: () => shapes.map(shapeSupply),
    Lettering: () => c.fonts.map(fontSupply),
  }[tab.value]()
  return all.filter((s) => matches(s.name))
})

const ghost = ref<{ s: Supply; x: number; y: number }>()
let start: { x: number; y: number; s: Supply } | undefined

function down(e: PointerEvent, s: Supply) {
  if (e.button !== 0) return
  start = { x: e.clientX, y: e.clientY, s }
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
}

function motion(e: PointerEvent) {
  if (!start) return
  if (ghost.value || Math.hypot(e.clientX - start.x, e.clientY - start.y) > 6)
    ghost.value = { s: start.s, x: e.clientX, y: e.clientY }
}

function up(e: PointerEvent) {
  const g = ghost.value
  start = undefined
  ghost.value = undefined
  if (g) emit('drop', g.s, e)
}

function chosen(e: Event) {
  const box = e.target as HTMLInputElement
  emit('files', [...(box.files ?? [])])
  box.value = ''
}

function show(t: (typeof tabs)[number]) {
  tab.value = t
  prefs.trayOpen = true
}

function tabKey(e: KeyboardEvent) {
  const step = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0
  if (!step) return
  e.preventDefault()
  e.stopPropagation()
  show(tabs[(tabs.indexOf(tab.value) + step + tabs.length) % tabs.length]!)
  void nextTick(() => document.querySelector<HTMLElement>('[role=tab][aria-selected=true]')?.focus())
}

/** Arrows go along the supplies. */
function itemKey(e: KeyboardEvent) {
  const el = e.currentTarget as HTMLElement
  const to = e.key === 'ArrowRight' ? el.nextElementSibling : e.key === 'ArrowLeft' ? el.previousElementSibling : null
  if (to instanceof HTMLElement) {
    e.preventDefault()
    e.stopPropagation()
    to.focus()
  }
}

defineExpose({
  search: () => {
    prefs.trayOpen = true
    void nextTick(() => search.value?.focus())
  },
  show,
})

const shapePath = (id: string) => shapes.find((s) => s.id === id)?.d
</script>

<template>
  <section class="tray" :class="{ shut: !prefs.trayOpen }" aria-label="Supplies" data-testid="tray">
    <div class="tabs" role="tablist">
      <button
        v-for="t in tabs"
        :key="t"
        role="tab"
        :aria-selected="t === tab"
        :tabindex="t === tab ? 0 : -1"
        :class="{ on: t === tab && prefs.trayOpen }"
        :data-testid="'tab-' + t.toLowerCase()"
        @click="show(t)"
        @keydown="tabKey"
      >
        {{ t }}
      </button>
      <span class="space" />
      <span class="hint">Drag onto the card, or press Enter to place in the middle</span>
      <input
        ref="search"
        v-model="find"
        class="find"
        type="search"
        placeholder="Find in the tray"
        aria-label="Find in the tray"
        data-testid="tray-find"
        @keydown.esc="((find = ''), search?.blur())"
      />
      <button
        class="fold"
        :aria-expanded="prefs.trayOpen"
        :aria-label="prefs.trayOpen ? 'Fold the tray away' : 'Unfold the tray'"
        @click="prefs.trayOpen = !prefs.trayOpen"
      >
        <svg width="12" height="8" viewBox="0 0 12 8">
          <path
            :d="prefs.trayOpen ? 'M1 1.5l5 5 5-5' : 'M1 6.500l5-5 5 5'"
            fill="none"
            stroke="currentColor"
            stroke-width="1.6"
          />
        </svg>
      </button>
    </div>
    <div v-if="prefs.trayOpen" class="items">
      <template v-if="tab === 'Photos'">
        <button class="add" data-testid="bring-in" @click="chooser?.click()">Bring in<br />photos</button>
        <input
          ref="chooser"
          type="file"
          multiple
          accept="image/jpeg,image/png,image/webp"
          hidden
          data-testid="file-input"
          @change="chosen"
        />
        <div
          v-for="i in catalogue.incoming"
          :key="i.key"
          class="coming"
          :class="{ bad: i.why }"
          :data-testid="i.why ? 'refused' : 'coming'"
        >
          <template v-if="i.why">
            <span class="why" role="alert">{{ i.why }}</span>
            <Button size="small" @click="catalogue.dismiss(i.key)">Dismiss</Button>
          </template>
          <template v-else>
            <span class="file">{{ i.name }}</span>
            <Progress :percent="Math.round(i.share * 100)" :show-info="false" size="small" stroke-color="#587a4a" />
            <span class="state">{{ i.share < 1 ? Math.round(i.share * 100) + ' %' : 'preparing…' }}</span>
            <button class="verb" @click="catalogue.dismiss(i.key)">Stop</button>
          </template>
        </div>
      </template>
      <button
        v-for="s in supplies"
        :key="s.kind + s.id"
        class="supply"
        :class="s.kind"
        :title="s.name"
        :data-testid="`supply-${s.kind}-${s.id}`"
        @pointerdown="down($event, s)"
        @pointermove="motion"
        @pointerup="up"
        @pointercancel="((start = undefined), (ghost = undefined))"
        @keydown="itemKey"
        @keydown.enter.prevent="emit('place', s)"
        @dblclick="emit('place', s)"
      >
        <img v-if="s.kind === 'photo'" :src="api.previewURL(s.id, 256)" alt="" draggable="false" loading="lazy" />
        <i v-else-if="s.kind === 'paper'" :style="{ backgroundImage: `url(/api/papers/${s.id}.svg)` }" />
        <svg v-else-if="s.kind === 'shape'" width="60" height="44" viewBox="0 0 60 44">
          <path :d="shapePath(s.id)" fill="#fffdf9" fill-rule="evenodd" stroke="#41505f" stroke-width="1.2" />
        </svg>
        <em v-else :style="{ fontFamily: `'lettering-${s.id}'` }">{{ s.name }}</em>
        <span v-if="s.kind !== 'lettering'">{{ s.name }}</span>
      </button>
      <p v-if="!supplies.length && !(tab === 'Photos' && !find)" class="none">Nothing here is called “{{ find }}”.</p>
      <p v-else-if="tab === 'Photos' && !supplies.length && !catalogue.incoming.length" class="none">
        Bring in photos from this computer, or drop them anywhere on the page.
      </p>
    </div>
    <div v-if="ghost" class="ghost" :style="{ left: ghost.x + 'px', top: ghost.y + 'px' }">
      <img v-if="ghost.s.kind === 'photo'" :src="api.previewURL(ghost.s.id, 256)" alt="" />
      <i v-else-if="ghost.s.kind === 'paper'" :style="{ backgroundImage: `url(/api/papers/${ghost.s.id}.svg)` }" />
      <svg v-else-if="ghost.s.kind === 'shape'" width="90" height="66" viewBox="0 0 60 44">
        <path :d="shapePath(ghost.s.id)" fill="#fffdf9" fill-rule="evenodd" stroke="#b9770e" stroke-width="1" />
      </svg>
      <em v-else :style="{ fontFamily: `'lettering-${ghost.s.id}'` }">Your words</em>
    </div>
  </section>
</template>

<style scoped>
.tray {
  background: var(--paper2);
  border-top: 1px solid var(--paper3);
  height: 132px;
  display: grid;
  grid-template-rows: 34px 1fr;
  min-width: 0;
}
.tray.shut {
  height: 35px;
}
.tabs {
  display: flex;
  align-items: end;
  gap: 2px;
  padding: 0 14px;
  min-width: 0;
}
.tabs [role='tab'] {
  border: 0;
  background: none;
  padding: 6px 13px 7px;
  font: 600 12.5px 'Figtree Variable';
  color: var(--ink7);
  border-radius: 8px 8px 0 0;
  cursor: pointer;
}
.tabs .on {
  background: var(--paper1);
  color: var(--ink9);
}
.space {
  flex: 1;
}
.hint {
  align-self: center;
  color: var(--ink5);
  font-size: 11.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  margin-right: 10px;
}
.find {
  align-self: center;
  width: 130px;
  height: 24px;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  padding: 0 8px;
  font: inherit;
  background: var(--paper0);
}
.fold {
  align-self: center;
  border: 0;
  background: none;
  padding: 6px 8px;
  color: var(--ink7);
  cursor: pointer;
}
.items {
  background: var(--paper1);
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 16px;
  overflow: auto hidden;
  min-width: 0;
}
.add,
.coming {
  flex: none;
  height: 74px;
  border-radius: 4px;
}
.add {
  width: 74px;
  border: 1.5px dashed var(--ink3);
  background: none;
  color: var(--ink5);
  font: 11px/1.4 'Figtree Variable';
  cursor: pointer;
}
.add:hover {
  border-color: var(--brick);
  color: var(--brick);
}
.coming {
  width: 150px;
  padding: 5px 8px;
  background: var(--paper0);
  border: 1px solid var(--paper3);
  font-size: 11px;
}
.coming.bad {
  width: 300px;
  border-color: var(--stop);
  display: flex;
  align-items: center;
  gap: 8px;
}
.why {
  flex: 1;
  color: var(--stop);
  max-height: 62px;
  overflow: auto;
}
.file {
  display: block;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.coming .verb {
  float: right;
  padding: 0 4px;
  font-size: 11px;
}
.supply {
  position: relative;
  flex: none;
  width: 74px;
  height: 74px;
  padding: 0;
  border: 0;
  border-radius: 3px;
  overflow: hidden;
  background: #fffdf9;
  box-shadow: 0 1px 2px #0003;
  cursor: grab;
  touch-action: pan-x;
}
.supply:hover {
  box-shadow:
    0 0 0 1.5px var(--honey),
    0 1px 3px #0004;
}
.supply img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.supply i {
  display: block;
  width: 100%;
  height: 100%;
  background-size: 28px auto;
}
.supply svg {
  margin-top: -10px;
}
.supply span {
  position: absolute;
  inset: auto 0 0;
  padding: 1px 4px;
  background: #fffdf9ea;
  font-size: 10px;
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.supply.photo {
  width: 104px;
}
.supply.lettering {
  width: auto;
  min-width: 96px;
  padding: 0 14px;
}
.supply em {
  font-style: normal;
  font-size: 22px;
  white-space: nowrap;
  color: var(--ink9);
}
.none {
  color: var(--ink5);
}
.ghost {
  position: fixed;
  z-index: 30;
  pointer-events: none;
  transform: translate(-50%, -50%);
  opacity: 0.9;
}
.ghost img,
.ghost i {
  display: block;
  width: 120px;
  height: 90px;
  object-fit: cover;
  box-shadow: 0 3px 10px #0004;
}
.ghost em {
  font-style: normal;
  font-size: 30px;
  color: var(--brick);
}
@media (max-width: 1120px) {
  .hint {
    display: none;
  }
}
</style>
