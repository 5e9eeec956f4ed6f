<script setup lang="ts">
// The fill of what is selected: a colour, a paper with its own scale, turn and
// shift, or a gradient.
import { Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Fill } from '../../api/types'
import { api } from '../../api/client'
import PanelSection from '../../parts/PanelSection.vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import ShareField from '../../parts/ShareField.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePhotoColours } from '../../store/photoColours'
import { usePrefs } from '../../store/prefs'
import { useTool } from '../../store/tool'
import ColourField from './ColourField.vue'
import { each } from './each'

const card = useCard()
const catalogue = useCatalogue()
const photos = usePhotoColours()
const prefs = usePrefs()
const tool = useTool()
const wrong = ref('')

const inkable = computed(() => card.told.filter((it) => it.kind !== 'photo' && !it.slot && !it.joined))
const lines = computed(() => inkable.value.some((it) => it.role))
const fill = computed<Fill>(() => inkable.value[0]?.fill ?? {})
const pieces = computed(() => inkable.value.every((it) => it.piece))
const words = computed(() => inkable.value.some((it) => it.kind === 'lettering'))
const ids = computed(() => inkable.value.map((it) => it.id))
const docs = computed(() => ids.value.map((id) => card.doc(id)).filter((d) => d !== undefined))
const kind = computed(() => {
  if (fill.value.paper) return fill.value.paper
  if (fill.value.gradient) return 'gradient'
  return fill.value.colour ? 'colour' : 'none'
})

const put = (f: Fill) => {
  wrong.value = ''
  void card.change({ do: 'setFill', ids: ids.value, fill: f })
}
/** Changes how a paper lies, on each that has one: it may be another paper. */
const lay = (part: Partial<Fill>) => {
  wrong.value = ''
  const papered = docs.value.filter((d) => d.fill.paper)
  void card.change(
    ...each(
      papered,
      (it) => ({ ...it.fill, ...part }),
      (some, f) => ({ do: 'setFill', ids: some, fill: f }),
    ),
  )
}
function set(v: string) {
  const colour = fill.value.colour ?? fill.value.gradient?.stops[0]?.colour ?? '#a8432a'
  if (v === 'none') put({})
  else if (v === 'colour') put({ colour })
  else if (v === 'gradient') {
    const stops = [
      { at: 0, colour },
      { at: 1, colour: colour === '#fff6e0' ? '#e2a42b' : '#fff6e0' },
    ]
    tool.stop = 0
    put({ gradient: { kind: 'linear', fromX: 0, fromY: 0, toX: 1, toY: 1, stops } })
  } else {
    catalogue.used('paper', v)
    // Another paper lies as the one before did.
    void card.change(
      ...each(
        docs.value,
        ({ fill: f }) => (f.paper ? { ...f, paper: v } : { paper: v }),
        (some, f) => ({ do: 'setFill', ids: some, fill: f }),
      ),
    )
  }
}

const gradient = computed(() => fill.value.gradient)
const bar = computed(
  () => `linear-gradient(to right, ${gradient.value?.stops.map((s) => `${s.colour} ${s.at * 100}%`).join(', ')})`,
)
const stop = computed(() => gradient.value?.stops[Math.min(tool.stop, gradient.value.stops.length - 1)])
function setStop(colour: string) {
  const g = gradient.value
  if (!g || !stop.value) return
  put({ gradient: { ...g, stops: g.stops.map((s) => (s === stop.value ? { ...s, colour } : s)) } })
}
function removeStop() {
  const g = gradient.value
  if (!g || g.stops.length < 3) return
  put({ gradient: { ...g, stops: g.stops.filter((s) => s !== stop.value) } })
  tool.stop = 0
}
function turnRound() {
  const g = gradient.value
  if (!g) return
  put({ gradient: { ...g, stops: [...g.stops].reverse().map((s) => ({ ...s, at: 1 - s.at })) } })
}
/** The colours of a photo of the card, as a gradient. */
function fromPhoto(colours: string[]) {
  const g = gradient.value
  if (!g) return
  const n = colours.length
  put({ gradient: { ...g, stops: colours.map((colour, i) => ({ at: n < 2 ? 0 : i / (n - 1), colour })) } })
}
const fact = computed(() => {
  if (fill.value.paper) return catalogue.all.papers.find((p) => p.id === fill.value.paper)?.name
  return { none: 'none', gradient: 'a gradient' }[kind.value] ?? fill.value.colour
})
/** Papers to choose from, those used last first. */
const papers = computed(() => catalogue.lately('paper', catalogue.offered(catalogue.all.papers, fill.value.paper)))
</script>

<template>
  <PanelSection v-if="inkable.length" id="ink" title="Ink" :fact="fact">
    <template #verbs>
      <button
        v-if="words && kind === 'colour' && fill.colour !== (prefs.mine.ink || catalogue.all.first.ink)"
        class="verb head"
        title="Words that you place from now on, on any card, begin in this colour"
        data-testid="ink-mine"
        @click="prefs.mine.ink = fill.colour!"
      >
        Use for new
      </button>
    </template>
    <div class="pair">
      <Field label="Fill" wide>
        <Select
          :value="kind"
          :bordered="false"
          size="small"
          :list-height="300"
          data-testid="fill"
          @change="(v) => set(String(v))"
        >
          <SelectOption v-if="pieces || kind === 'none'" value="none" :disabled="!pieces"
            >None, the stock shows</SelectOption
          >
          <SelectOption value="colour">Colour</SelectOption>
          <SelectOption v-if="!lines" value="gradient">Gradient</SelectOption>
          <template v-if="(!words && !lines) || fill.paper">
            <SelectOption v-for="p in papers" :key="p.id" :value="p.id">
              <span class="line"><img :src="`/api/papers/${p.id}.svg`" alt="" />{{ p.name }}</span>
            </SelectOption>
          </template>
        </Select>
      </Field>
      <ColourField
        v-if="kind === 'colour'"
        label="Colour"
        wide
        :value="fill.colour ?? '#1f2b38'"
        testid="colour"
        @set="put({ colour: $event })"
      />
      <template v-else-if="fill.paper">
        <ShareField
          label="Pattern"
          :value="Math.round((fill.scale || 1) * 100)"
          :min="10"
          :max="400"
          testid="pattern-scale"
          @set="lay({ scale: $event / 100 })"
        />
        <NumberField
          label="Turned"
          wide
          :value="fill.turn ?? 0"
          sign="°"
          testid="pattern-turn"
          @set="lay({ turn: $event })"
          @wrong="wrong = $event"
        />
        <MeasureField
          label="Across"
          :mm="fill.shiftX ?? 0"
          testid="pattern-x"
          @set="lay({ shiftX: $event })"
          @wrong="wrong = $event"
        />
        <MeasureField
          label="Down"
          :mm="fill.shiftY ?? 0"
          testid="pattern-y"
          @set="lay({ shiftY: $event })"
          @wrong="wrong = $event"
        />
      </template>
      <template v-else-if="gradient && stop">
        <Segmented
          class="wide"
          block
          :value="gradient.kind"
          :options="[
            { value: 'linear', label: 'Linear' },
            { value: 'radial', label: 'Radial' },
          ]"
          data-testid="gradient-kind"
          @change="(v) => put({ gradient: { ...gradient!, kind: String(v) } })"
        />
        <div class="wide bar" :style="{ background: bar }">
          <button
            v-for="(s, i) in gradient.stops"
            :key="i"
            :style="{ left: s.at * 100 + '%', background: s.colour }"
            :class="{ on: s === stop }"
            :aria-label="`Colour at ${Math.round(s.at * 100)} %`"
            :data-testid="'stop-' + i"
            @click="tool.stop = i"
          />
        </div>
        <ColourField label="This colour" wide :value="stop.colour" testid="stop-colour" @set="setStop" />
        <div class="wide choices">
          <button class="verb" :disabled="gradient.stops.length < 3" data-testid="stop-remove" @click="removeStop">
            Remove it
          </button>
          <button class="verb" data-testid="gradient-round" @click="turnRound">Other way round</button>
        </div>
        <div v-if="photos.all.length" class="wide photos">
          <small>Colours of</small>
          <button
            v-for="(p, i) in photos.all"
            :key="p.id"
            :title="'The colours of ' + p.name"
            :aria-label="'The colours of ' + p.name"
            :style="{ backgroundImage: `url(${api.previewURL(p.id, 256)})` }"
            :data-testid="'gradient-photo-' + i"
            @click="fromPhoto(p.colours)"
          />
        </div>
        <small class="wide">On the item: drag the ends and the colours; a double click on the line adds one.</small>
      </template>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
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
.bar {
  position: relative;
  height: 18px;
  margin: 2px 8px 6px;
  border-radius: 4px;
  box-shadow: inset 0 0 0 1px #0002;
}
.bar button {
  position: absolute;
  top: 3px;
  width: 14px;
  height: 20px;
  margin-left: -7px;
  padding: 0;
  border: 2px solid #fff;
  border-radius: 4px;
  box-shadow: 0 0 0 1px #0005;
  cursor: pointer;
}
.bar button.on {
  box-shadow: 0 0 0 2px var(--honey-dark);
}
.photos {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.photos button {
  width: 30px;
  height: 24px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background-position: center;
  background-size: cover;
  box-shadow: 0 0 0 1px #0002;
  cursor: pointer;
}
.choices {
  display: flex;
  margin: 0 -8px;
  align-items: center;
}
</style>
