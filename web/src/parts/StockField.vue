<script setup lang="ts">
import { Select, SelectOption } from 'ant-design-vue'
import { useCatalogue } from '../store/catalogue'
import Field from './Field.vue'

withDefaults(defineProps<{ value: string | undefined; label?: string; testid?: string }>(), {
  label: 'Stock',
  testid: undefined,
})
defineEmits<{ set: [stock: string] }>()
const catalogue = useCatalogue()
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
      <SelectOption v-for="s in catalogue.all.stocks" :key="s.id" :value="s.id">
        <span class="line"><i :style="{ background: s.colour }" />{{ s.name }}</span>
      </SelectOption>
    </Select>
  </Field>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 7px;
}
i {
  width: 16px;
  height: 16px;
  border-radius: 8px;
  box-shadow: inset 0 0 0 1px #0002;
  flex: none;
}
</style>
