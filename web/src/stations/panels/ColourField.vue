<script setup lang="ts">
// One colour: chosen, or picked from the face.
import Field from '../../parts/Field.vue'
import { useTool } from '../../store/tool'

defineProps<{ label: string; value: string; testid: string; wide?: boolean }>()
const emit = defineEmits<{ set: [colour: string] }>()
const tool = useTool()
const chosen = (e: Event) => emit('set', (e.target as HTMLInputElement).value)
</script>

<template>
  <Field :label="label" :wide="wide">
    <input type="color" :value="value" :aria-label="label" :data-testid="testid" @change="chosen" />
    <button
      type="button"
      class="pick"
      title="Pick it from the face"
      :aria-label="'Pick ' + label.toLowerCase() + ' from the face'"
      :data-testid="testid + '-pick'"
      @click.prevent="tool.pick((c) => emit('set', c))"
    >
      pick
    </button>
  </Field>
</template>

<style scoped>
input {
  flex: none;
  width: 30px;
  height: 22px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background: none;
  cursor: pointer;
}
.pick {
  margin: 0 4px;
  padding: 2px 5px;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink7);
  font-size: 11.5px;
  cursor: pointer;
}
.pick:hover {
  background: var(--paper1);
}
</style>
