<script setup lang="ts">
// Picks the colour that is seen at a place: of a photo, a paper, anything.
import { ref } from 'vue'
import { api, Fault } from '../api/client'
import { useCard } from '../store/card'
import { useTool } from '../store/tool'
import type { Overlay } from './overlay'

const props = defineProps<Overlay>()
const card = useCard()
const tool = useTool()
const wrong = ref('')

async function down(e: PointerEvent) {
  if (e.button !== 0) return
  try {
    tool.pickedColour(await api.colourAt(card.id, props.face.id, props.toFace(props.local(e))))
  } catch (x) {
    wrong.value = x instanceof Fault ? x.message : String(x)
  }
}
</script>

<template>
  <div class="tool" data-testid="pick" @pointerdown.stop="down" @dblclick.stop>
    <div class="says">{{ wrong || 'Point at a colour on the face. Esc leaves it.' }}</div>
  </div>
</template>

<style scoped>
.tool {
  position: absolute;
  inset: 0;
  cursor: crosshair;
}
.says {
  position: absolute;
  left: 50%;
  top: 32px;
  transform: translateX(-50%);
  padding: 6px 12px;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: var(--paper0);
  white-space: nowrap;
}
</style>
