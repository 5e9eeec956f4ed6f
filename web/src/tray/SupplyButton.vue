<script setup lang="ts">
// One supply in the tray: dragged out with the pointer, or placed with Enter.
import { ref } from 'vue'
import SupplyPicture from './SupplyPicture.vue'
import type { Supply } from './supplies'

const props = defineProps<{ supply: Supply; favourite?: boolean; held?: boolean }>()
const emit = defineEmits<{ place: []; take: []; drop: [e: PointerEvent]; about: [e: Event] }>()

/** Where the dragged picture is, in pixels of the window. */
const ghost = ref<{ x: number; y: number }>()
let start: { x: number; y: number } | undefined

function down(e: PointerEvent) {
  if (e.button !== 0) return
  start = { x: e.clientX, y: e.clientY }
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
}

function motion(e: PointerEvent) {
  if (!start) return
  if (ghost.value || Math.hypot(e.clientX - start.x, e.clientY - start.y) > 6)
    ghost.value = { x: e.clientX, y: e.clientY }
}

function end(e?: PointerEvent) {
  const dragged = ghost.value
  start = undefined
  ghost.value = undefined
  if (dragged && e) emit('drop', e)
  wasDragged = !!dragged
}
let wasDragged = false
/** A click of a pointer takes it, to be placed by clicks on the face. */
function click(e: MouseEvent) {
  if (!wasDragged && e.detail > 0) emit('take')
  wasDragged = false
}

/** Arrows go along the supplies. */
function key(e: KeyboardEvent) {
  const el = e.currentTarget as HTMLElement
  const to = e.key === 'ArrowRight' ? el.nextElementSibling : e.key === 'ArrowLeft' ? el.previousElementSibling : null
  if (to instanceof HTMLElement) {
    e.preventDefault()
    e.stopPropagation()
    to.focus()
  }
}
</script>

<template>
  <button
    class="supply"
    :class="[supply.kind, { held }]"
    :aria-pressed="held"
    :title="supply.name"
    :data-testid="`supply-${props.supply.kind}-${supply.id}`"
    @pointerdown="down"
    @pointermove="motion"
    @pointerup="end"
    @pointercancel="end()"
    @click="click"
    @keydown="key"
    @keydown.enter.prevent="emit('place')"
    @keydown.f2.prevent.stop="emit('about', $event)"
    @contextmenu.prevent="emit('about', $event)"
    @dblclick="emit('place')"
  >
    <SupplyPicture :supply="supply" />
    <svg v-if="favourite" class="star" width="14" height="14" viewBox="0 0 14 14" aria-label="Favourite">
      <path d="M3 1h8v12L7 9.500 3 13z" fill="#a8432a" stroke="#fffdf9" />
    </svg>
    <span v-if="supply.kind !== 'lettering' || supply.text" class="name">{{ supply.name }}</span>
    <i
      class="about"
      role="button"
      title="About it: name, tags, rights (F2)"
      :aria-label="'About ' + supply.name"
      :data-testid="'about-' + supply.id"
      @pointerdown.stop
      @click.stop="emit('about', $event)"
      @dblclick.stop
      >…</i
    >
    <Teleport v-if="ghost" to="body">
      <div class="ghost" :style="{ left: ghost.x + 'px', top: ghost.y + 'px' }">
        <SupplyPicture :supply="supply" dragged />
      </div>
    </Teleport>
  </button>
</template>

<style scoped>
.supply {
  position: relative;
  flex: none;
  width: 74px;
  height: 74px;
  padding: 0;
  border: 0;
  border-radius: 3px;
  overflow: hidden;
  background: #fffdf9;
  box-shadow: 0 1px 2px #0003;
  cursor: grab;
  touch-action: pan-x;
}
.supply:hover {
  box-shadow:
    0 0 0 1.5px var(--honey),
    0 1px 3px #0004;
}
.supply.held {
  box-shadow:
    0 0 0 2.5px var(--honey-dark),
    0 1px 3px #0004;
}
.star {
  position: absolute;
  left: 4px;
  top: -1px;
}
.about {
  position: absolute;
  right: 3px;
  top: 3px;
  display: none;
  width: 18px;
  height: 16px;
  border-radius: 4px;
  background: #fffdf9e6;
  color: var(--ink7);
  font: 700 12px/10px 'Figtree Variable';
  text-align: center;
  cursor: pointer;
}
.supply:hover .about,
.supply:focus-visible .about {
  display: block;
}
.sketch {
  background: var(--paper2);
}
.name {
  position: absolute;
  inset: auto 0 0;
  padding: 1px 4px;
  background: #fffdf9ea;
  font-size: 10px;
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.photo {
  width: 104px;
}
.lettering {
  width: auto;
  min-width: 96px;
  padding: 0 14px;
}
.ghost {
  position: fixed;
  z-index: 30;
  pointer-events: none;
  transform: translate(-50%, -50%);
  opacity: 0.9;
}
</style>
