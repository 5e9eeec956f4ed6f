<script setup lang="ts">
// What a supply looks like: in the tray, and under the pointer while dragged.
import { api } from '../api/client'
import type { Supply } from './supplies'

defineProps<{ supply: Supply; dragged?: boolean }>()
</script>

<template>
  <img
    v-if="supply.kind === 'photo'"
    :src="api.previewURL(supply.id, 256)"
    alt=""
    draggable="false"
    :class="{ dragged }"
  />
  <img
    v-else-if="supply.kind === 'sketch' || supply.kind === 'art'"
    :src="supply.kind === 'art' ? api.artURL(supply.id) : api.sketchURL(supply.id)"
    alt=""
    draggable="false"
    class="whole"
    :class="{ dragged }"
  />
  <i
    v-else-if="supply.kind === 'paper'"
    :style="{ backgroundImage: `url(/api/papers/${supply.id}.svg)` }"
    :class="{ dragged }"
  />
  <svg
    v-else-if="supply.kind === 'shape'"
    :width="dragged ? 90 : 60"
    :height="dragged ? 66 : 44"
    viewBox="0 0 60 44"
    :class="{ dragged }"
  >
    <path
      :d="supply.preview"
      fill="#fffdf9"
      fill-rule="evenodd"
      :stroke="dragged ? '#b9770e' : '#41505f'"
      stroke-width="1.2"
    />
  </svg>
  <svg v-else-if="supply.kind === 'edging'" width="74" height="44" viewBox="0 0 74 44" :class="{ dragged }">
    <path :d="supply.preview" :fill="supply.ink" fill-rule="evenodd" />
  </svg>
  <em v-else :style="{ fontFamily: `'lettering-${supply.id}'` }" :class="{ dragged }">{{
    dragged ? (supply.text ?? 'Your words') : (supply.text ?? supply.name)
  }}</em>
</template>

<style scoped>
img.whole {
  object-fit: contain;
}
img,
i {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: cover;
  background-size: 28px auto;
}
img.dragged,
i.dragged {
  width: 120px;
  height: 90px;
  box-shadow: 0 3px 10px #0004;
}
svg:not(.dragged) {
  margin-top: -10px;
}
em {
  font-style: normal;
  font-size: 22px;
  white-space: nowrap;
  color: var(--ink9);
}
em.dragged {
  font-size: 30px;
  color: var(--brick);
}
</style>
