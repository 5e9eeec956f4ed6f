<script setup lang="ts">
// A length: fractions, decimals, millimetres, sums. Go reads what is typed.
import { computed } from 'vue'
import { api } from '../api/client'
import { usePrefs } from '../store/prefs'
import TypedField from './TypedField.vue'

defineProps<{ label: string; mm: number | undefined; wide?: boolean; disabled?: boolean; testid?: string }>()
const emit = defineEmits<{ set: [mm: number]; wrong: [why: string] }>()

const prefs = usePrefs()
async function read(text: string) {
  const mm = await api.measure(text, prefs.unit)
  prefs.measured(mm)
  emit('set', mm)
}
/** Each as it reads, once. */
const recent = computed(() => [...new Set(prefs.recent.map(prefs.lenUnit))])
</script>

<template>
  <TypedField
    :label="label"
    :shown="mm === undefined ? '' : prefs.lenUnit(mm)"
    :read="read"
    :recent="recent"
    :wide="wide"
    :disabled="disabled || mm === undefined"
    :testid="testid"
    @wrong="$emit('wrong', $event)"
  />
</template>
