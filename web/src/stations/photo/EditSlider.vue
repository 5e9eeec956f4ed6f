<script setup lang="ts">
// One value of an edit, seen while it is slid and set when it is let go; a double click puts it
// back to nothing.
import { computed, ref, watch } from 'vue'

const props = withDefaults(
  defineProps<{
    label: string
    value: number
    testid: string
    min?: number
    max?: number
    step?: number
    digits?: number
    sign?: string
  }>(),
  { min: -100, max: 100, step: 1, digits: 0, sign: '' },
)
const emit = defineEmits<{ slide: [value: number]; set: [value: number] }>()
const now = ref(props.value)
watch(
  () => props.value,
  (v) => (now.value = v),
)
const told = computed(() => {
  const v = now.value.toFixed(props.digits)
  return (Number(v) > 0 && props.min < 0 ? '+' : '') + v.replace('-', '−') + props.sign
})
function slid(e: Event) {
  now.value = Number((e.target as HTMLInputElement).value)
  emit('slide', now.value)
}
</script>

<template>
  <label class="slider" :class="{ both: min < 0 }">
    <span>{{ label }}</span>
    <input
      type="range"
      :min="min"
      :max="max"
      :step="step"
      :value="now"
      :data-testid="testid"
      :title="'Double click: back to nothing'"
      @input="slid"
      @change="emit('set', now)"
      @dblclick="emit('set', 0)"
      @keydown.stop
    />
    <em>{{ told }}</em>
  </label>
</template>

<style scoped>
.slider {
  display: grid;
  grid-template-columns: 82px 1fr 40px;
  align-items: center;
  gap: 8px;
  height: 26px;
}
span {
  font-size: 12.5px;
  white-space: nowrap;
}
em {
  font-style: normal;
  font-size: 12.5px;
  text-align: right;
}
input {
  min-width: 0;
  height: 20px;
  margin: 0;
  appearance: none;
  background: linear-gradient(var(--paper3), var(--paper3)) center / 100% 4px no-repeat;
  cursor: pointer;
}
.both input {
  background:
    linear-gradient(var(--ink3), var(--ink3)) center / 1px 11px no-repeat,
    linear-gradient(var(--paper3), var(--paper3)) center / 100% 4px no-repeat;
}
input::-webkit-slider-thumb {
  appearance: none;
  width: 16px;
  height: 16px;
  border: 3px solid var(--brick);
  border-radius: 6px;
  background: var(--paper0);
}
input::-moz-range-thumb {
  width: 10px;
  height: 10px;
  border: 3px solid var(--brick);
  border-radius: 6px;
  background: var(--paper0);
}
</style>
