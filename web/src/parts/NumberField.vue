<script setup lang="ts">
// A plain number with its sign behind it, such as a turn in degrees.
import { ref, watch } from 'vue'
import Field from './Field.vue'

const props = defineProps<{
  label: string
  value: number | undefined
  sign?: string
  digits?: number
  disabled?: boolean
  testid?: string
  wide?: boolean
}>()
const emit = defineEmits<{ set: [value: number]; wrong: [why: string] }>()

const text = ref('')
const typing = ref(false)
const bad = ref(false)
const shown = () => (props.value === undefined ? '' : `${+props.value.toFixed(props.digits ?? 1)}${props.sign ?? ''}`)
watch(
  () => props.value,
  () => {
    if (!typing.value) text.value = shown()
  },
  { immediate: true },
)

function accept() {
  if (!typing.value) return
  typing.value = false
  const v = Number(
    text.value
      .replace(props.sign ?? '', '')
      .replace(',', '.')
      .trim(),
  )
  bad.value = text.value.trim() === '' || !Number.isFinite(v)
  emit('wrong', bad.value ? `“${text.value}” is no number. Write one such as ${shown() || '45'}.` : '')
  if (!bad.value) {
    if (v !== props.value) emit('set', v)
    text.value = shown()
  }
}
</script>

<template>
  <Field :label="label" :bad="bad" :wide="wide">
    <input
      v-model="text"
      :disabled="disabled || value === undefined"
      :data-testid="testid"
      inputmode="decimal"
      spellcheck="false"
      autocomplete="off"
      @focus="($event.target as HTMLInputElement).select()"
      @input="typing = true"
      @blur="accept"
      @keydown.enter="accept"
    />
  </Field>
</template>

<style scoped>
input {
  flex: 1;
  min-width: 0;
  width: 0;
  height: 100%;
  border: 0;
  outline: 0;
  background: none;
  padding: 0 6px 0 2px;
  font: 550 13px 'Figtree Variable';
  font-variant-numeric: tabular-nums;
  color: var(--ink9);
}
</style>
