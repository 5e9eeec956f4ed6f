<script setup lang="ts">
// How a picture is cut in tiers: how many, how far each steps in, about what, on foam, edged.
import { Select, SelectOption } from 'ant-design-vue'
import type { Tiers } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import ShareField from '../../parts/ShareField.vue'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'

defineProps<{ tiers: Tiers }>()
const emit = defineEmits<{ set: [part: Partial<Tiers>]; wrong: [why: string] }>()
const catalogue = useCatalogue()
const prefs = usePrefs()
const colour = (e: Event) => emit('set', { edgeColour: (e.target as HTMLInputElement).value })
</script>

<template>
  <div class="pair">
    <NumberField
      label="Pieces"
      :value="tiers.count"
      :digits="0"
      testid="tiers-count"
      @set="emit('set', { count: Math.round($event) })"
      @wrong="emit('wrong', $event)"
    />
    <MeasureField
      label="Step"
      :mm="tiers.step"
      testid="tiers-step"
      @set="emit('set', { step: $event })"
      @wrong="emit('wrong', $event)"
    />
    <ShareField
      label="From left"
      :value="Math.round(tiers.x * 100)"
      testid="tiers-x"
      @set="emit('set', { x: $event / 100 })"
    />
    <ShareField
      label="From top"
      :value="Math.round(tiers.y * 100)"
      testid="tiers-y"
      @set="emit('set', { y: $event / 100 })"
    />
    <Field label="Foam">
      <Select
        :value="tiers.foam"
        :bordered="false"
        size="small"
        data-testid="tiers-foam"
        @change="(v) => emit('set', { foam: Number(v) })"
      >
        <SelectOption v-for="f in catalogue.all.foam" :key="f" :value="f">{{
          f ? prefs.lenUnit(f) : 'none'
        }}</SelectOption>
      </Select>
    </Field>
    <MeasureField
      label="Edge"
      :mm="tiers.edge ?? 0"
      testid="tiers-edge"
      @set="emit('set', { edge: $event })"
      @wrong="emit('wrong', $event)"
    />
    <Field v-if="tiers.edge" label="Edge in" wide>
      <input
        type="color"
        :value="tiers.edgeColour"
        aria-label="The colour of the edges"
        data-testid="tiers-colour"
        @change="colour"
      />
    </Field>
  </div>
</template>

<style scoped>
input {
  width: 30px;
  height: 22px;
  padding: 0;
  border: 0;
  background: none;
}
</style>
