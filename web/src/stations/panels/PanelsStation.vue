<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ref, watch } from 'vue'
import { api } from '../../api/client'
import type { Picture } from '../../api/types'
import FacesMap from '../../parts/FacesMap.vue'
import FoldedCard from '../../parts/FoldedCard.vue'
import type { Pt } from '../../parts/geom'
import { useLater } from '../../parts/useLater'
import StackView from '../../stack/StackView.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useTool } from '../../store/tool'
import WorkSurface from '../../surface/WorkSurface.vue'
import SupplyTray from '../../tray/SupplyTray.vue'
import { focusWatch } from '../../parts/typing'
import { photoSupply, placeSupply, type Supply } from '../../tray/supplies'
import DrawingDialog from './DrawingDialog.vue'
import ColoursPanel from './ColoursPanel.vue'
import DrawPanel from './DrawPanel.vue'
import FacePanel from './FacePanel.vue'
import FormPanel from './FormPanel.vue'
import InkPanel from './InkPanel.vue'
import ItemMenu from './ItemMenu.vue'
import EdgingPanel from './EdgingPanel.vue'
import TiersPanel from './TiersPanel.vue'
import LookPanel from './LookPanel.vue'
import MadePanel from './MadePanel.vue'
import MeasuresPanel from './MeasuresPanel.vue'
import OpeningPanel from './OpeningPanel.vue'
import PhotoPanel from './PhotoPanel.vue'
import PointsPanel from './PointsPanel.vue'
import PlainFormPanel from './PlainFormPanel.vue'
import RimPanel from './RimPanel.vue'
import SlotPanel from './SlotPanel.vue'
import WindowPanel from './WindowPanel.vue'
import VerbBar from './VerbBar.vue'
import WordsPanel from './WordsPanel.vue'
import MiddlesPanel from './MiddlesPanel.vue'
import LettersPanel from './LettersPanel.vue'
import { useLetters } from '../../store/letters'
import { usePanelKeys } from './usePanelKeys'

const card = useCard()
const letters = useLetters()
const catalogue = useCatalogue()
const prefs = usePrefs()
const tool = useTool()

const surface = ref<InstanceType<typeof WorkSurface>>()
const stack = ref<InstanceType<typeof StackView>>()
const tray = ref<InstanceType<typeof SupplyTray>>()
const keys = usePanelKeys({
  fit: () => surface.value?.fit(),
  search: () => tray.value?.search(),
  face: () => surface.value?.focus(),
  verbs: () => {
    // From the face to the verbs, on to the measures, and back.
    const into = (where: string) => document.querySelector<HTMLElement>(where)
    const stops = [
      into('[data-testid=surface]'),
      into('[data-testid=arrange]'),
      into('[data-testid=measures] input:enabled'),
    ]
    const here = document.activeElement
    const at = here?.closest('.verbs') ? 1 : here?.closest('.right') ? 2 : 0
    const next = [...stops.slice(at + 1), ...stops].find((el) => el)
    next?.focus()
  },
  edit: (id) => surface.value?.edit(id),
  files: (list) => void files(list),
})

/** The photo that is selected becomes the background of the face. */
function makeGround() {
  const id = card.selection[0] ?? ''
  const p = card.doc(id)?.photo
  if (!p) return
  const picture = { id: p.picture, pixelWidth: p.pixelWidth, pixelHeight: p.pixelHeight, edits: p.edits }
  void card.change({ do: 'setBackground', faces: [card.faceId], fill: {}, picture }, { do: 'removeItems', ids: [id] })
}
/** What is chosen in the menu of a thing; then keys mean the face again. */
function act(verb: string) {
  const verbs: Record<string, () => unknown> = {
    copy: () => keys.copy(),
    paste: keys.paste,
    duplicate: keys.duplicate,
    keep: () => tray.value?.keep(),
    group: () => keys.group(),
    lock: keys.lock,
    hide: keys.hide,
    remove: keys.remove,
    all: keys.all,
    up: () => keys.step(true),
    down: () => keys.step(false),
    ground: makeGround,
    edit: () => surface.value?.edit(card.selection[0]),
  }
  void verbs[verb]?.()
  if (verb !== 'edit') surface.value?.focus()
}

watch(
  () => card.awaiting,
  (id) => id && tray.value?.show('Photos'),
)

// The face comes first; what stands round it follows as soon as it is drawn.
const ready = useLater()

/** The slots that a picture is on its way to. */
const filling = new Set<string>()
/** Puts a picture into an opening, its most detailed part in the middle. */
async function fillWith(id: string, s: Supply) {
  const p = s.picture
  if (!p) return
  catalogue.used(s.kind, s.id)
  const was = card.items.get(id)
  // The cells of a divided opening are filled one after the other.
  const cells =
    card.awaiting === id && was?.slot ? [...card.items.values()].filter((it) => it.cell && it.group === was?.group) : []
  filling.add(id)
  card.awaiting = cells.find((it) => it.slot === 'photo' && !filling.has(it.id))?.id ?? ''
  let at = {}
  try {
    const f = await api.facts(p.id)
    // What replaces a photo keeps its crop.
    if (was?.kind !== 'photo') at = { atX: f.detailX, atY: f.detailY }
  } catch {
    // Then its middle is in the middle.
  }
  // What is cut round its form is cut round that of the next picture.
  const edge = card.doc(id)?.photo?.rim && p.clear ? await edgeOf(p) : undefined
  // A name that a person has given stays; one that came with a photo goes with it.
  const known = was?.picture && catalogue.pictures.find((o) => o.id === was.picture?.id)?.name
  const name = was?.slot || (known && known === was?.name) ? p.name : undefined
  const asked = card.change({
    do: 'fillOpening',
    id,
    picture: p.id,
    pixelWidth: p.width,
    pixelHeight: p.height,
    ...(name ? { name } : {}),
    ...(edge ? { edge } : {}),
    ...at,
  })
  await card.selectMade(asked, () => [id])
  filling.delete(id)
}

/** What the person has set for new things, as far as it is there. */
const mine = () => ({ ...prefs.mine, stock: catalogue.stock(prefs.mine.stock) ? prefs.mine.stock : '' })

/** The outline of what a transparent picture shows; nothing where it is not to be cut round. */
async function edgeOf(p: Picture) {
  try {
    const t = await api.trace(p.id, { by: 'transparency', usual: true })
    return t.says ? undefined : t.outlines[0]?.path
  } catch {
    return undefined // then all of it is laid
  }
}

/** What an edging is run along: what it is dropped on, or what is chosen. */
function edgedBy(at?: Pt): string[] {
  if (!at) return card.selected.filter((it) => !it.role && !it.slot).map((it) => it.id)
  const on = card.items.get(surface.value?.itemOn(at) ?? '')
  return on && !on.role && !on.slot && !card.doc(on.id)?.background ? [on.id] : []
}
function runEdging(s: Supply, ids: string[]) {
  catalogue.used(s.kind, s.id)
  const was = card.doc(ids[0]!)?.edging
  const edging = { ...(was ?? { depth: catalogue.all.firstDepth }), motif: s.id, length: 0 }
  return card.selectMade(card.change({ do: 'setEdging', ids, edging }), () => ids)
}

async function place(s: Supply, at?: Pt, along = false) {
  const f = card.face
  if (!f) return
  const edges = s.kind === 'edging' ? edgedBy(at) : []
  if (edges.length) return void runEdging(s, edges)
  if (s.picture) {
    // A slot that it is dropped on, or that is selected, takes it.
    const one = card.selected.length === 1 ? card.selected[0]! : undefined
    const slot = at ? surface.value?.itemOn(at) : one?.slot === 'photo' ? one.id : card.awaiting || one?.id
    if (slot && (slot === card.awaiting || card.items.get(slot)?.slot === 'photo')) return fillWith(slot, s)
  }
  catalogue.used(s.kind, s.id)
  // Keys mean the face then, unless the person has gone elsewhere before it was there.
  const stayed = focusWatch()
  const toFace = () => stayed() && surface.value?.focus()
  if (s.kind === 'art') {
    const v = await card.selectMade(card.layArt({ art: s.id, face: f.id, ...(at ? { at } : {}) }))
    if (v?.made) toFace()
    return
  }
  const edge = s.picture?.clear ? await edgeOf(s.picture) : undefined
  const asked = card.change(placeSupply(s, f.id, mine(), at, along, edge))
  const v = await card.selectMade(asked)
  if (!v?.made) return
  toFace()
  if (s.kind !== 'lettering') return
  tool.tool = 'choose' // The words are written next.
  surface.value?.edit(v.made[0]!)
}

/** What is clicked in the tray fills what waits for a photo, or is placed by clicks on the face. */
function taken(s: Supply) {
  if ((s.picture && card.awaiting) || (s.kind === 'edging' && card.selection.length)) void place(s)
  else tool.hold(s, (held, at) => void place(held, at, true))
}

function dropped(s: Supply, e: PointerEvent) {
  const at = surface.value?.pointOn(e)
  // On a strip that is turned it is turned likewise; with Shift it stays level.
  if (at) void place(s, at, !e.shiftKey)
}

const drawing = ref<InstanceType<typeof DrawingDialog>>()
const isDrawing = (f: File) => catalogue.isDrawing(f.name)

async function files(all: File[], at?: Pt) {
  const fonts = all.filter((f) => catalogue.isFont(f.name))
  if (fonts.length) {
    tray.value?.show('Lettering')
    void catalogue.bringFonts(fonts)
  }
  for (const f of all.filter(isDrawing)) await drawing.value?.show(f, at)
  const list = all.filter((f) => !isDrawing(f) && !fonts.includes(f))
  if (!list.length) return
  tray.value?.show('Photos')
  const done = await catalogue.bring(list)
  // Dropped on the face, they are wanted there.
  if (at) for (const [i, p] of done.entries()) await place(photoSupply(p), { x: at.x + i * 5, y: at.y + i * 5 })
}

const over = ref(false)
useEventListener(window, 'dragover', (e: DragEvent) => {
  if (!e.dataTransfer?.types.includes('Files')) return
  e.preventDefault()
  over.value = true
})
useEventListener(window, 'dragleave', (e: DragEvent) => {
  if (!e.relatedTarget) over.value = false
})
useEventListener(window, 'drop', (e: DragEvent) => {
  over.value = false
  if (!e.dataTransfer?.files.length) return
  e.preventDefault()
  void files([...e.dataTransfer.files], surface.value?.pointOn(e))
})
</script>

<template>
  <div class="panels" :class="{ narrow: !prefs.leftOpen }">
    <aside v-show="prefs.leftOpen" class="side model">
      <template v-if="ready">
        <h3>{{ card.view?.scene.net.lines.length ? 'Folded card' : 'The card' }}</h3>
        <FoldedCard />
        <h3>Faces</h3>
        <FacesMap />
      </template>
    </aside>
    <main class="work">
      <VerbBar
        @rename="stack?.rename($event)"
        @edit="surface?.edit($event)"
        @duplicate="keys.duplicate()"
        @remove="keys.remove()"
        @step="keys.step($event)"
        @group="keys.group()"
      />
      <ItemMenu :item-under="(p) => surface?.itemUnder(p)" @act="act">
        <WorkSurface ref="surface" />
      </ItemMenu>
    </main>
    <aside class="right">
      <template v-if="ready">
        <StackView ref="stack" />
        <FacePanel />
        <DrawPanel />
        <PointsPanel />
        <MeasuresPanel />
        <LettersPanel v-if="letters.chosen" />
        <WordsPanel @edit="surface?.edit($event)" />
        <LettersPanel v-if="!letters.chosen" />
        <MiddlesPanel />
        <SlotPanel />
        <PhotoPanel />
        <RimPanel />
        <WindowPanel />
        <InkPanel />
        <MadePanel />
        <FormPanel />
        <PlainFormPanel />
        <TiersPanel />
        <EdgingPanel />
        <LookPanel />
        <OpeningPanel />
        <ColoursPanel />
      </template>
    </aside>
    <SupplyTray
      v-if="ready"
      ref="tray"
      class="tray"
      @place="place($event)"
      @take="taken"
      @drop="dropped"
      @files="files($event)"
    />
    <div v-else class="tray waiting" :class="{ shut: !prefs.trayOpen }" />
    <div v-if="card.awaiting" class="awaiting" data-testid="awaiting">
      Choose a photo in the tray, or drop one here, for {{ card.items.get(card.awaiting)?.name }}
      <button class="verb" @click="card.awaiting = ''">Leave it</button>
    </div>
    <div v-if="over" class="over">
      Drop photos and drawings here: on the face to place them, anywhere else to keep photos in the tray; fonts go there
      too
    </div>
    <DrawingDialog ref="drawing" @kept="tray?.show('Art')" />
  </div>
</template>

<style scoped>
.panels {
  display: grid;
  grid-template: minmax(0, 1fr) auto / 204px minmax(0, 1fr) var(--right);
  grid-template-areas: 'model work right' 'tray tray right';
  min-height: 0;
  height: 100%;
}
.panels.narrow {
  grid-template-columns: 0 minmax(0, 1fr) var(--right);
}
.model {
  grid-area: model;
}
.work {
  grid-area: work;
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.right {
  grid-area: right;
}
.tray {
  grid-area: tray;
}
.waiting {
  height: 132px;
  background: var(--paper1);
  border-top: 1px solid var(--paper3);
}
.waiting.shut {
  height: 35px;
}
.awaiting {
  position: fixed;
  left: 50%;
  bottom: 176px;
  transform: translateX(-50%);
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 5px 8px 5px 14px;
  border: 1px solid var(--honey-dark);
  border-radius: var(--r);
  background: var(--paper0);
  z-index: 5;
}
.over {
  position: fixed;
  inset: 66px 306px 10px 214px;
  display: grid;
  place-items: center;
  border: 2px dashed var(--honey-dark);
  border-radius: 10px;
  background: #fffdf9cc;
  font: 600 16px 'Fraunces Variable';
  pointer-events: none;
  z-index: 10;
}
</style>
