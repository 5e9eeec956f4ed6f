<script setup lang="ts">
// A share in per cent, slid or typed; it is set when it is let go.
import { ref, watch } from 'vue'

const props = withDefaults(
  defineProps<{ label: string; value: number; testid?: string; min?: number; max?: number; sign?: string }>(),
  { testid: undefined, min: 0, max: 100, sign: ' %' },
)
const emit = defineEmits<{ set: [value: number]; slide: [value: number] }>()
const now = ref(props.value)
watch(
  () => props.value,
  (v) => (now.value = v),
)
const slid = (e: Event) => {
  now.value = Number((e.target as HTMLInputElement).value)
  emit('slide', now.value)
}
</script>

<template>
  <label class="share">
    <span>{{ label }}</span>
    <input
      type="range"
      :min="min"
      :max="max"
      :value="now"
      :data-testid="testid"
      @input="slid"
      @change="emit('set', now)"
      @keydown.stop
    />
    <em>{{ Math.round(now) }}{{ sign }}</em>
  </label>
</template>

<style scoped>
.share {
  grid-column: 1 / 3;
  display: flex;
  align-items: center;
  gap: 8px;
  height: 26px;
}
span {
  flex: none;
  width: 66px;
  color: var(--ink5);
  font-size: 11.5px;
}
input {
  flex: 1;
  min-width: 0;
  accent-color: var(--brick);
}
em {
  flex: none;
  width: 42px;
  font-style: normal;
  font-weight: 550;
  text-align: right;
}
</style>
