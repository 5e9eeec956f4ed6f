<script setup lang="ts">
// Leaving a finding as it is, and why.
import { Button, Popover } from 'ant-design-vue'
import { ref } from 'vue'
import { usePopover } from '../../parts/usePopover'

const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ leave: [why: string] }>()
const why = ref('')
usePopover(open, '[data-testid=leave-form]')
function leave() {
  const reason = why.value.trim() || 'As it is meant'
  open.value = false
  why.value = ''
  emit('leave', reason)
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottom" destroy-tooltip-on-hide>
    <button class="verb" title="l" data-testid="leave-so">Leave it so</button>
    <template #content>
      <form class="why" data-testid="leave-form" @submit.prevent="leave">
        <label for="leave-why">Why it may stay as it is</label>
        <input id="leave-why" v-model="why" maxlength="200" placeholder="As it is meant" data-testid="leave-why" />
        <Button type="primary" html-type="submit" block data-testid="leave-do">Leave it so</Button>
      </form>
    </template>
  </Popover>
</template>

<style scoped>
.why {
  width: 270px;
  display: grid;
  gap: 8px;
}
.why input {
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  padding: 6px 8px;
  font: inherit;
}
</style>
