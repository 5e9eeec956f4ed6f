<script setup lang="ts">
// The bridges of a piece, each by a dot where it leaves its middle: dragged along the edge, moved
// and taken away with keys. A double click on the edge of a middle adds one.
import { computed, ref, shallowRef } from 'vue'
import type { SceneItem } from '../api/types'
import { apply, matrix, type Matrix, type Pt } from '../parts/geom'
import { useCard } from '../store/card'

const props = defineProps<{
  item: SceneItem
  /** From the item to pixels. */
  at: Matrix
  local: (e: PointerEvent | MouseEvent) => Pt
  toFace: (p: Pt) => Pt
}>()
const card = useCard()

const bridges = computed(() => props.item.bridges ?? [])
/** As large as there is room for beside small letters. */
const radius = computed(() => Math.min(4.4, Math.max(2.6, 1.1 * Math.hypot(props.at[0], props.at[1]))))
const rings = computed(() => [...new Set(bridges.value.map((b) => b.ring))])
const edges = shallowRef<SVGPathElement[]>([])
const held = ref<{ bridge: number; at: Pt }>()
const dots = computed(() =>
  bridges.value.map((b, i) => (held.value?.bridge === i ? held.value.at : apply(props.at, b.from))),
)

const edgeOf = (i: number) => edges.value[rings.value.indexOf(bridges.value[i]!.ring)]
const on = (edge: SVGPathElement, length: number): Pt => apply(props.at, edge.getPointAtLength(length))

/** How far along an edge the place nearest to one on the screen is. */
function nearest(edge: SVGPathElement, p: Pt): number {
  const whole = edge.getTotalLength()
  const away = (l: number) => {
    const q = on(edge, (l + whole) % whole)
    return Math.hypot(q.x - p.x, q.y - p.y)
  }
  let step = whole / 120
  let best = 0
  for (let l = 0; l < whole; l += step) if (away(l) < away(best)) best = l
  for (; step > whole / 1e5; step /= 2)
    for (const l of [best - step, best + step]) if (away(l) < away(best)) best = (l + whole) % whole
  return best
}

function take(e: PointerEvent, bridge: number) {
  if (e.button) return
  e.stopPropagation()
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  held.value = { bridge, at: dots.value[bridge]! }
}
function move(e: PointerEvent) {
  const edge = held.value && edgeOf(held.value.bridge)
  if (edge) held.value = { bridge: held.value!.bridge, at: on(edge, nearest(edge, props.local(e))) }
}
const put = (bridge: number, at: Pt) =>
  card.change({ do: 'moveBridge', id: props.item.id, bridge, to: props.toFace(at) })
async function drop() {
  const h = held.value
  if (!h) return
  const was = apply(props.at, bridges.value[h.bridge]!.from)
  if (Math.hypot(h.at.x - was.x, h.at.y - was.y) > 1) await put(h.bridge, h.at)
  held.value = undefined
}
function add(e: MouseEvent) {
  void card.change({ do: 'addBridge', id: props.item.id, to: props.toFace(props.local(e)) })
}

/** Keys go along the edge in steps of half a millimetre, with Shift of a tenth. */
function key(e: KeyboardEvent, bridge: number) {
  const edge = edgeOf(bridge)
  const way = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key]
  if (way && edge) {
    const whole = edge.getTotalLength()
    const to = nearest(edge, dots.value[bridge]!) + way * (e.shiftKey ? 0.1 : 0.5)
    void put(bridge, on(edge, (to + whole) % whole))
  } else if (e.key === 'Delete' || e.key === 'Backspace') {
    void card.change({ do: 'dropBridge', id: props.item.id, bridge })
  } else return
  e.preventDefault()
  e.stopPropagation()
}
</script>

<template>
  <g
    class="bridges"
    data-testid="bridge-handles"
    @pointermove="move"
    @pointerup="drop"
    @pointercancel="held = undefined"
  >
    <g :transform="matrix(at)" fill="none">
      <path v-for="d in rings" :key="d" ref="edges" :d="d" class="edge" @pointerdown.stop @dblclick.stop="add">
        <title>Double click: one more bridge</title>
      </path>
    </g>
    <circle
      v-for="(p, i) in dots"
      :key="i"
      :cx="p.x"
      :cy="p.y"
      :r="radius"
      tabindex="0"
      role="button"
      :aria-label="`Bridge ${i + 1} of ${bridges.length}`"
      :class="{ own: bridges[i]!.placed, held: held?.bridge === i }"
      :data-testid="'bridge-' + i"
      @pointerdown="take($event, i)"
      @dblclick.stop
      @keydown="key($event, i)"
    >
      <title>Drag along the edge; Delete takes it away</title>
    </circle>
  </g>
</template>

<style scoped>
.edge {
  stroke: transparent;
  stroke-width: 9;
  vector-effect: non-scaling-stroke;
  pointer-events: stroke;
  cursor: copy;
}
circle {
  fill: #fffdf9;
  stroke: #1f2b38;
  stroke-width: 1.4;
  cursor: grab;
  outline: none;
}
circle.own {
  fill: var(--honey);
}
circle:focus-visible,
circle.held {
  stroke: var(--blue);
  stroke-width: 2.6;
}
</style>
