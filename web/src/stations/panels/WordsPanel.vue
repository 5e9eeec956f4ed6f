<script setup lang="ts">
import { Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Words } from '../../api/types'
import PanelSection from '../../parts/PanelSection.vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import { apply } from '../../parts/geom'
import { useCard } from '../../store/card'
import FoundLines from './FoundLines.vue'
import LieField from './LieField.vue'
import WordsLie from './WordsLie.vue'
import { useCatalogue } from '../../store/catalogue'
import { useSections } from '../../store/sections'

defineEmits<{ edit: [id: string] }>()
const card = useCard()
const catalogue = useCatalogue()
const sections = useSections()
const wrong = ref('')

const item = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const words = computed(() => (item.value ? card.doc(item.value.id)?.words : undefined))

type Part = Partial<Words> | ((now: Words) => Partial<Words>)
async function set(part: Part, anchor?: { x: number; y: number }) {
  // What is changed of the words is built on what the change before has made.
  await card.idle()
  const now = words.value
  if (!item.value || !now) return
  const changed = { ...now, ...(typeof part === 'function' ? part(now) : part) }
  void card.change({ do: 'setWords', id: item.value.id, words: changed, anchor })
}

const fonts = computed(() => catalogue.lately('lettering', catalogue.all.fonts))
function setFont(font: string) {
  catalogue.used('lettering', font)
  set({ font })
}

const size = computed(() => item.value?.words?.size ?? words.value?.size ?? 0)
/** A size that is typed is kept, whatever has room. */
function setSize(mm: number) {
  void set(({ box }) => ({ size: mm, ...(box?.fit ? { box: { ...box, fit: false } } : {}) }))
}

const aligns = computed(() => [
  { value: 'left', label: 'Left' },
  { value: 'centre', label: 'Centre' },
  { value: 'right', label: 'Right' },
  ...(words.value?.box ? [{ value: 'justify', label: 'Both' }] : []),
])
/** Other alignment, same place: the anchor of straight lines goes to their other edge. */
function align(a: string | number) {
  const it = item.value!
  if (words.value?.box || words.value?.path) return set({ align: a as Words['align'] })
  const b = it.box
  const x = a === 'left' ? b.x : a === 'right' ? b.x + b.w : b.x + b.w / 2
  set({ align: a as Words['align'] }, apply(it.at, { x, y: 0 }))
}
</script>

<template>
  <PanelSection v-if="item && words" id="words" title="Lettering" :fact="words.text.replace(/\s+/g, ' ')">
    <template #verbs>
      <button
        class="verb"
        :aria-pressed="sections.open('letters-panel')"
        title="Set single letters by themselves"
        data-testid="letters-open"
        @click="sections.toggle('letters-panel')"
      >
        Letters{{ words.runs?.length ? ' ·' : '' }}
      </button>
    </template>
    <div class="pair">
      <button
        class="bare text wide"
        data-testid="edit-words"
        title="Edit the words in place"
        @click="$emit('edit', item.id)"
      >
        {{ words.text }}
      </button>
      <Field label="Font" wide>
        <Select
          :value="words.font"
          :bordered="false"
          size="small"
          :list-height="320"
          data-testid="font"
          @change="(v) => setFont(String(v))"
        >
          <SelectOption v-for="f in fonts" :key="f.id" :value="f.id">
            <span :style="{ fontFamily: `'lettering-${f.id}'`, fontSize: '15px' }">{{ f.name }}</span>
          </SelectOption>
        </Select>
      </Field>
      <MeasureField label="Letter size" :mm="size" testid="letter-size" @set="setSize" @wrong="wrong = $event" />
      <NumberField
        label="Leading"
        :value="words.leading"
        :digits="2"
        sign=" ×"
        testid="leading"
        @set="set({ leading: $event })"
        @wrong="wrong = $event"
      />
      <NumberField
        label="Apart"
        :value="words.spacing * 100"
        sign=" %"
        testid="spacing"
        @set="set({ spacing: $event / 100 })"
        @wrong="wrong = $event"
      />
      <LieField :item="item" :words="words" />
      <Segmented
        :value="words.align"
        class="wide"
        block
        :options="aligns"
        aria-label="Lines aligned"
        data-testid="align"
        @change="align"
      />
      <WordsLie :item="item" :words="words" @set="set" @wrong="wrong = $event" />
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <FoundLines :id="item.id" />
  </PanelSection>
</template>

<style scoped>
.text {
  border: 1px dashed var(--paper3);
  border-radius: var(--r);
  padding: 5px 9px;
  max-height: 62px;
  overflow: hidden;
  white-space: pre-line;
  font-weight: 550;
}
.text:hover {
  border-color: var(--honey-dark);
}
p {
  margin-bottom: 0;
}
</style>
