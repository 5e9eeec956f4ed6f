<script setup lang="ts" generic="T extends string">
// What a brush says or paints: one of two.
defineProps<{ of: { id: T; name: string; stays: boolean }[]; chosen: string; label: string }>()
defineEmits<{ choose: [id: T] }>()
</script>

<template>
  <div class="two" role="radiogroup" :aria-label="label">
    <button
      v-for="b in of"
      :key="b.id"
      role="radio"
      :aria-checked="chosen === b.id"
      :class="{ stays: b.stays }"
      :data-testid="'brush-' + b.id"
      @click="$emit('choose', b.id)"
    >
      <i />{{ b.name }}
    </button>
  </div>
</template>

<style scoped>
.two {
  display: flex;
  gap: 8px;
}
button {
  flex: 1;
  display: flex;
  align-items: center;
  gap: 7px;
  height: 30px;
  padding: 0 10px;
  border: 1px solid var(--paper3);
  border-radius: 6px;
  background: none;
  font-size: 12.5px;
  cursor: pointer;
}
i {
  width: 10px;
  height: 10px;
  border: 1.5px solid currentColor;
  border-radius: 5px;
}
[aria-checked='true'] {
  border-color: var(--ink7);
  color: var(--ink9);
}
[aria-checked='true'].stays {
  border-color: var(--moss);
  color: var(--moss);
}
[aria-checked='true'] i {
  background: currentColor;
}
</style>
