<script setup lang="ts">
// The verbs of a thing where it is: by a right click on it, or a long press.
import { Dropdown, Menu, MenuDivider, MenuItem } from 'ant-design-vue'
import { computed } from 'vue'
import { useCard } from '../../store/card'

const props = defineProps<{ itemUnder: (p: { x: number; y: number }) => string | undefined }>()
const emit = defineEmits<{ act: [verb: string] }>()
const card = useCard()

const locked = computed(() => card.selected.length > 0 && card.selected.every((it) => it.locked))
/** Letters that are typed on words go into them, and are no commands. */
const writes = computed(() => card.selected.some((it) => it.kind === 'lettering'))
const one = computed(() => (card.selected.length === 1 ? card.selected[0] : undefined))

/** What is under the pointer is chosen, unless it is among what is chosen already. */
function aim(e: MouseEvent) {
  const id = props.itemUnder({ x: e.clientX, y: e.clientY })
  if (!id) card.select([])
  else if (!card.selection.includes(id)) card.select(card.unit(id))
}
const verbs = computed(() => {
  if (!card.selected.length)
    return [[{ id: 'paste', name: 'Paste', key: 'Ctrl V' }], [{ id: 'all', name: 'Choose all', key: 'Ctrl A' }]]
  return [
    [
      ...(one.value?.kind === 'photo' && !card.doc(one.value.id)?.background
        ? [{ id: 'ground', name: 'Make it the background', key: '' }]
        : []),
      ...(one.value?.kind === 'lettering' ? [{ id: 'edit', name: 'Edit words', key: 'Enter' }] : []),
      { id: 'copy', name: 'Copy', key: 'Ctrl C' },
      { id: 'duplicate', name: 'Duplicate', key: 'Ctrl D' },
      { id: 'keep', name: 'Keep in the tray', key: '' },
      ...(card.selected.length > 1
        ? [{ id: 'group', name: card.group ? 'Ungroup' : 'Group', key: card.group ? 'Ctrl Shift G' : 'Ctrl G' }]
        : []),
    ],
    [
      ...(one.value
        ? [
            { id: 'up', name: 'Step up', key: ']' },
            { id: 'down', name: 'Step down', key: '[' },
          ]
        : []),
      { id: 'lock', name: locked.value ? 'Unlock' : 'Lock', key: writes.value ? '' : 'L' },
      { id: 'hide', name: 'Hide', key: writes.value ? '' : 'H' },
    ],
    [{ id: 'remove', name: 'Remove', key: 'Delete' }],
  ]
})
</script>

<template>
  <Dropdown :trigger="['contextmenu']" overlay-class-name="item-menu">
    <div class="under" @contextmenu.capture="aim"><slot /></div>
    <template #overlay>
      <Menu data-testid="item-menu" @click="emit('act', String($event.key))">
        <template v-for="(part, i) in verbs" :key="i">
          <MenuDivider v-if="i" />
          <MenuItem v-for="v in part" :key="v.id" :data-testid="'menu-' + v.id">
            <span class="verb-row"
              >{{ v.name }}<em>{{ v.key }}</em></span
            >
          </MenuItem>
        </template>
      </Menu>
    </template>
  </Dropdown>
</template>

<style scoped>
.under {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.verb-row {
  display: flex;
  justify-content: space-between;
  gap: 26px;
  min-width: 150px;
}
em {
  font-style: normal;
  font-size: 11.5px;
  color: var(--ink5);
}
</style>
