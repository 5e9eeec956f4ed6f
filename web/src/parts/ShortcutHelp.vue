<script setup lang="ts">
import { Modal } from 'ant-design-vue'

const open = defineModel<boolean>('open', { required: true })

const groups: { name: string; keys: [string, string][] }[] = [
  {
    name: 'Everywhere',
    keys: [
      ['1 – 4', 'Base, Panels, Sheets, Machine'],
      ['Ctrl Z', 'Undo'],
      ['Ctrl Shift Z', 'Redo'],
      ['?', 'This list'],
    ],
  },
  {
    name: 'On points',
    keys: [
      ['Tab', 'Next point'],
      ['Arrows', 'Nudge what is chosen'],
      ['Shift click', 'Choose one more'],
      ['+', 'One more point after it'],
      ['S', 'Smooth, or a corner'],
      ['Delete', 'Remove'],
      ['Alt while dragging', 'One handle alone'],
      ['Enter, Esc', 'Done'],
    ],
  },
  {
    name: 'On a photo by itself',
    keys: [
      ['V held', 'As it came'],
      ['Shift click', 'A straight part of a line'],
      ['Enter', 'Close the line'],
      ['Backspace', 'Take its last click back'],
      ['Arrows', 'Move a corner'],
      ['Esc', 'Done'],
    ],
  },
  {
    name: 'On bridges',
    keys: [
      ['Arrows', 'Along the edge by 0.5 mm, with Shift by 0.1'],
      ['Delete', 'Take it away'],
    ],
  },
  {
    name: 'On a face',
    keys: [
      ['Arrows', 'Nudge by 1/16 in or 1 mm'],
      ['Alt arrows', 'by 1/64 in or 0.1 mm'],
      ['Shift arrows', 'by 1/2 in or 10 mm'],
      ['Delete', 'Remove'],
      ['Ctrl D', 'Duplicate'],
      ['Ctrl C, X, V', 'Copy, cut, paste'],
      ['Ctrl A', 'Choose all'],
      ['Tab', 'Next thing on the face'],
      ['Ctrl G', 'Group'],
      ['Ctrl Shift G', 'Ungroup'],
      ['L', 'Lock, unlock'],
      ['H', 'Hide; the stack shows it again'],
      ['Double click', 'Into the group, the words, the points of an outline'],
      ['[  ]', 'One step down, up in the stack'],
      ['Letters', 'On chosen words: replace them; else as below'],
      ['Right click', 'What can be done with a thing'],
      ['Enter', 'Edit words or points; place from the tray'],
      ['V', 'To what can be done with it, to its measures, and back'],
      ['Esc', 'Let go'],
    ],
  },
  {
    name: 'Looking',
    keys: [
      ['F', 'Next face'],
      ['0', 'Fit the face'],
      ['Wheel', 'Zoom about the pointer'],
      ['Space drag', 'Pan'],
      ['Shift while dragging', 'No snapping'],
      ['. held', 'Without handles and guides'],
      [', held', 'As it will print'],
      ['D', 'Draw by hand'],
      ['U', 'Rub out'],
      ['R', 'Ruler'],
      ['G', 'Gap: what fits in an opening'],
      ['/', 'Find in the tray'],
    ],
  },
]
</script>

<template>
  <Modal v-model:open="open" title="Keys" :footer="null" width="900px">
    <div class="groups" data-testid="keys">
      <section v-for="g in groups" :key="g.name">
        <h3>{{ g.name }}</h3>
        <dl>
          <template v-for="[k, what] in g.keys" :key="k">
            <dt>{{ k }}</dt>
            <dd>{{ what }}</dd>
          </template>
        </dl>
      </section>
    </div>
  </Modal>
</template>

<style scoped>
.groups {
  columns: 3;
  column-gap: 26px;
  padding: 6px 0;
}
section {
  margin-bottom: 16px;
  break-inside: avoid;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 5px 10px;
  margin: 8px 0 0;
}
dt {
  font-weight: 600;
  white-space: nowrap;
}
dd {
  margin: 0;
  color: var(--ink7);
}
</style>
