<script setup lang="ts">
// The paper that sheets are laid on: size, margin, room between pieces.
import { Checkbox, Segmented, Select, SelectOption } from 'ant-design-vue'
import { ref } from 'vue'
import type { Paper } from '../../api/client'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'

const catalogue = useCatalogue()
const prefs = usePrefs()
const wrong = ref('')

const change = (part: Partial<Paper>) => (prefs.paper = { ...prefs.paper, ...part })

/** Takes a length within limits that the laying of sheets holds to as well. */
function set(what: 'margin' | 'between', mm: number, least: number) {
  if (mm < least || mm > 50) {
    wrong.value =
      what === 'margin'
        ? 'A margin is between 0 and 50 mm (2 in).'
        : 'Pieces lie between 3 mm (⅛ in) and 50 mm (2 in) apart.'
    return
  }
  wrong.value = ''
  prefs.paper = { ...prefs.paper, [what]: mm }
}
</script>

<template>
  <section class="sec">
    <h3>All sheets</h3>
    <div class="pair">
      <Field label="Size" wide>
        <Select
          :value="prefs.paper.size"
          :bordered="false"
          size="small"
          data-testid="paper"
          @change="(v) => (prefs.paper = { ...prefs.paper, size: String(v) })"
        >
          <SelectOption v-for="s in catalogue.all.sizes" :key="s.id" :value="s.id"
            >{{ s.name }}, {{ prefs.size(s.width, s.height) }}</SelectOption
          >
        </Select>
      </Field>
      <MeasureField
        label="Margin"
        :mm="prefs.paper.borderless ? 0 : prefs.paper.margin"
        :disabled="prefs.paper.borderless"
        testid="margin"
        @set="set('margin', $event, 0)"
        @wrong="$event && (wrong = $event)"
      />
      <MeasureField
        label="Between"
        :mm="prefs.paper.between"
        testid="between"
        @set="set('between', $event, 3)"
        @wrong="$event && (wrong = $event)"
      />
      <Segmented
        class="lie"
        block
        :value="prefs.paper.lie ?? 'portrait'"
        :options="[
          { value: 'portrait', label: 'Portrait' },
          { value: 'landscape', label: 'Landscape' },
        ]"
        data-testid="lie"
        @change="(v) => (prefs.paper = { ...prefs.paper, lie: v as Paper['lie'] })"
      />
      <Segmented
        class="lie"
        block
        :value="prefs.paper.turning ?? 'quarters'"
        :options="[
          { value: 'upright', label: 'Upright', title: 'Pieces lie as they stand on the card' },
          { value: 'quarters', label: 'Quarters', title: 'Pieces are turned by quarter turns' },
          { value: 'freely', label: 'Freely', title: 'Pieces are turned as they lie closest' },
        ]"
        data-testid="turning"
        @change="(v) => change({ turning: v as Paper['turning'] })"
      />
      <Field label="Marks" wide>
        <Select
          :value="prefs.paper.marks ?? 'machine'"
          :bordered="false"
          size="small"
          data-testid="marking"
          @change="(v) => change({ marks: v as Paper['marks'] })"
        >
          <SelectOption value="machine">For the machine to find</SelectOption>
          <SelectOption value="hand">Crop marks, to trim by hand</SelectOption>
          <SelectOption value="none">None</SelectOption>
        </Select>
      </Field>
    </div>
    <div class="ticks">
      <Checkbox
        :checked="prefs.paper.borderless ?? false"
        title="Only where your printer prints to the edge of the paper"
        data-testid="borderless"
        @change="change({ borderless: !prefs.paper.borderless })"
        >Borderless</Checkbox
      >
      <Checkbox
        :checked="prefs.paper.share ?? false"
        title="Pieces with straight edges lie side by side without room between them; where two meet, one cut is enough"
        data-testid="share"
        @change="change({ share: !prefs.paper.share })"
        >Cut shared edges once</Checkbox
      >
    </div>
    <p v-if="wrong" class="wrong" role="alert" data-testid="paper-wrong">{{ wrong }}</p>
  </section>
</template>

<style scoped>
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
