<script setup lang="ts">
// The strip along the near edge where supplies wait. They are dragged up onto
// the card with the pointer, or placed in the middle with Enter.
import { computed, nextTick, onBeforeUpdate, onUpdated, ref, shallowRef, watch } from 'vue'
import { message, Popover } from 'ant-design-vue'
import { api } from '../api/client'
import type { Font, IncomingPaper, Paper } from '../api/types'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'
import { useTool } from '../store/tool'
import IncomingFile from './IncomingFile.vue'
import AboutSupply from './AboutSupply.vue'
import PaperDialog from './PaperDialog.vue'
import SupplyButton from './SupplyButton.vue'
import {
  artSupply,
  edgingSupply,
  fontSupply,
  paperSupply,
  photoSupply,
  shapeSupply,
  sketchSupply,
  type Supply,
} from './supplies'

const emit = defineEmits<{
  place: [s: Supply]
  take: [s: Supply]
  drop: [s: Supply, e: PointerEvent]
  files: [files: File[]]
}>()

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const tool = useTool()

const tabs = ['Photos', 'Papers', 'Shapes', 'Lettering', 'Edges', 'Art', 'Sketches'] as const
const tab = ref<(typeof tabs)[number]>('Papers')
const find = ref('')
const search = ref<HTMLInputElement>()
const chooser = ref<HTMLInputElement>()
const drawings = ref<HTMLInputElement>()
const fonts = ref<HTMLInputElement>()
const papers = ref<HTMLInputElement>()

/** A supply under the name that it was given, with all that it can be found by. */
function known(s: Supply) {
  const note = catalogue.noted(s.kind, s.id)
  const tags = [...(note.tags ?? []), ...(s.sketch?.tags ?? []), s.sketch?.occasion ?? '']
  const name = note.name || s.name
  return { supply: { ...s, name }, note, words: [name, ...tags].join(' ').toLowerCase() }
}
/** Which faces are shown, by what is measured of them. */
const faces = {
  all: { label: 'All', is: () => true },
  thick: { label: 'Thick', is: (f: Font) => f.stem >= 0.12 },
  joined: { label: 'Joined', is: (f: Font) => !!f.joined },
}
const face = ref<keyof typeof faces>('all')
/** The words that are chosen, which every face shows. */
const words = computed(() => {
  const one = card.told.length === 1 ? card.doc(card.told[0]!.id)?.words?.text : undefined
  const line = one?.split('\n').find((l) => l.trim())
  return line && (line.length > 18 ? line.slice(0, 17) + '…' : line)
})
/** What was noted when this part of the tray was opened: nothing moves while one is placed after another. */
const about = ref<Supply>()
const order = shallowRef(catalogue.notes)
watch(
  [tab, find, about, () => catalogue.loads, () => catalogue.pictures.length],
  () => (order.value = catalogue.notes),
  { flush: 'sync' },
)
// A supply that moves to another place in the row is taken out for a moment, and keeps the focus all the same.
let focused: Element | null = null
onBeforeUpdate(() => (focused = document.activeElement))
onUpdated(() => {
  if (focused instanceof HTMLElement && focused.matches('.supply') && document.activeElement === document.body)
    focused.focus()
})
const lately = <T extends { id: string }>(kind: string, list: T[]) => catalogue.lately(kind, list, order.value)
const supplies = computed(() => {
  const c = catalogue.all
  const all = {
    Photos: () => lately('photo', catalogue.pictures).map(photoSupply),
    Papers: () => lately('paper', catalogue.papers).map(paperSupply),
    Shapes: () =>
      lately(
        'shape',
        c.shapes.filter((r) => r.tray),
      ).map(shapeSupply),
    Lettering: () =>
      lately(
        'lettering',
        c.fonts.filter((f) => faces[face.value].is(f)),
      )
        .map(fontSupply)
        .map((s) => ({ ...s, text: words.value })),
    Edges: () => lately('edging', catalogue.edgings).map((m) => edgingSupply(m, c.edgings)),
    Art: () => lately('art', catalogue.art).map(artSupply),
    Sketches: () => lately('sketch', catalogue.sketches).map(sketchSupply),
  }
    [tab.value]()
    .map(known)
  const want = find.value.trim().toLowerCase().split(/\s+/)
  return all.filter((s) => want.every((w) => s.words.includes(w)))
})

function chosen(e: Event) {
  const box = e.target as HTMLInputElement
  emit('files', [...(box.files ?? [])])
  box.value = ''
}

/** A file that a paper is made of, and a paper of one's own that is changed. */
const incoming = shallowRef<IncomingPaper>()
const changed = shallowRef<Paper>()
const refused = ref('')
async function paperFile(e: Event) {
  const box = e.target as HTMLInputElement
  const file = box.files?.[0]
  box.value = ''
  refused.value = ''
  if (!file) return
  try {
    incoming.value = await api.readPaper(file)
  } catch (err) {
    refused.value = err instanceof Error ? err.message : String(err)
  }
}

/** All supplies out and in as one file. */
const whole = ref(false)
const came = ref('')
const supplyFile = ref<HTMLInputElement>()
async function bringSupplies(e: Event) {
  const box = e.target as HTMLInputElement
  const file = box.files?.[0]
  box.value = ''
  if (!file) return
  came.value = 'Bringing them in …'
  try {
    const r = await api.bringSupplies(file)
    await catalogue.again()
    came.value = [r.added ? `${r.added} are new.` : 'All of them were there already.', ...r.notes].join(' ')
  } catch (err) {
    came.value = err instanceof Error ? err.message : String(err)
  }
}

/** One thing with an outline, of which a motif could be made. */
const oneOutline = computed(() => {
  const one = card.told.length === 1 ? card.told[0] : undefined
  return one && !one.role && !one.slot ? one : undefined
})
watch([tab, oneOutline], () => (refused.value = ''))
async function makeMotif() {
  const it = oneOutline.value
  if (!it) return
  refused.value = ''
  try {
    await api.makeMotif(card.id, { face: card.faceId, item: it.id, name: it.name.slice(0, 60) })
    await catalogue.reload()
  } catch (e) {
    refused.value = e instanceof Error ? e.message : String(e)
  }
}

/** What is chosen on the face is kept under its name. */
async function keep() {
  try {
    const name = card.group?.name ?? card.told[0]?.name ?? 'Things'
    const a = await api.keepArt(card.id, { face: card.faceId, ids: card.selection, name })
    await catalogue.loadArt()
    show('Art')
    void message.success(`“${a.name}” waits in the tray, under Art.`)
  } catch (e) {
    void message.warning(e instanceof Error ? e.message : String(e))
  }
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

defineExpose({
  search: () => {
    prefs.trayOpen = true
    void nextTick(() => search.value?.focus())
  },
  show,
  keep,
})
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
      <span v-if="tab === 'Lettering' && prefs.trayOpen" class="faces" role="group" aria-label="Faces shown">
        <button
          v-for="(f, k) in faces"
          :key="k"
          class="verb"
          :aria-pressed="face === k"
          :data-testid="'faces-' + k"
          @click="face = k"
        >
          {{ f.label }}
        </button>
      </span>
      <span v-else class="hint">{{
        tab === 'Edges'
          ? 'Drag onto a thing to edge it, or beside it for a strip'
          : 'Drag onto the card, or click it and the face'
      }}</span>
      <Popover v-model:open="whole" trigger="click" placement="topRight">
        <button class="verb whole" data-testid="supplies-all" title="All supplies of your own as one file">
          As a file
        </button>
        <template #content>
          <div class="ways" data-testid="supplies-menu">
            <a class="verb" href="/api/supplies.zip" download data-testid="supplies-out"
              >Keep all of your own as a file</a
            >
            <button class="verb" data-testid="supplies-in" @click="supplyFile?.click()">Bring such a file in</button>
            <p v-if="came" data-testid="supplies-came">{{ came }}</p>
          </div>
        </template>
      </Popover>
      <input
        ref="supplyFile"
        type="file"
        accept=".zip,application/zip"
        hidden
        data-testid="supplies-input"
        @change="bringSupplies"
      />
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
        <IncomingFile v-for="i in catalogue.incoming" :key="i.key" :file="i" />
      </template>
      <template v-if="tab === 'Edges' && oneOutline">
        <button
          class="add"
          title="The upper edge of what is chosen becomes a motif: its left end has to be as high as its right"
          data-testid="make-motif"
          @click="makeMotif"
        >
          A motif of<br />what is chosen
        </button>
        <p v-if="refused" class="wrong" role="alert" data-testid="motif-refused">{{ refused }}</p>
      </template>
      <template v-if="tab === 'Papers'">
        <button class="add" data-testid="bring-in-paper" @click="papers?.click()">Bring in<br />a paper</button>
        <input
          ref="papers"
          type="file"
          accept="image/jpeg,image/png,image/webp,image/svg+xml"
          hidden
          data-testid="paper-input"
          @change="paperFile"
        />
        <p v-if="refused" class="wrong" role="alert" data-testid="paper-refused">{{ refused }}</p>
      </template>
      <template v-if="tab === 'Art'">
        <button class="add" data-testid="bring-in-drawing" @click="drawings?.click()">Bring in<br />a drawing</button>
        <input
          ref="drawings"
          type="file"
          multiple
          :accept="catalogue.drawingFiles"
          hidden
          data-testid="drawing-input"
          @change="chosen"
        />
        <button
          v-if="card.selection.length"
          class="add"
          title="What is chosen on the face waits here, for every card"
          data-testid="keep-art"
          @click="keep"
        >
          Keep what<br />is chosen
        </button>
      </template>
      <template v-if="tab === 'Lettering'">
        <button class="add" data-testid="bring-in-font" @click="fonts?.click()">Bring in<br />a font</button>
        <input
          ref="fonts"
          type="file"
          multiple
          :accept="catalogue.fontFiles"
          hidden
          data-testid="font-input"
          @change="chosen"
        />
        <IncomingFile v-for="i in catalogue.incoming" :key="i.key" :file="i" />
      </template>
      <SupplyButton
        v-for="s in supplies"
        :key="s.supply.kind + s.supply.id"
        :supply="s.supply"
        :favourite="s.note.favourite"
        :held="tool.supply?.kind === s.supply.kind && tool.supply.id === s.supply.id"
        @place="emit('place', s.supply)"
        @take="emit('take', s.supply)"
        @drop="emit('drop', s.supply, $event)"
        @about="about = s.supply"
      />
      <p v-if="!supplies.length && (find || !['Photos', 'Art', 'Sketches'].includes(tab))" class="none">
        Nothing here is called “{{ find }}”.
      </p>
      <p v-else-if="tab === 'Sketches' && !supplies.length" class="none">
        No sketches yet: choose nothing on a face and use “Keep as a sketch”.
      </p>
      <p v-else-if="tab === 'Art' && !supplies.length" class="none">
        Drawings that are brought in wait here, and what you keep of a card.
      </p>
      <p v-else-if="tab === 'Photos' && !supplies.length && !catalogue.incoming.length" class="none">
        Bring in photos from this computer, or drop them anywhere on the page.
      </p>
    </div>
    <PaperDialog
      v-if="incoming || changed"
      :file="incoming"
      :paper="changed"
      @close="((incoming = undefined), (changed = undefined))"
    />
    <AboutSupply
      v-else-if="about"
      :key="about.kind + about.id"
      :supply="about"
      @close="about = undefined"
      @change="((changed = catalogue.all.papers.find((p) => p.id === about?.id)), (about = undefined))"
    />
  </section>
</template>

<style scoped>
.whole {
  align-self: center;
  padding: 3px 8px;
  font-size: 12px;
  white-space: nowrap;
}
.ways {
  display: grid;
  gap: 4px;
  max-width: 300px;
}
.ways p {
  margin: 4px 8px;
}
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
.faces {
  align-self: center;
  display: flex;
  gap: 2px;
  margin-right: 10px;
}
.faces .verb {
  padding: 2px 8px;
}
.faces [aria-pressed='true'] {
  background: var(--paper0);
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
.add {
  flex: none;
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
.none {
  color: var(--ink5);
}
@media (max-width: 1120px) {
  .hint {
    display: none;
  }
}
</style>
