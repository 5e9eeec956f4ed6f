<script setup lang="ts">
// What the pointer does, at the lower edge of the work surface.
import { useTool, type Tool } from '../store/tool'
import GuideMenu from './GuideMenu.vue'

const tool = useTool()
const tools: { id: Tool; name: string; title: string }[] = [
  { id: 'choose', name: 'Choose', title: 'Choose and move (Esc)' },
  { id: 'ruler', name: 'Ruler', title: 'Measure between two places (R)' },
  { id: 'draw', name: 'Draw', title: 'Draw by hand (D)' },
  { id: 'rub', name: 'Rub out', title: 'Rub out what was drawn by hand (U)' },
  { id: 'gap', name: 'Gap', title: 'Measure what fits in an opening (G)' },
]
</script>

<template>
  <div class="tools" role="toolbar" aria-label="Pointer" @pointerdown.stop @dblclick.stop>
    <button
      v-for="t in tools"
      :key="t.id"
      :aria-pressed="tool.tool === t.id"
      :title="t.title"
      :data-testid="'tool-' + t.id"
      @click="tool.take(t.id)"
    >
      {{ t.name }}
    </button>
    <GuideMenu />
  </div>
</template>

<style scoped>
.tools {
  position: absolute;
  left: 34px;
  bottom: 14px;
  display: flex;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: var(--paper0);
  overflow: hidden;
}
.tools :deep(button) {
  border: 0;
  background: none;
  height: 26px;
  padding: 0 10px;
  font: 550 12px 'Figtree Variable';
  color: var(--ink7);
  cursor: pointer;
}
.tools :deep(button:hover) {
  background: var(--paper1);
}
.tools :deep(button[aria-pressed='true']) {
  background: var(--paper2);
  color: var(--ink9);
}
</style>
