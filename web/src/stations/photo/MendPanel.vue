<script setup lang="ts">
// Red eyes: each is clicked.
import { useEdits } from '../../store/edits'
import EditSlider from './EditSlider.vue'

defineProps<{ size: number }>()
defineEmits<{ size: [share: number] }>()
const edits = useEdits()
</script>

<template>
  <section class="sec">
    <h3>Red eyes</h3>
    <p>Click on each red pupil. The disc is as large as the eye.</p>
    <EditSlider
      label="Disc"
      :min="0.5"
      :max="15"
      :step="0.1"
      :digits="1"
      sign=" %"
      :value="size * 100"
      testid="eye-size"
      @slide="$emit('size', $event / 100)"
      @set="$emit('size', Math.max($event, 0.5) / 100)"
    />
    <small>{{ edits.edits.reduce((n, e) => n + (e.eyes?.length ?? 0), 0) || 'No' }} eyes mended</small>
  </section>
</template>

<style scoped>
p {
  margin: 2px 0 8px;
  color: var(--ink5);
  font-size: 12px;
}
</style>
