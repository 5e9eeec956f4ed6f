<script setup lang="ts">
import { Select, SelectOption } from 'ant-design-vue'
import { computed, type FunctionalComponent, type VNode } from 'vue'
import { useCatalogue } from '../store/catalogue'
import { useStocks } from '../store/stocks'
import Field from './Field.vue'

const props = withDefaults(defineProps<{ value: string | undefined; label?: string; testid?: string }>(), {
  label: 'Stock',
  testid: undefined,
})
defineEmits<{ set: [stock: string] }>()
const catalogue = useCatalogue()
const stocks = useStocks()
/** What is chosen is seen, though it may not be offered any more. */
const list = computed(() => catalogue.all.stocks.filter((s) => !s.hidden || s.id === props.value))
const Menu: FunctionalComponent<{ of: VNode }> = ({ of }) => of
</script>

<template>
  <Field :label="label" wide>
    <Select
      :value="value"
      :bordered="false"
      size="small"
      :list-height="300"
      :virtual="false"
      :data-testid="testid"
      @change="(v) => $emit('set', String(v))"
    >
      <SelectOption v-for="s in list" :key="s.id" :value="s.id">
        <span class="line"><i :style="{ background: s.colour }" />{{ s.name }}</span>
      </SelectOption>
      <template #dropdownRender="{ menuNode }">
        <Menu :of="menuNode" />
        <button class="verb all" data-testid="stocks-open" @mousedown.prevent @click="stocks.open(value)">
          Stocks on the shelf …
        </button>
      </template>
    </Select>
  </Field>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 7px;
}
.all {
  width: 100%;
  margin-top: 4px;
  padding: 7px 12px;
  border-top: 1px solid var(--paper3);
  border-radius: 0;
  text-align: left;
}
i {
  width: 16px;
  height: 16px;
  border-radius: 8px;
  box-shadow: inset 0 0 0 1px #0002;
  flex: none;
}
</style>
