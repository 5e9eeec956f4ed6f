<script setup lang="ts">
// A section of the right column. It folds to its title and one fact; how it stands is
// remembered for each kind of thing that is selected.
import { computed } from 'vue'
import { useSections } from '../store/sections'

const props = defineProps<{
  id: string
  title: string
  fact?: string
  /** Open for now, however it was left. */ needed?: boolean
}>()
const sections = useSections()
const open = computed(() => props.needed || sections.open(props.id))
const toggle = () => sections.toggle(props.id)
</script>

<template>
  <section class="sec" :class="{ folded: !open }" :data-testid="id">
    <header>
      <h3>
        <button class="bare" :aria-expanded="open" :data-testid="'fold-' + id" @click="toggle">
          {{ title }}
        </button>
      </h3>
      <span v-show="open"><slot name="verbs" /></span>
      <span v-if="!open" class="fact">
        <slot name="fact">{{ fact }}</slot>
      </span>
    </header>
    <div v-show="open" class="body"><slot /></div>
  </section>
</template>

<style scoped>
header {
  position: relative;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  min-height: 24px;
}
h3 {
  flex: none;
  margin: 0;
}
h3 button {
  font: inherit;
  color: inherit;
  padding: 0;
  cursor: pointer;
}
/* The whole line of a folded section opens it. */
.folded h3 button::after {
  content: '';
  position: absolute;
  inset: -8px -16px;
}
.folded:hover {
  background: var(--paper1);
}
h3 button::before {
  content: '';
  display: inline-block;
  width: 5px;
  height: 5px;
  margin: 0 9px 2px 1px;
  border: solid var(--ink5);
  border-width: 0 1.4px 1.4px 0;
  transform: rotate(45deg);
}
.folded h3 button::before {
  transform: rotate(-45deg);
}
.fact {
  display: flex;
  align-items: center;
  gap: 5px;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--ink5);
  font-size: 12.5px;
  cursor: pointer;
}
.body {
  margin-top: 4px;
}
.folded {
  padding-block: 6px;
}
</style>
