<script setup lang="ts">
// The cards by name, as each comes out.
import { computed, watch } from 'vue'
import { api } from '../../api/client'
import type { NameRow, SceneFace } from '../../api/types'
import { useCard } from '../../store/card'
import { useNames } from '../../store/names'

const props = defineProps<{ face: SceneFace; rows: NameRow[] }>()
const card = useCard()
const names = useNames()

/** Faces that are broad stand in fewer columns. */
const wide = computed(() => Math.min(250, Math.max(100, 112 * Math.sqrt((1.4 * props.face.width) / props.face.height))))
const say = (r: NameRow) => r.cells.find((c) => c) ?? 'nameless'
const wrong = (r: NameRow) => names.stateOf(r.id)?.wrong[0]
watch(
  () => names.row?.id,
  (id) =>
    requestAnimationFrame(() => document.querySelector(`[data-card="${id}"]`)?.scrollIntoView({ block: 'nearest' })),
)
function step(by: number) {
  const at = props.rows.findIndex((r) => r.id === names.row?.id)
  const next = props.rows[at + by]
  if (!next) return
  names.chosen = next.id
  requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-card="${next.id}"]`)?.focus())
}
/** How many cards stand in a row. */
const across = (e: Event) =>
  getComputedStyle((e.currentTarget as HTMLElement).parentElement!).gridTemplateColumns.split(' ').length
</script>

<template>
  <div class="cards" :style="{ '--wide': wide + 'px' }" data-testid="name-cards">
    <button
      v-for="r in rows"
      :key="r.id"
      class="bare one"
      :class="{ on: r.id === names.row?.id, wrong: wrong(r), out: r.out }"
      :title="wrong(r)?.why ?? say(r)"
      :aria-pressed="r.id === names.row?.id"
      :data-card="r.id"
      data-testid="name-card"
      @click="names.chosen = r.id"
      @keydown.right.prevent="step(1)"
      @keydown.left.prevent="step(-1)"
      @keydown.down.prevent="step(across($event))"
      @keydown.up.prevent="step(-across($event))"
    >
      <img
        :src="api.nameFaceURL(card.id, r.id, face.id, card.view!.revision)"
        :alt="say(r)"
        :style="{ aspectRatio: face.width / face.height }"
        loading="lazy"
        draggable="false"
      />
      <span>{{ say(r) }}</span>
    </button>
  </div>
</template>

<style scoped>
.cards {
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(calc(var(--wide) + 26px), 1fr));
  grid-auto-rows: max-content;
  gap: 8px 10px;
  padding: 12px 16px 20px;
  justify-items: center;
  align-items: start;
}
.one {
  padding: 9px 10px 5px;
  border: 2px solid transparent;
  border-radius: 8px;
  text-align: center;
}
.one:hover {
  border-color: var(--paper3);
}
.one.on {
  border-color: var(--honey);
  background: var(--paper0);
}
img {
  display: block;
  width: var(--wide);
  background: var(--paper0);
  box-shadow:
    0 1px 2px #1f2b382e,
    0 3px 9px #1f2b381f;
}
span {
  display: block;
  width: var(--wide);
  margin-top: 6px;
  font-size: 11.5px;
  color: var(--ink7);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.wrong span {
  color: var(--stop);
  font-weight: 600;
}
.wrong img {
  outline: 1.5px solid var(--stop);
}
.out img {
  opacity: 0.35;
}
</style>
