<script setup lang="ts">
// The head of a column of the list, which is called otherwise or taken off; without a name it adds one.
import { Button, Popover } from 'ant-design-vue'
import { ref } from 'vue'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'

const props = defineProps<{ name: string; last?: boolean }>()
const card = useCard()
const open = ref(false)
const named = ref('')
usePopover(open, '[data-testid=column-form]', () => call(named.value))
function turn(is: boolean) {
  named.value = props.name
  open.value = is
}
async function call(name: string) {
  open.value = false
  if (name.trim() || props.name) await card.change({ do: 'nameColumn', column: props.name || undefined, name })
}
</script>

<template>
  <Popover
    :open="open"
    trigger="click"
    :placement="name ? 'bottomLeft' : 'bottomRight'"
    destroy-tooltip-on-hide
    @open-change="turn"
  >
    <button v-if="name" class="bare" :title="name" :data-testid="'column-' + name">{{ name }}</button>
    <button v-else class="bare" title="Another column" aria-label="Another column" data-testid="column-add">+</button>
    <template #content>
      <form class="form" data-testid="column-form" @submit.prevent="call(named.trim() || name)">
        <label for="column-name">Name of the column</label>
        <input id="column-name" v-model="named" maxlength="120" data-testid="column-name" />
        <Button type="primary" html-type="submit" block>{{ name ? 'Call it so' : 'Add it' }}</Button>
        <button v-if="name && !last" type="button" class="verb" data-testid="column-drop" @click="call('')">
          Take the column off
        </button>
      </form>
    </template>
  </Popover>
</template>

<style scoped>
.bare {
  display: block;
  max-width: 100%;
  padding: 4px 6px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bare:hover {
  color: var(--ink9);
  text-decoration: underline dotted;
}
.form {
  width: 220px;
  display: grid;
  gap: 8px;
}
.form input {
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  padding: 6px 8px;
  font: inherit;
}
</style>
