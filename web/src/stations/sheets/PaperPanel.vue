<script setup lang="ts">
// The paper that sheets are laid on: size, margin, room between pieces.
import { Checkbox, Segmented, Select, SelectOption } from 'ant-design-vue'
import { ref } from 'vue'
import type { SheetSetup } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useCard } from '../../store/card'
import { useSheets } from '../../store/sheets'

const catalogue = useCatalogue()
const prefs = usePrefs()
const card = useCard()
const sheets = useSheets()
const wrong = ref('')

const change = (part: Partial<SheetSetup>) => void sheets.setUp(part)

/** Takes a length; what is no margin is refused by the program, in a sentence. */
async function set(what: 'margin' | 'between', mm: number) {
  const next = { ...sheets.setup, [what]: mm }
  wrong.value = (await card.attempt({ do: 'setSheets', sheets: next })).wrong ?? ''
  if (!wrong.value) change({ [what]: mm })
}
</script>

<template>
  <section class="sec">
    <h3>All sheets</h3>
    <div class="pair">
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
        </Select>
      </Field>
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
