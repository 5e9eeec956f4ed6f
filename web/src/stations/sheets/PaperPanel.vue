<script setup lang="ts">
// The paper that sheets are laid on: size, margin, room between pieces.
import { Button, Checkbox, Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import type { SheetSetup, SheetSize as Size } from '../../api/types'
import Field from '../../parts/Field.vue'
import NumberField from '../../parts/NumberField.vue'
import MeasureField from '../../parts/MeasureField.vue'
import { INCH } from '../../parts/measure'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useCard } from '../../store/card'
import { useSheets } from '../../store/sheets'

const catalogue = useCatalogue()
const prefs = usePrefs()
const card = useCard()
const sheets = useSheets()
const wrong = ref('')

// Sizes of one's own are kept for all cards.
const adding = ref(false)
const name = ref('')
const width = ref(INCH * 6)
const height = ref(INCH * 8)
/** The size of this card, where it is not offered any more. */
const gone = computed(() =>
  catalogue.all.sizes.some((s) => s.id === sheets.setup.size)
    ? undefined
    : sheets.layout?.sheets.find((s) => s.size.id === sheets.setup.size)?.size,
)
const own = computed(() => catalogue.all.sizes.filter((s) => s.own))
async function keepSizes(sizes: Size[]) {
  try {
    await api.keepSizes(sizes)
    await catalogue.reload()
    wrong.value = ''
    return true
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
    return false
  }
}
async function addSize() {
  const size = { id: '', name: name.value, width: width.value, height: height.value }
  if (!(await keepSizes([...own.value, size]))) return
  adding.value = false
  name.value = ''
  const made = own.value.at(-1)
  if (made) change({ size: made.id })
}

const change = (part: Partial<SheetSetup>) => void sheets.setUp(part)

/** Takes what was written; what cannot be is refused by the program, in a sentence. */
async function set(what: 'margin' | 'between' | 'cards', value: number) {
  const next = { ...sheets.setup, [what]: value }
  wrong.value = (await card.attempt({ do: 'setSheets', sheets: next })).wrong ?? ''
  if (!wrong.value) change({ [what]: value })
}
/** One is what a card has that says nothing of it. */
const setCards = (n: number) => void set('cards', Math.round(n) === 1 ? 0 : n < 1 ? -1 : Math.round(n))
</script>

<template>
  <section class="sec">
    <h3>All sheets</h3>
    <div class="pair">
      <NumberField
        v-if="!card.view?.card.names?.laid"
        label="Cards"
        :value="sheets.setup.cards || 1"
        :digits="0"
        wide
        testid="cards"
        @set="setCards"
        @wrong="$event && (wrong = $event)"
      />
      <Field label="Size" wide>
        <Select
          :value="sheets.setup.size"
          :bordered="false"
          size="small"
          data-testid="paper"
          @change="(v) => change({ size: String(v) })"
        >
          <SelectOption v-for="s in catalogue.all.sizes" :key="s.id" :value="s.id"
            >{{ s.name }}, {{ prefs.size(s.width, s.height) }}</SelectOption
          >
          <SelectOption v-if="gone" :key="gone.id" :value="gone.id">{{ gone.name }}</SelectOption>
        </Select>
      </Field>
      <button class="verb wide other" :aria-pressed="adding" data-testid="size-add" @click="adding = !adding">
        Sizes of your own
      </button>
      <template v-if="adding">
        <MeasureField label="Wide" :mm="width" testid="size-width" @set="width = $event" @wrong="wrong = $event" />
        <MeasureField label="High" :mm="height" testid="size-height" @set="height = $event" @wrong="wrong = $event" />
        <Field label="Name" wide>
          <input v-model="name" class="name" maxlength="40" placeholder="by its measures" data-testid="size-name" />
        </Field>
        <Button size="small" class="wide" data-testid="size-keep" @click="addSize">Add this size</Button>
        <div v-for="s in own" :key="s.id" class="wide size">
          <span>{{ s.name }}</span>
          <button
            class="verb"
            :aria-label="'Offer ' + s.name + ' no more'"
            :data-testid="'size-drop-' + s.id"
            @click="keepSizes(own.filter((o) => o.id !== s.id))"
          >
            Take off
          </button>
        </div>
      </template>
      <MeasureField
        label="Margin"
        :mm="sheets.setup.borderless ? 0 : sheets.setup.margin"
        :disabled="sheets.setup.borderless"
        testid="margin"
        @set="set('margin', $event)"
        @wrong="$event && (wrong = $event)"
      />
      <MeasureField
        label="Between"
        :mm="sheets.setup.between"
        testid="between"
        @set="set('between', $event)"
        @wrong="$event && (wrong = $event)"
      />
      <Segmented
        class="lie"
        block
        :value="sheets.setup.lie"
        :options="[
          { value: 'portrait', label: 'Portrait' },
          { value: 'landscape', label: 'Landscape' },
        ]"
        data-testid="lie"
        @change="(v) => change({ lie: v as SheetSetup['lie'] })"
      />
      <Segmented
        class="lie"
        block
        :value="sheets.setup.turning"
        :options="[
          { value: 'upright', label: 'Upright', title: 'Pieces lie as they stand on the card' },
          { value: 'quarters', label: 'Quarters', title: 'Pieces are turned by quarter turns' },
          { value: 'freely', label: 'Freely', title: 'Pieces are turned as they lie closest' },
        ]"
        data-testid="turning"
        @change="(v) => change({ turning: v as SheetSetup['turning'] })"
      />
      <Field label="Marks" wide>
        <Select
          :value="sheets.setup.marks"
          :bordered="false"
          size="small"
          data-testid="marking"
          @change="(v) => change({ marks: v as SheetSetup['marks'] })"
        >
          <SelectOption value="machine">For the machine to find</SelectOption>
          <SelectOption value="hand">Crop marks, to trim by hand</SelectOption>
          <SelectOption value="none">None</SelectOption>
        </Select>
      </Field>
    </div>
    <div class="ticks">
      <Checkbox
        :checked="sheets.setup.borderless ?? false"
        title="Only where your printer prints to the edge of the paper"
        data-testid="borderless"
        @change="change({ borderless: !sheets.setup.borderless })"
        >Borderless</Checkbox
      >
      <Checkbox
        :checked="sheets.setup.share ?? false"
        title="Pieces with straight edges lie side by side without room between them; where two meet, one cut is enough"
        data-testid="share"
        @change="change({ share: !sheets.setup.share })"
        >Cut shared edges once</Checkbox
      >
    </div>
    <button
      class="verb other"
      :disabled="sheets.kept"
      title="Cards that you make from now on begin with this size, margin, turning and marks"
      data-testid="sheets-mine"
      @click="sheets.keepForNew"
    >
      {{ sheets.kept ? 'New cards begin so' : 'Use for new cards' }}
    </button>
    <p v-if="wrong" class="wrong" role="alert" data-testid="paper-wrong">{{ wrong }}</p>
  </section>
</template>

<style scoped>
.other {
  justify-self: start;
  margin-left: -8px;
}
.name {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
}
.size {
  display: flex;
  align-items: center;
  justify-content: space-between;
  font-size: 12.5px;
}
.lie {
  grid-column: 1 / -1;
}
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  margin-top: 8px;
}
p {
  margin-bottom: 0;
}
</style>
