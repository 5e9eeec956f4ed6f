<script setup lang="ts">
// A value that is typed into a field. It is read when it is left by Enter or
// by going elsewhere; what cannot be read is told and changes nothing.
import { ref, watch } from 'vue'
import Field from './Field.vue'
import { reading } from './reading'

const props = defineProps<{
  label: string
  /** What the value looks like while nobody types. */
  shown: string
  /** Takes what was typed; throws a sentence for what cannot be read. */
  read: (text: string) => void | Promise<void>
  wide?: boolean
  disabled?: boolean
  testid?: string
}>()
const emit = defineEmits<{ wrong: [why: string] }>()

const text = ref('')
const typing = ref(false)
const bad = ref(false)

watch(
  () => props.shown,
  (s) => {
    if (!typing.value) text.value = s
  },
  { immediate: true },
)

function settle(why: string) {
  bad.value = why !== ''
  emit('wrong', why)
  if (!why) text.value = props.shown
}

async function take() {
  try {
    await props.read(text.value)
    settle('')
  } catch (e) {
    settle(e instanceof Error ? e.message : String(e))
  }
}
async function accept() {
  if (!typing.value) return
  typing.value = false
  if (text.value === props.shown) return settle('')
  await reading(take())
}

function giveUp(e: KeyboardEvent) {
  // Only what was being typed is given up; the next Esc leaves the field.
  if (typing.value) e.stopPropagation()
  typing.value = false
  settle('')
}
</script>

<template>
  <Field :label="label" :bad="bad" :wide="wide">
    <input
      v-model="text"
      :disabled="disabled"
      :data-testid="testid"
      :aria-invalid="bad"
      :data-resting="typing ? undefined : ''"
      spellcheck="false"
      autocomplete="off"
      :style="{ '--chars': Math.max(text.length, 3) }"
      @focus="($event.target as HTMLInputElement).select()"
      @input="typing = true"
      @blur="accept"
      @keydown.enter="accept"
      @keydown.esc="giveUp"
    />
  </Field>
</template>

<style scoped>
input {
  /* The name gives way before the number does. */
  flex: 1 0 calc(var(--chars) * 0.46em + 2px);
  min-width: 0;
  width: 0;
  height: 100%;
  border: 0;
  outline: 0;
  background: none;
  padding: 0;
  font: 550 13px 'Figtree Variable';
  font-variant-numeric: tabular-nums;
  color: var(--ink9);
}
input:disabled {
  color: var(--ink7);
}
</style>
