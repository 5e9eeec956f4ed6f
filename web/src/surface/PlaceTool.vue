<script setup lang="ts">
// Places what was taken from the tray wherever the face is clicked, as often as wanted.
import { ref } from 'vue'
import SupplyPicture from '../tray/SupplyPicture.vue'
import { useTool } from '../store/tool'
import type { Overlay } from './overlay'

const props = defineProps<Overlay>()
const tool = useTool()
/** Where the pointer is, in pixels of the surface. */
const at = ref<{ x: number; y: number }>()

function down(e: PointerEvent) {
  if (e.button === 0) tool.placed(props.toFace(props.local(e)))
}
const middle = () => tool.placed({ x: props.face.width / 2, y: props.face.height / 2 })
</script>

<template>
  <div
    class="tool"
    tabindex="0"
    data-testid="place"
    @pointerdown.stop="down"
    @pointermove="at = local($event)"
    @pointerleave="at = undefined"
    @dblclick.stop
    @keydown.enter.self="middle"
  >
    <div v-if="at && tool.supply" class="ghost" :style="{ left: at.x + 'px', top: at.y + 'px' }">
      <SupplyPicture :supply="tool.supply" dragged />
    </div>
    <div class="says">A click places {{ tool.supply?.name }}, and the next another. Esc when done.</div>
  </div>
</template>

<style scoped>
.tool {
  position: absolute;
  inset: 0;
  overflow: hidden;
  cursor: copy;
  outline: none;
}
.ghost {
  position: absolute;
  width: 60px;
  opacity: 0.75;
  transform: translate(-50%, -50%);
  pointer-events: none;
}
.says {
  position: absolute;
  left: 50%;
  top: 32px;
  transform: translateX(-50%);
  max-width: calc(100% - 60px);
  padding: 6px 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: var(--paper0);
  white-space: nowrap;
  pointer-events: none;
}
</style>
