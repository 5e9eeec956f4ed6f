<script setup lang="ts">
// Single letters: those that are chosen in place, or all of them, and the inks that letters
// have in turn.
import { Button, Checkbox, Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Command, Words } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { featureNames } from '../../parts/names'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useLetters } from '../../store/letters'
import { useSections } from '../../store/sections'
import LetterForms from './LetterForms.vue'
import ColourField from './ColourField.vue'

const card = useCard()
const catalogue = useCatalogue()
const letters = useLetters()
const sections = useSections()
const wrong = ref('')

const item = computed(() => (card.told.length === 1 && card.told[0]!.kind === 'lettering' ? card.told[0] : undefined))
const words = computed(() => (item.value ? card.doc(item.value.id)?.words : undefined))
const some = computed(() => letters.item === item.value?.id && letters.chosen)
const which = computed(() => (some.value ? Array.from(letters.text).slice(letters.from, letters.to).join('') : ''))
const style = computed(() => (some.value ? letters.style : {}))
const font = computed(() => catalogue.all.fonts.find((f) => f.id === (style.value.font || words.value?.font)))
const set = (part: Parameters<typeof letters.restyle>[1]) => letters.restyle(item.value!.id, part)
async function setWords(part: Partial<Words>) {
  // What is changed of the words is built on what the change before has made.
  if (letters.commands.length) await card.change(...letters.commands)
  await card.idle()
  if (item.value) void card.change({ do: 'setWords', id: item.value.id, words: { ...words.value!, ...part } })
}

/** What the list of names has for the letters that are chosen. */
const columns = computed(() => card.view?.card.names?.columns ?? [])
const stands = computed(
  () => words.value?.fields?.find((f) => f.from < letters.to && letters.from < f.to)?.column ?? '',
)
function standFor(column: string) {
  const k: Command = { do: 'makeField', id: item.value!.id, from: letters.from, to: letters.to, column }
  void card.change(...letters.commands, k)
}

type Feature = NonNullable<Words['features']>[number]
const features = computed<Feature[]>(() => (some.value ? style.value.features : words.value?.features) ?? [])
function feature(f: Feature, is: boolean) {
  const now = features.value.filter((o) => o !== f).concat(is ? [f] : [])
  if (some.value) set({ features: now })
  else setWords({ features: now })
}

const by = computed(() => words.value?.colourBy ?? 'none')
function takeTurns(b: string | number) {
  const colours = words.value?.colours?.length ? words.value.colours : [item.value!.fill.colour ?? '#a8432a', '#587a4a']
  if (b === 'none') setWords({ colours: undefined, colourBy: undefined })
  else setWords({ colours, colourBy: b as Words['colourBy'] })
}
const setColour = (i: number, c: string) =>
  setWords({ colours: words.value!.colours!.map((o, k) => (k === i ? c : o)) })
const addColour = () => setWords({ colours: [...words.value!.colours!, words.value!.colours!.at(-1)!] })
const dropColour = (i: number) => setWords({ colours: words.value!.colours!.filter((_, k) => k !== i) })

const otherwise = computed(() => words.value?.runs?.reduce((n, r) => n + r.to - r.from, 0) ?? 0)
const fact = computed(() => (otherwise.value ? `${otherwise.value} set otherwise` : 'all alike'))
</script>

<template>
  <PanelSection
    v-if="item && words && (some || sections.open('letters-panel'))"
    id="letters-panel"
    title="Letters"
    :fact="fact"
    :needed="some"
  >
    <template #verbs>
      <button
        class="verb"
        title="Make each letter an item of its own"
        data-testid="letters-apart"
        @click="card.change({ do: 'lettersApart', id: item.id })"
      >
        Take apart
      </button>
    </template>
    <p class="which" data-testid="letters-which">
      <template v-if="some">Of “{{ which }}”:</template>
      <template v-else>Choose letters in the words to set them by themselves.</template>
    </p>
    <div class="pair">
      <template v-if="some">
        <Field v-if="columns.length" label="Stands for" wide>
          <Select
            :value="stands"
            :bordered="false"
            size="small"
            data-testid="letters-stand-for"
            @change="(v) => standFor(String(v))"
          >
            <SelectOption value="">itself, on every card</SelectOption>
            <SelectOption v-for="c in columns" :key="c" :value="c">{{ c }}</SelectOption>
          </Select>
        </Field>
        <Field label="Font" wide>
          <Select
            :value="style.font ?? ''"
            :bordered="false"
            size="small"
            :list-height="320"
            data-testid="letters-font"
            @change="(v) => set({ font: String(v) })"
          >
            <SelectOption value="">that of the words</SelectOption>
            <SelectOption v-for="f in catalogue.all.fonts" :key="f.id" :value="f.id">
              <span :style="{ fontFamily: `'lettering-${f.id}'`, fontSize: '15px' }">{{ f.name }}</span>
            </SelectOption>
          </Select>
        </Field>
        <LetterForms
          :font="style.font || words.font"
          :letter="Array.from(which)[0] ?? ''"
          :chosen="style.alternate ?? 0"
          @choose="set({ alternate: $event })"
        />
        <NumberField
          label="Large"
          :value="(style.scale || 1) * 100"
          sign=" %"
          testid="letters-scale"
          @set="set({ scale: $event / 100 })"
          @wrong="wrong = $event"
        />
        <NumberField
          label="Apart by"
          :value="(style.spacing ?? 0) * 100"
          sign=" %"
          testid="letters-spacing"
          @set="set({ spacing: $event / 100 })"
          @wrong="wrong = $event"
        />
        <NumberField
          label="Farther from the next letter by"
          wide
          :value="(style.kern ?? 0) * 100"
          sign=" %"
          testid="letters-kern"
          @set="set({ kern: $event / 100 })"
          @wrong="wrong = $event"
        />
        <ColourField
          label="Colour"
          :value="style.colour || item.fill.colour || '#1f2b38'"
          testid="letters-colour"
          @set="set({ colour: $event })"
        />
        <button class="verb" :disabled="!style.colour" data-testid="letters-plain" @click="set({ colour: '' })">
          As the words
        </button>
        <Segmented
          :value="style.stand ?? ''"
          class="wide"
          block
          :options="[
            { value: '', label: 'Usual' },
            { value: 'raised', label: 'Raised' },
            { value: 'lowered', label: 'Lowered' },
          ]"
          aria-label="Where letters stand"
          data-testid="letters-stand"
          @change="set({ stand: $event as 'raised' })"
        />
      </template>
      <Checkbox
        v-for="f in font?.features"
        :key="f"
        class="wide"
        :checked="features.includes(f)"
        :data-testid="'feature-' + f"
        @change="feature(f, $event.target.checked)"
        >{{ featureNames[f] }}</Checkbox
      >
      <template v-if="!some">
        <MeasureField
          label="Bar below"
          :mm="words.bar ?? 0"
          testid="bar"
          @set="setWords({ bar: $event })"
          @wrong="wrong = $event"
        />
        <MeasureField
          label="Dots tied by"
          :mm="words.tie ?? 0"
          testid="tie"
          @set="setWords({ tie: $event })"
          @wrong="wrong = $event"
        />
        <Field label="Colours change" wide>
          <Select
            :value="by"
            :bordered="false"
            size="small"
            data-testid="colour-by"
            @change="(v) => takeTurns(String(v))"
          >
            <SelectOption value="none">not</SelectOption>
            <SelectOption value="line">line by line</SelectOption>
            <SelectOption value="word">word by word</SelectOption>
            <SelectOption value="letter">letter by letter</SelectOption>
          </Select>
        </Field>
        <template v-if="words.colours?.length">
          <template v-for="(c, i) in words.colours" :key="i">
            <ColourField :label="`${i + 1}`" :value="c" :testid="'turn-' + i" @set="setColour(i, $event)" />
            <button
              class="verb"
              :disabled="words.colours.length < 2"
              :aria-label="`Leave colour ${i + 1} out`"
              @click="dropColour(i)"
            >
              Leave out
            </button>
          </template>
          <Button class="wide" size="small" data-testid="turn-add" @click="addColour">One more colour</Button>
        </template>
      </template>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.which {
  margin: 0 0 6px;
  color: var(--ink5);
  font-size: 12px;
}
.wide {
  grid-column: 1 / 3;
}
</style>
