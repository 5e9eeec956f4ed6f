<script setup lang="ts">
// What there is of a stock: in which sizes, and which way it runs.
import { Checkbox, Select, SelectOption } from 'ant-design-vue'
import { computed, onMounted } from 'vue'
import type { SheetOnHand as OnHand, Stock } from '../../api/types'
import Field from '../../parts/Field.vue'
import { useCatalogue } from '../../store/catalogue'
import { useSheets } from '../../store/sheets'

const props = defineProps<{ stock: Stock }>()
const catalogue = useCatalogue()
const sheets = useSheets()
onMounted(sheets.loadOnHand)

const own = computed(() => sheets.ownOf(props.stock.id))
const usual = computed(() => catalogue.all.sizes.find((s) => s.id === sheets.setup.size)?.name ?? '')
const told = computed(
  () =>
    ({
      '': '',
      grainLong: 'Its pieces are laid with the main fold along the grain.',
      grainShort: 'Its pieces are laid with the main fold along the grain.',
      oneWayUp: 'Its pattern has a direction: its pieces stay upright.',
    })[own.value.direction ?? ''],
)

const counted = computed(() => (own.value.sizes.length ? own.value.sizes : [sheets.setup.size]))
const sizeName = (id: string) => catalogue.all.sizes.find((s) => s.id === id)?.name ?? id
/** Notes how many sheets there are of a size; nothing typed is not counted. */
function count(size: string, e: Event) {
  const text = (e.target as HTMLInputElement).value.trim()
  const counts = { ...own.value.counts }
  if (text === '') delete counts[size]
  else counts[size] = Math.max(0, Math.round(Number(text)) || 0)
  void change({ counts })
}

const change = (part: Partial<OnHand>) => sheets.keepOnHand({ ...own.value, ...part })
</script>

<template>
  <section class="sec" data-testid="on-hand">
    <h3>{{ stock.name }} on hand</h3>
    <div class="pair">
      <Field label="Sizes" wide class="sizes">
        <Select
          mode="multiple"
          :value="own.sizes"
          :bordered="false"
          size="small"
          :placeholder="`${usual}, as for all`"
          data-testid="on-hand-sizes"
          @change="(v) => change({ sizes: v as unknown as string[] })"
        >
          <SelectOption v-for="s in catalogue.all.sizes" :key="s.id" :value="s.id">{{ s.name }}</SelectOption>
        </Select>
      </Field>
      <Field v-for="id in counted" :key="id" :label="sizeName(id)" wide>
        <input
          class="count"
          inputmode="numeric"
          :value="own.counts?.[id] ?? ''"
          placeholder="not counted"
          :aria-label="'How many sheets there are of ' + sizeName(id)"
          :data-testid="'on-hand-count-' + id"
          @change="count(id, $event)"
        />
        <span v-if="own.counts?.[id] !== undefined" class="of">sheets</span>
      </Field>
      <Field label="Runs" wide>
        <Select
          :value="own.direction ?? ''"
          :bordered="false"
          size="small"
          data-testid="on-hand-direction"
          @change="(v) => change({ direction: v as OnHand['direction'] })"
        >
          <SelectOption value="">Any way</SelectOption>
          <SelectOption value="grainLong">Grain along the long side</SelectOption>
          <SelectOption value="grainShort">Grain along the short side</SelectOption>
          <SelectOption value="oneWayUp">Pattern, one way up</SelectOption>
        </Select>
      </Field>
    </div>
    <Checkbox
      class="tick"
      :checked="own.borderless ?? false"
      title="The printer reaches the edges of this stock"
      data-testid="on-hand-borderless"
      @change="change({ borderless: !own.borderless })"
      >Printed borderless</Checkbox
    >
    <p v-if="told" class="note" data-testid="on-hand-told">{{ told }}</p>
  </section>
</template>

<style scoped>
.sizes {
  height: auto;
  min-height: 30px;
}
.sizes :deep(.ant-select-selector) {
  padding-left: 3px;
}
.sizes :deep(.ant-select-selection-placeholder) {
  left: 7px;
}
.count {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
}
.of {
  padding-right: 9px;
  color: var(--ink5);
  font-size: 12px;
}
.tick {
  margin-top: 8px;
}
.note {
  margin: 6px 0 0;
  color: var(--ink5);
  font-size: 11.5px;
}
</style>
