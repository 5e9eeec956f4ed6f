<script setup lang="ts">
// What may go wrong at a cutter, to be tried out on the stand-in: nothing is lost by it.
import { Dropdown, Menu, MenuItem, MenuItemGroup } from 'ant-design-vue'
import { computed } from 'vue'
import type { Mishap } from '../../api/types'
import { useMachine } from '../../store/machine'

const machine = useMachine()

const none: Mishap = { off: false, noMat: false, smudged: [], missing: [], slip: 0, lost: 0, jam: 0 }
const list: { name: string; what: string; m: Mishap }[] = [
  { name: 'none', what: 'Nothing', m: none },
  { name: 'noMat', what: 'There is no cutting mat in it', m: { ...none, noMat: true } },
  { name: 'smudged', what: 'One mark of the next sheet is smudged', m: { ...none, smudged: [2] } },
  { name: 'missing', what: 'Two marks of the next sheet are missing', m: { ...none, missing: [2, 3] } },
  { name: 'slip', what: 'The sheet slips after some cutting', m: { ...none, slip: 100 } },
  { name: 'lost', what: 'The connection is lost while it cuts', m: { ...none, lost: 100 } },
  { name: 'jam', what: 'The tool jams while it cuts', m: { ...none, jam: 100 } },
  { name: 'off', what: 'It is switched off', m: { ...none, off: true } },
]
/** What the stand-in says is about to go wrong, or has. */
const chosen = computed(() => {
  const now = machine.cutter?.mishap
  const on = (v: Mishap[keyof Mishap]) => (Array.isArray(v) ? v.length > 0 : !!v)
  const same = (m: Mishap) => (Object.keys(none) as (keyof Mishap)[]).every((k) => on(m[k]) === on(now?.[k] ?? none[k]))
  // Of the marks it matters which.
  const marks = (m: Mishap) => m.missing.length === (now?.missing.length ?? 0)
  return list.find(({ m }) => same(m) && marks(m))?.name ?? ''
})
</script>

<template>
  <Dropdown :trigger="['click']" placement="topLeft">
    <button
      class="verb"
      :aria-pressed="!!chosen && chosen !== 'none'"
      title="Try out what happens when something goes wrong"
      data-testid="mishaps"
    >
      Mishaps
    </button>
    <template #overlay>
      <Menu :selected-keys="[chosen]" data-testid="mishap-menu">
        <MenuItemGroup title="What goes wrong">
          <MenuItem v-for="m in list" :key="m.name" :data-testid="'mishap-' + m.name" @click="machine.mishap(m.m)">
            {{ m.what }}
          </MenuItem>
        </MenuItemGroup>
      </Menu>
    </template>
  </Dropdown>
</template>
