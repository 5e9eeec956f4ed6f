<script setup lang="ts">
// A length: fractions, decimals, millimetres, sums. Go reads what is typed.
import { api } from '../api/client'
import { usePrefs } from '../store/prefs'
import TypedField from './TypedField.vue'

defineProps<{ label: string; mm: number | undefined; wide?: boolean; disabled?: boolean; testid?: string }>()
const emit = defineEmits<{ set: [mm: number]; wrong: [why: string] }>()

const prefs = usePrefs()
const read = async (text: string) => emit('set', await api.measure(text, prefs.unit))
</script>

<template>
  <TypedField
    :label="label"
    :shown="mm === undefined ? '' : prefs.lenUnit(mm)"
    :read="read"
    :wide="wide"
    :disabled="disabled || mm === undefined"
    :testid="testid"
    @wrong="$emit('wrong', $event)"
  />
</template>
