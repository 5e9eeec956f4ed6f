<script setup lang="ts">
// A window mat over photos and shapes: how far it covers their edges and reaches past them, and its bevel.
import { Button, Segmented, Select, SelectOption } from 'ant-design-vue'
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { AddWindow, Command } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import StockField from '../../parts/StockField.vue'
import { cornerNames } from '../../parts/names'
import { INCH } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useTrial } from './useTrial'

const props = defineProps<{ ids: string[]; open: boolean }>()
const emit = defineEmits<{ done: []; again: [] }>()
const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const wrong = ref('')
// Windows are offered as the last one was laid.
const asked = useStorage('sectilis.window', {
  overlap: INCH / 16,
  width: INCH / 2,
  below: 0,
  corner: 'square' as keyof typeof cornerNames,
  stock: 'moss-216',
  lift: 0,
  as: '' as NonNullable<AddWindow['as']>,
  bevel: INCH / 16,
  colour: '#fffdf9',
  second: 'white-216',
})
const corners = Object.entries(cornerNames).map(([value, label]) => ({ value, label }))
const command = computed<Command>(() => {
  const { overlap, width, below, corner, ...made } = asked.value
  return { do: 'addWindow', window: { of: props.ids, overlap, width, below, corner }, ...made }
})
const refused = useTrial(
  computed(() => props.open),
  () => (props.ids.length ? command.value : undefined),
)
async function lay() {
  const cmd = command.value
  emit('done')
  if (!(await card.selectMade(card.change(cmd)))) emit('again')
}
defineExpose({ lay })
</script>

<template>
  <div data-testid="window-form">
    <div class="pair">
      <MeasureField
        label="Covers"
        :mm="asked.overlap"
        testid="window-overlap"
        @set="asked.overlap = $event"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="Reaches past"
        :mm="asked.width"
        testid="window-width"
        @set="asked.width = $event"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="At the foot +"
        :mm="asked.below"
        testid="window-below"
        @set="asked.below = $event"
        @wrong="wrong = $event"
      />
      <Field label="Foam">
        <Select v-model:value="asked.lift" :bordered="false" size="small" data-testid="window-lift">
          <SelectOption v-for="f in catalogue.all.foam" :key="f" :value="f">{{
            f ? prefs.lenUnit(f) : 'none'
          }}</SelectOption>
        </Select>
      </Field>
      <StockField :value="asked.stock" testid="window-stock" @set="asked.stock = $event" />
    </div>
    <Segmented v-model:value="asked.corner" class="row" block :options="corners" data-testid="window-corner" />
    <Segmented
      v-model:value="asked.as"
      class="row"
      block
      :options="[
        { value: '', label: 'No bevel' },
        { value: 'printed', label: 'Printed' },
        { value: 'cut', label: 'Second mat' },
      ]"
      data-testid="window-bevel-as"
    />
    <div v-if="asked.as" class="pair">
      <MeasureField
        label="Bevel"
        :mm="asked.bevel"
        testid="window-bevel"
        @set="asked.bevel = $event"
        @wrong="wrong = $event"
      />
      <Field v-if="asked.as === 'printed'" label="In">
        <input v-model="asked.colour" type="color" aria-label="The colour of the bevel" data-testid="window-colour" />
      </Field>
      <StockField v-else label="Seen below" :value="asked.second" testid="window-second" @set="asked.second = $event" />
    </div>
    <p v-if="wrong || refused" class="wrong" role="alert">{{ prefs.said(wrong || refused) }}</p>
    <Button type="primary" block data-testid="lay-window" @click="lay">Lay it over</Button>
  </div>
</template>

<style scoped>
.row,
.pair {
  margin-bottom: 10px;
}
input {
  width: 30px;
  height: 22px;
  padding: 0;
  border: 0;
  background: none;
}
</style>
