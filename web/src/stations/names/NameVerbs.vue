<script setup lang="ts">
// What is done to the card of the name that is chosen.
import { Button, Dropdown, Menu, MenuItem, Popover } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { useNames } from '../../store/names'

const card = useCard()
const names = useNames()
const row = computed(() => names.row)
const state = computed(() => (row.value ? names.stateOf(row.value.id) : undefined))
const tooLong = computed(() => state.value?.wrong.some((f) => f.check === 'overfull'))
const fitted = computed(() =>
  card.view?.card.faces.some((f) => f.items.some((it) => it.words?.fields && it.words.box?.fit)),
)
const lines = computed(() =>
  Math.max(
    ...(card.view?.card.faces.flatMap((f) =>
      f.items.map((it) => (it.words?.fields ? (it.words.box?.lines ?? 0) : 0)),
    ) ?? []),
    0,
  ),
)
const used = computed(() => {
  const columns = card.view?.card.faces.flatMap((f) =>
    f.items.flatMap((it) => it.words?.fields?.map((k) => k.column) ?? []),
  )
  return (names.list?.columns ?? []).filter((c) => columns?.includes(c))
})
const own = computed(() => row.value && (row.value.said || row.value.smaller || row.value.lines))
const set = (part: object) => row.value && void card.change({ do: 'setRow', row: row.value.id, ...part })

// What the card says in place of a cell.
const open = ref(false)
const says = ref<Record<string, string>>({})
usePopover(open, '[data-testid=say-form]', () => say())
function ask(is: boolean) {
  const r = row.value
  if (is && r)
    says.value = Object.fromEntries(
      used.value.map((c) => [c, r.said?.[c] ?? r.cells[names.list!.columns.indexOf(c)] ?? '']),
    )
  open.value = is
}
function say() {
  open.value = false
  set({ said: { ...row.value?.said, ...says.value } })
}
const first = computed(() => names.list?.columns[0] ?? '')
const short = computed(() => (state.value && used.value.includes(first.value) ? state.value.short : ''))
</script>

<template>
  <template v-if="row">
    <b data-testid="name-chosen">{{ names.called(row.id) }}</b>
    <i class="rule" />
    <button
      v-if="tooLong && fitted && !row.smaller"
      class="verb"
      :class="{ needed: tooLong }"
      title="The letters of this card alone may be smaller than the least size"
      data-testid="name-smaller"
      @click="set({ smaller: true })"
    >
      Set smaller here
    </button>
    <button
      v-if="tooLong && fitted && lines"
      class="verb"
      :class="{ needed: tooLong }"
      :title="`The words of this card alone may take ${(row.lines || lines) + 1} lines`"
      data-testid="name-lines"
      @click="set({ lines: Math.max(row.lines ?? 0, lines) + 1 })"
    >
      Break the line
    </button>
    <Popover :open="open" trigger="click" placement="bottom" destroy-tooltip-on-hide @open-change="ask">
      <button v-if="used.length" class="verb" :class="{ needed: tooLong }" data-testid="name-say">Say otherwise</button>
      <template #content>
        <form class="say" data-testid="say-form" @submit.prevent="say">
          <label v-for="c in used" :key="c"
            >{{ c }}<input v-model="says[c]" maxlength="200" :data-testid="'say-' + c"
          /></label>
          <button
            v-if="short && short !== says[first]"
            type="button"
            class="verb"
            data-testid="say-short"
            @click="says[first] = short"
          >
            Shorten to “{{ short }}”
          </button>
          <Button type="primary" html-type="submit" block data-testid="say-do">Say it so on this card</Button>
        </form>
      </template>
    </Popover>
    <button
      v-if="own"
      class="verb"
      title="Its card is as the list and the fit have it again"
      data-testid="name-plain"
      @click="set({ said: {}, smaller: false, lines: 0 })"
    >
      As the others
    </button>
    <Dropdown :trigger="['click']">
      <button class="verb" data-testid="name-more">More</button>
      <template #overlay>
        <Menu>
          <MenuItem
            key="show"
            :disabled="row.id === names.list?.shown"
            title="Its card stands on Panels, and is laid where one card is"
            data-testid="name-show"
            @click="card.change({ do: 'showName', row: row.id })"
            >Show on the card</MenuItem
          >
          <MenuItem key="out" data-testid="name-out" @click="set({ out: !row.out })">{{
            row.out ? 'Make a card for it again' : 'Make no card for it'
          }}</MenuItem>
          <MenuItem
            v-if="names.rows.length > 1"
            key="remove"
            data-testid="name-remove"
            @click="card.change({ do: 'removeNames', rows: [row.id] })"
            >Take it off the list</MenuItem
          >
        </Menu>
      </template>
    </Dropdown>
  </template>
</template>

<style scoped>
b {
  max-width: 210px;
  min-width: 60px;
}
@media (max-width: 1150px) {
  b,
  .rule {
    display: none;
  }
}
.needed {
  color: var(--rust);
}
.say {
  width: 250px;
  display: grid;
  gap: 8px;
}
.say label {
  display: grid;
  gap: 3px;
  font-size: 12px;
  color: var(--ink7);
}
.say input {
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  padding: 6px 8px;
  font: inherit;
  color: var(--ink9);
}
</style>
