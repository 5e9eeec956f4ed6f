<script setup lang="ts">
// The stations as an accordion-folded strip of paper: every second panel
// slopes the other way.
import type { Station } from '../router'

defineProps<{ here: Station; list: { id: Station; name: string; fact: string }[] }>()
defineEmits<{ go: [station: Station] }>()

const up = 'M0 7 L98 0 L98 33 L0 40z'
const down = 'M0 0 L98 7 L98 40 L0 33z'
</script>

<template>
  <nav class="strip" aria-label="Stations">
    <button
      v-for="(s, i) in list"
      :key="s.id"
      class="panel"
      :class="{ on: s.id === here }"
      :aria-current="s.id === here ? 'page' : undefined"
      :data-testid="'station-' + s.id"
      @click="$emit('go', s.id)"
    >
      <svg width="98" height="40" viewBox="0 0 98 40" aria-hidden="true">
        <path
          :d="i % 2 ? down : up"
          :fill="s.id === here ? '#a8432a' : i % 2 ? '#ebe1d0' : '#f5efe4'"
          stroke="#fffdf9"
        />
      </svg>
      <i>{{ s.name }}</i>
      <em>{{ s.fact }}</em>
    </button>
  </nav>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  margin: 0 14px;
  flex: none;
}
.panel {
  position: relative;
  width: 98px;
  height: 40px;
  padding: 0;
  border: 0;
  background: none;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  color: var(--ink7);
  cursor: pointer;
}
.panel:hover path {
  filter: brightness(0.97);
}
svg {
  position: absolute;
  inset: 0;
}
i,
em {
  position: relative;
  font-style: normal;
  line-height: 15px;
}
i {
  font-weight: 600;
  font-size: 12.5px;
}
em {
  font-weight: 500;
  font-size: 10.5px;
  color: var(--ink5);
  max-width: 90px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.on i {
  color: #fff;
}
.on em {
  color: #f9e3d9;
}
</style>
