<script setup lang="ts">
// A length that is typed: fractions, decimals, millimetres, sums. What cannot
// be read is told and changes nothing.
import { ref, watch } from 'vue'
import { api, Fault } from '../api/client'
import { usePrefs } from '../store/prefs'
import Field from './Field.vue'

const props = defineProps<{
  label: string
  mm: number | undefined
  wide?: boolean
  disabled?: boolean
  testid?: string
}>()
const emit = defineEmits<{ set: [mm: number]; wrong: [why: string] }>()

const prefs = usePrefs()
const text = ref('')
const typing = ref(false)
const bad = ref(false)

const shown = () => (props.mm === undefined ? '' : prefs.lenUnit(props.mm))
watch(
  [() => props.mm, () => prefs.unit],
  () => {
    if (!typing.value) text.value = shown()
  },
  { immediate: true },
)

async function accept() {
  if (!typing.value) return
  typing.value = false
  if (text.value === shown()) return clear()
  try {
    const mm = await api.measure(text.value, prefs.unit)
    clear()
    emit('set', mm)
    text.value = shown()
  } catch (e) {
    bad.value = true
    emit('wrong', e instanceof Fault ? e.message : String(e))
  }
}

function clear() {
  bad.value = false
  emit('wrong', '')
}

function leave() {
  typing.value = false
  text.value = shown()
  clear()
}

function start(e: FocusEvent) {
  ;(e.target as HTMLInputElement).select()
}
</script>

<template>
  <Field :label="label" :bad="bad" :wide="wide">
    <input
      v-model="text"
      :disabled="disabled || mm === undefined"
      :data-testid="testid"
      :aria-invalid="bad"
      spellcheck="false"
      autocomplete="off"
      @focus="start"
      @input="typing = true"
      @change="accept"
      @blur="accept"
      @keydown.enter="accept"
      @keydown.esc.stop="leave"
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
  padding: 0 4px 0 0;
  font: 550 13px 'Figtree Variable';
  font-variant-numeric: tabular-nums;
  color: var(--ink9);
}
input:disabled {
  color: var(--ink7);
}
</style>
