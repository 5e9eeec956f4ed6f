<script setup lang="ts">
// What belongs to the face itself: its background, and the maker's mark.
import { Button, Segmented, Select, SelectOptGroup, SelectOption, Switch, message } from 'ant-design-vue'
import { computed, nextTick } from 'vue'
import { api } from '../../api/client'
import type { Fill, Item } from '../../api/types'
import PanelSection from '../../parts/PanelSection.vue'
import Field from '../../parts/Field.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useTool } from '../../store/tool'
import { placeSketch } from '../../tray/supplies'
import ColourField from './ColourField.vue'
import CoverDialog from './CoverDialog.vue'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const tool = useTool()

const doc = computed(() => card.view?.card.faces.find((f) => f.id === card.faceId))
const fill = computed<Fill>(() => doc.value?.items.find((it) => it.background)?.fill ?? {})
const ground = computed(() => doc.value?.items.find((it) => it.background))
const photo = computed(() => ground.value?.photo)
const kind = computed(
  () =>
    photo.value?.picture ??
    fill.value.paper ??
    (fill.value.gradient ? 'gradient' : fill.value.colour ? 'colour' : 'none'),
)
const shown = computed(() => catalogue.pictures.find((p) => p.id === photo.value?.picture)?.name ?? 'A photo')
const set = (f: Fill) => void card.change({ do: 'setBackground', faces: [card.faceId], fill: f })
const show = (id: string) => {
  const p = catalogue.pictures.find((o) => o.id === id)
  const picture = p && { id, pixelWidth: p.width, pixelHeight: p.height }
  if (picture) void card.change({ do: 'setBackground', faces: [card.faceId], fill: {}, picture })
}
/** Gives all faces the background of this one; a photo is slid and zoomed alike. */
function everyFace() {
  const p = photo.value
  const faces = card.view?.scene.faces.map((f) => f.id) ?? []
  if (!p) return void card.change({ do: 'setBackground', faces, fill: fill.value })
  const { picture: id, pixelWidth, pixelHeight, zoom, shiftX, shiftY } = p
  const picture = { id, pixelWidth, pixelHeight, zoom: zoom ?? 0, shiftX: shiftX ?? 0, shiftY: shiftY ?? 0 }
  void card.change({ do: 'setBackground', faces, fill: {}, picture })
}
/** The picture is slid and zoomed on the face. */
function slide() {
  if (!ground.value) return
  card.select([ground.value.id])
  // Another choice puts the tool down, and this was one.
  void nextTick(() => tool.take('crop'))
}
const first = '#f6e3da'
function choose(v: string) {
  const from = fill.value.colour ?? first
  if (v === 'none') set({})
  else if (v === 'colour') set({ colour: fill.value.gradient?.stops[0]?.colour ?? first })
  else if (v === 'gradient') set(blend(from, '#e2a42b'))
  else if (catalogue.all.papers.some((p) => p.id === v)) {
    catalogue.used('paper', v)
    set({ paper: v })
  } else show(v)
}

/** A gradient from one colour to another, down the face, across it or outward. */
const ways = {
  down: { kind: 'linear', fromX: 0.5, fromY: 0, toX: 0.5, toY: 1 },
  across: { kind: 'linear', fromX: 0, fromY: 0.5, toX: 1, toY: 0.5 },
  outward: { kind: 'radial', fromX: 0.5, fromY: 0.5, toX: 1, toY: 0.5 },
} as const
type Way = keyof typeof ways
const gradient = computed(() => fill.value.gradient)
const way = computed<Way>(() => {
  const g = gradient.value
  if (g?.kind === 'radial') return 'outward'
  return g && Math.abs(g.toX - g.fromX) > Math.abs(g.toY - g.fromY) ? 'across' : 'down'
})
const blend = (a: string, b: string, w: Way = 'down'): Fill => ({
  gradient: {
    ...ways[w],
    stops: [
      { at: 0, colour: a },
      { at: 1, colour: b },
    ],
  },
})
const end = (n: 0 | 1) => gradient.value?.stops.at(n ? -1 : 0)?.colour ?? first

/** The faces that have this background, and whether all have it. */
const alike = computed(() => {
  const inked = (it?: Item) => JSON.stringify([it?.fill ?? {}, it?.photo?.picture])
  const of = (id: string) => card.view?.card.faces.find((f) => f.id === id)?.items.find((it) => it.background)
  return (card.view?.scene.faces ?? []).filter((f) => inked(of(f.id)) === inked(ground.value))
})
const everywhere = computed(() => alike.value.length === card.view?.scene.faces.length)

const mark = computed(() => catalogue.sketches.find((s) => s.id === prefs.mark))
async function keepMark() {
  try {
    const k = await api.keepSketch(card.id, {
      title: 'Maker’s mark',
      face: card.faceId,
      slots: [],
      tags: ['maker’s mark'],
    })
    await catalogue.loadSketches()
    prefs.mark = k.id
    void message.success('The maker’s mark is kept with the sketches, and goes on the back of each new card.')
  } catch (e) {
    void message.warning(e instanceof Error ? e.message : String(e))
  }
}
async function putMark() {
  const f = card.face
  if (!f || !mark.value) return
  await card.selectMade(card.change(placeSketch(mark.value, f.id)))
}
/** Papers to choose from, those used last first. */
const papers = computed(() => catalogue.lately('paper', catalogue.offered(catalogue.all.papers, fill.value.paper)))
</script>

<template>
  <PanelSection
    v-if="!card.told.length && tool.tool === 'choose'"
    id="face-panel"
    :title="card.face?.name ?? ''"
    :fact="kind === 'none' ? 'no background' : photo ? shown : 'a background'"
  >
    <div class="pair">
      <Field label="Background" wide>
        <Select
          :value="kind"
          :bordered="false"
          size="small"
          :list-height="300"
          data-testid="background"
          @change="(v) => choose(String(v))"
        >
          <SelectOption value="none">None, the stock shows</SelectOption>
          <SelectOption value="colour">Colour</SelectOption>
          <SelectOption value="gradient">Gradient</SelectOption>
          <SelectOptGroup v-if="catalogue.pictures.length || photo" label="A photo">
            <SelectOption v-if="photo && !catalogue.pictures.some((p) => p.id === kind)" :value="kind">{{
              shown
            }}</SelectOption>
            <SelectOption v-for="p in catalogue.pictures" :key="p.id" :value="p.id">
              <span class="line"><img :src="api.previewURL(p.id, 256)" alt="" loading="lazy" />{{ p.name }}</span>
            </SelectOption>
          </SelectOptGroup>
          <SelectOptGroup label="A paper">
            <SelectOption v-for="p in papers" :key="p.id" :value="p.id">
              <span class="line"><img :src="`/api/papers/${p.id}.svg`" alt="" />{{ p.name }}</span>
            </SelectOption>
          </SelectOptGroup>
        </Select>
      </Field>
      <ColourField
        v-if="fill.colour"
        label="Colour"
        wide
        :value="fill.colour"
        testid="background-colour"
        @set="set({ colour: $event })"
      />
      <template v-if="gradient">
        <Segmented
          class="wide"
          block
          :value="way"
          :options="[
            { value: 'down', label: 'Down' },
            { value: 'across', label: 'Across' },
            { value: 'outward', label: 'Outward' },
          ]"
          data-testid="background-way"
          @change="(v) => set(blend(end(0), end(1), v as Way))"
        />
        <ColourField label="From" :value="end(0)" testid="background-from" @set="set(blend($event, end(1), way))" />
        <ColourField label="To" :value="end(1)" testid="background-to" @set="set(blend(end(0), $event, way))" />
      </template>
    </div>
    <div v-if="kind !== 'none'" class="same">
      <small data-testid="background-on">{{
        everywhere ? 'On all faces' : 'On ' + alike.map((f) => f.name).join(', ')
      }}</small>
      <Button v-if="photo" size="small" data-testid="background-slide" @click="slide">Slide and zoom</Button>
      <Button v-if="!everywhere" size="small" data-testid="background-all" @click="everyFace">Same on all faces</Button>
    </div>
    <div class="same">
      <small>Its panels</small>
      <CoverDialog />
    </div>
    <div v-if="mark || doc?.items.length" class="marks">
      <small>Maker’s mark</small>
      <Button v-if="mark" size="small" data-testid="put-mark" @click="putMark">Put it here</Button>
      <Button v-if="doc?.items.length" size="small" data-testid="keep-mark" @click="keepMark">
        Keep this face as {{ mark ? 'a new one' : 'one' }}
      </Button>
      <label v-if="mark" class="choices"
        ><Switch v-model:checked="prefs.marks" size="small" data-testid="mark-new" /> On the back of each new
        card</label
      >
    </div>
  </PanelSection>
</template>

<style scoped>
.choices {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 8px 0 0;
}
.wide {
  grid-column: 1 / 3;
}
.line {
  display: flex;
  align-items: center;
  gap: 7px;
}
.line img {
  width: 20px;
  height: 20px;
  border-radius: 3px;
  object-fit: cover;
}
.same {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  margin-top: 8px;
}
.marks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 7px;
  margin-top: 12px;
}
.marks .choices {
  width: 100%;
  margin: 0;
}
</style>
