<script setup lang="ts">
// What is printed inside: on the base itself, or on a leaf that is glued in.
import { Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import { INCH } from '../../parts/measure'
import StockField from '../../parts/StockField.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'

const card = useCard()
const catalogue = useCatalogue()
const wrong = ref('')
const can = computed(() => catalogue.all.bases.find((b) => b.id === card.view?.card.base.kind)?.insert)
const insert = computed(() => card.view?.card.insert)

function set(part: { stock?: string; less?: number } | undefined) {
  wrong.value = ''
  const was = insert.value ?? { stock: catalogue.all.first.paper, less: INCH / 8 }
  void card.change({ do: 'setInsert', ...(part ? { insert: { ...was, ...part } } : {}) })
}
</script>

<template>
  <div v-if="can" class="pair">
    <Field label="Inside" wide>
      <Select
        :value="insert ? 'insert' : 'base'"
        :bordered="false"
        size="small"
        data-testid="inside"
        @change="(v) => set(v === 'insert' ? {} : undefined)"
      >
        <SelectOption value="base">Printed on the base</SelectOption>
        <SelectOption value="insert">An insert, glued in</SelectOption>
      </Select>
    </Field>
    <template v-if="insert">
      <div class="wide"><StockField :value="insert.stock" testid="insert-stock" @set="set({ stock: $event })" /></div>
      <MeasureField
        label="Smaller by"
        wide
        :mm="insert.less"
        testid="insert-less"
        @set="set({ less: $event })"
        @wrong="wrong = $event"
      />
    </template>
    <p v-if="wrong" class="wrong wide" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.pair {
  margin-top: 10px;
}
.wide {
  grid-column: 1 / -1;
}
p {
  margin: 0;
}
</style>
