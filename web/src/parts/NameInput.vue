<script setup lang="ts">
// A name that is changed in its place: Enter or leaving it keeps it, Esc does not.
const props = defineProps<{ value: string; label: string }>()
const emit = defineEmits<{ done: [name: string | undefined] }>()

let left = false
function done(e: Event, kept: boolean) {
  if (left) return
  left = true
  const name = (e.target as HTMLInputElement).value.trim()
  emit('done', kept && name && name !== props.value ? name : undefined)
}
const begin = (v: { el: HTMLInputElement | null }) => {
  v.el?.focus()
  v.el?.select()
}
</script>

<template>
  <input
    :value="value"
    maxlength="120"
    :aria-label="label"
    @vue:mounted="begin"
    @blur="done($event, true)"
    @keydown.enter.stop="done($event, true)"
    @keydown.esc.stop="done($event, false)"
    @keydown.stop
    @pointerdown.stop
  />
</template>
