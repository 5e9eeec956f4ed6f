<script setup lang="ts">
// One name in the stack, with what can be done to it while it is pointed at.
import NameInput from '../parts/NameInput.vue'

export interface Row {
  /** Empty for the card's base. */
  id: string
  name: string
  how: string
  locked: boolean
  /** What is wrong with it, if anything. */
  told: string
  /** It is part of the outline of the piece above it. */
  part?: boolean
  /** How many are part of its outline, and whether they are shown. */
  parts?: number
  open?: boolean
}

defineProps<{ row: Row; selected: boolean; drop: boolean; dragged: boolean; editing: boolean; pointed: boolean }>()
defineEmits<{ named: [name: string | undefined]; lock: [locked: boolean]; hide: []; open: [open: boolean] }>()
</script>

<template>
  <div
    class="layer"
    :class="{
      sel: selected,
      base: !row.id,
      drop,
      own: dragged,
      told: row.told,
      part: row.part,
      marked: row.id && (row.locked || pointed),
    }"
    :tabindex="row.id ? 0 : -1"
    :data-testid="row.id ? 'layer-' + row.id : 'layer-base'"
    :title="row.told || row.name + ', ' + row.how"
  >
    <NameInput v-if="editing" :value="row.name" label="Name" data-testid="layer-name" @done="$emit('named', $event)" />
    <b v-else>{{ row.name }}</b>
    <small :class="{ beside: row.parts }">{{ row.told ? row.told.replace(/^“[^”]*” /, '') : row.how }}</small>
    <button
      v-if="row.parts"
      class="parts"
      :aria-expanded="!!row.open"
      :title="row.open ? 'Fold its parts away' : 'Show what its outline is made of'"
      :data-testid="'parts-' + row.id"
      @pointerdown.stop
      @dblclick.stop
      @keydown.enter.stop
      @click="$emit('open', !row.open)"
    >
      {{ row.parts === 1 ? '1 part' : row.parts + ' parts' }}
      <svg width="8" height="8" viewBox="0 0 8 8" :class="{ open: row.open }"><path d="M1 2.5 4 5.5 7 2.5" /></svg>
    </button>
    <span v-if="row.id && (row.locked || pointed)" class="marks" @pointerdown.stop @dblclick.stop>
      <button
        v-if="row.locked || pointed"
        :aria-label="(row.locked ? 'Unlock ' : 'Lock ') + row.name"
        :title="row.locked ? 'Unlock (L)' : 'Lock in its place (L)'"
        :data-testid="'lock-' + row.id"
        :class="{ held: row.locked }"
        @click="$emit('lock', !row.locked)"
      >
        <svg width="12" height="12" viewBox="0 0 12 12">
          <path d="M6 6.5V11M6 1.2a2.6 2.6 0 1 1 0 5.2a2.6 2.6 0 1 1 0-5.2" />
        </svg>
      </button>
      <button
        v-if="pointed"
        :aria-label="'Hide ' + row.name"
        title="Hide: leave it out for now (H)"
        :data-testid="'hide-' + row.id"
        @click="$emit('hide')"
      >
        <svg width="12" height="12" viewBox="0 0 12 12"><path d="M2 6h8M4 3.2l-1-1M8 3.2l1-1M6 2.6V1.2" /></svg>
      </button>
    </span>
  </div>
</template>

<style scoped>
.layer {
  position: relative;
  height: 31px;
  padding: 1px 12px 0 2px;
  border-radius: 6px 0 0 6px;
  cursor: grab;
  overflow: hidden;
  touch-action: none;
  outline-offset: -2px;
}
.layer.base {
  cursor: default;
}
.layer:hover:not(.base) {
  background: var(--paper1);
}
.layer.sel,
.layer.sel:hover {
  background: var(--brick-soft);
}
.layer.own {
  opacity: 0.5;
}
.layer.drop {
  box-shadow: 0 -2px 0 var(--honey-dark);
}
.told small {
  color: var(--stop);
}
b {
  display: block;
  font-weight: 550;
  font-size: 12.5px;
  line-height: 16px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
small {
  font-size: 10.5px;
  line-height: 12px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
input {
  width: 100%;
  height: 17px;
  border: 1px solid var(--blue);
  border-radius: 3px;
  font: 550 12.5px 'Figtree Variable';
}
.marked b,
.marked small {
  margin-right: 44px;
}
.beside,
.marked .beside {
  display: block;
  margin-right: 98px;
}
.part {
  margin-left: 14px;
}
/* It stands where it does not move when the marks come beside it. */
.parts {
  position: absolute;
  right: 54px;
  bottom: 1px;
  padding: 0 4px;
  border: 0;
  border-radius: 4px;
  background: var(--paper2);
  color: var(--ink7);
  font: 10.5px 'Figtree Variable';
  cursor: pointer;
}
.parts .open {
  rotate: 180deg;
}
.marks {
  position: absolute;
  right: 8px;
  top: 3px;
  display: flex;
  gap: 1px;
}
.marks button {
  display: grid;
  place-items: center;
  width: 20px;
  height: 20px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background: var(--paper0);
  cursor: pointer;
}
.marks button.held {
  background: var(--paper2);
}
path {
  fill: none;
  stroke: var(--ink7);
  stroke-width: 1.4;
  stroke-linecap: round;
}
</style>
