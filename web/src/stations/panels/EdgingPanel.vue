<script setup lang="ts">
// The motif that runs along the outline of what is chosen: which, how deep, how many, where.
import { Segmented, Select, SelectOption, Switch } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Edging } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { each } from './each'

const card = useCard()
const catalogue = useCatalogue()
const wrong = ref('')

const docs = computed(() => card.told.map((it) => card.doc(it.id)).filter((d) => d?.edging !== undefined))
const first = computed(() => docs.value[0]?.edging)
const motif = computed(() => catalogue.all.edgings.find((m) => m.id === first.value?.motif))
const repeats = computed(() => card.told.find((it) => it.id === docs.value[0]?.id)?.repeats ?? 0)
const sides: Record<NonNullable<Edging['side']>, string> = {
  '': 'all round',
  top: 'top',
  right: 'right',
  bottom: 'bottom',
  left: 'left',
}
const corners: Record<NonNullable<Edging['corner']>, string> = {
  '': 'End',
  mitre: 'Mitre',
  turn: 'Turn',
  piece: 'Round',
}

/** Changes the edgings of all that is chosen, each by itself. */
async function set(part: Partial<Edging>) {
  wrong.value = ''
  // What is changed is built on what the change before has made.
  await card.idle()
  await card.change(
    ...each(
      docs.value.filter((d) => d !== undefined),
      (d) => ({ ...d.edging!, ...part }),
      (ids, edging) => ({ do: 'setEdging', ids, edging }),
    ),
  )
}
const off = () => void card.change({ do: 'setEdging', ids: docs.value.map((d) => d!.id) })
</script>

<template>
  <PanelSection
    v-if="first"
    id="edging"
    title="Edging"
    :fact="`${motif?.name.toLowerCase() ?? first.motif}, ${repeats} whole`"
  >
    <template #verbs>
      <button class="verb" data-testid="edging-off" @click="off">Take off</button>
    </template>
    <div class="pair">
      <Field label="Motif" wide>
        <Select
          :value="first.motif"
          :bordered="false"
          size="small"
          :list-height="300"
          :virtual="false"
          data-testid="edging-motif"
          @change="(v) => set({ motif: String(v) })"
        >
          <SelectOption v-for="m in catalogue.offered(catalogue.all.edgings, first.motif)" :key="m.id" :value="m.id">{{
            m.name
          }}</SelectOption>
        </Select>
      </Field>
      <MeasureField
        label="Deep"
        :mm="first.depth"
        testid="edging-depth"
        @set="set({ depth: $event })"
        @wrong="wrong = $event"
      />
      <NumberField
        label="Repeats"
        :value="repeats"
        :digits="0"
        testid="edging-count"
        @set="set({ count: Math.round($event), length: 0 })"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="Each long"
        :mm="first.length || first.depth * (motif?.ratio ?? 1)"
        testid="edging-length"
        @set="set({ length: $event, count: 0 })"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="Band"
        :mm="first.open ?? 0"
        testid="edging-open"
        title="How much is left inside; 0 leaves all"
        @set="set({ open: $event })"
        @wrong="wrong = $event"
      />
      <Field label="Along">
        <Select
          :value="first.side ?? ''"
          :bordered="false"
          size="small"
          data-testid="edging-side"
          @change="(v) => set({ side: v as Edging['side'] })"
        >
          <SelectOption v-for="(name, k) in sides" :key="k" :value="k">{{ name }}</SelectOption>
        </Select>
      </Field>
      <label class="tick">
        <Switch
          size="small"
          :checked="!!first.inward"
          data-testid="edging-inward"
          @change="(on) => set({ inward: on === true })"
        />
        Cut in
      </label>
      <Segmented
        class="wide"
        block
        :value="first.corner ?? ''"
        :options="Object.entries(corners).map(([value, label]) => ({ value, label }))"
        aria-label="At corners"
        data-testid="edging-corner"
        @change="(v) => set({ corner: v as Edging['corner'] })"
      />
      <button
        v-if="first.motif === 'deckle'"
        class="verb wide again"
        data-testid="edging-again"
        @click="set({ seed: (first.seed ?? 0) + 1 })"
      >
        Tear it otherwise
      </button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.tick {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 12.5px;
}
.again {
  justify-self: start;
}
p {
  margin: 6px 0 0;
}
</style>
