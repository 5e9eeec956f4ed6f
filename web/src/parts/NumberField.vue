<script setup lang="ts">
// A plain number with its sign behind it, such as a turn in degrees.
import { computed } from 'vue'
import TypedField from './TypedField.vue'

const props = defineProps<{
  label: string
  value: number
  sign?: string
  digits?: number
  testid?: string
  wide?: boolean
}>()
const emit = defineEmits<{ set: [value: number]; wrong: [why: string] }>()

const shown = computed(() => `${+props.value.toFixed(props.digits ?? 1)}${props.sign ?? ''}`)

function read(text: string) {
  const v = Number(
    text
      .replace((props.sign ?? '').trim(), '')
      .replace(',', '.')
      .trim(),
  )
  if (text.trim() === '' || !Number.isFinite(v))
    throw new Error(`“${text}” is no number. Write one such as ${shown.value}.`)
  emit('set', v)
}
</script>

<template>
  <TypedField
    :label="label"
    :shown="shown"
    :read="read"
    :wide="wide"
    :testid="testid"
    @wrong="$emit('wrong', $event)"
  />
</template>
