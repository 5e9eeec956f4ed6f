<script setup lang="ts">
// All forms that the font has for a letter, to choose one from.
import { ref, watch } from 'vue'
import { api } from '../../api/client'

const props = defineProps<{ font: string; letter: string; chosen: number }>()
defineEmits<{ choose: [form: number] }>()

const forms = ref<string[]>([])
watch(
  () => [props.font, props.letter],
  async ([font, letter]) => {
    const found = font && letter?.trim() ? await api.letterForms(font, letter).catch(() => []) : []
    if (font === props.font && letter === props.letter) forms.value = found
  },
  { immediate: true },
)
</script>

<template>
  <div v-if="forms.length > 1" class="forms" role="radiogroup" :aria-label="'Forms of ' + letter">
    <button
      v-for="(d, i) in forms"
      :key="i"
      role="radio"
      :aria-checked="i === chosen"
      :aria-label="i ? `Other form ${i}` : 'The usual form'"
      :data-testid="'form-' + i"
      @click="$emit('choose', i)"
    >
      <svg viewBox="-4 -11 18 16"><path :d="d" /></svg>
    </button>
  </div>
</template>

<style scoped>
.forms {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  grid-column: 1 / 3;
}
button {
  width: 40px;
  height: 38px;
  padding: 0;
  border: 1px solid var(--paper3);
  border-radius: 6px;
  background: var(--paper0);
  cursor: pointer;
}
button[aria-checked='true'] {
  border-color: var(--ink9);
  background: var(--brick-soft);
}
svg {
  display: block;
  width: 100%;
  height: 100%;
}
path {
  fill: var(--ink9);
}
</style>
