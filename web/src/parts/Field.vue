<script setup lang="ts">
// A control with its label inside its frame, as all measures have.
defineProps<{ label: string; bad?: boolean; wide?: boolean }>()
</script>

<template>
  <label class="field" :class="{ bad, wide }" :title="label">
    <span>{{ label }}</span>
    <slot />
  </label>
</template>

<style scoped>
.field {
  display: flex;
  align-items: center;
  height: 30px;
  min-width: 0;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: #fff;
  overflow: hidden;
}
.field:focus-within {
  border-color: var(--blue);
  box-shadow: 0 0 0 1px var(--blue);
}
.field.bad {
  border-color: var(--stop);
  box-shadow: 0 0 0 1px var(--stop);
}
.field.wide {
  grid-column: 1 / 3;
}
span {
  flex: 0 1 auto;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  padding: 0 4px 0 7px;
  color: var(--ink5);
  font-size: 11px;
  white-space: nowrap;
}
.field :slotted(.ant-select) {
  flex: 1;
  min-width: 0;
}
</style>
