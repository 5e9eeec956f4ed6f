<script setup lang="ts">
import { Tooltip } from 'ant-design-vue'

defineProps<{ percent: number }>()
defineEmits<{ by: [factor: number]; fit: [] }>()
</script>

<template>
  <div class="zoom" @pointerdown.stop @dblclick.stop>
    <button aria-label="Smaller" @click="$emit('by', 1 / 1.25)">–</button>
    <Tooltip title="Fit the face (0)">
      <button class="now" data-testid="zoom" @click="$emit('fit')">{{ percent }} % of real</button>
    </Tooltip>
    <button aria-label="Larger" @click="$emit('by', 1.25)">+</button>
  </div>
</template>

<style scoped>
.zoom {
  position: absolute;
  right: 16px;
  bottom: 14px;
  display: flex;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: var(--paper0);
  overflow: hidden;
}
button {
  border: 0;
  background: none;
  height: 26px;
  padding: 0 10px;
  font: 550 12px 'Figtree Variable';
  color: var(--ink9);
  cursor: pointer;
}
button:hover {
  background: var(--paper1);
}
.now {
  min-width: 92px;
}
</style>
