<script setup lang="ts">
// The points of an outline and their handles, over the face: dragged, chosen in a frame, added
// with a double click on the outline, and moved with keys.
import { useEventListener } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import type { PointRef, PointRing } from '../api/types'
import { apply, wayBack, type Box, type Pt } from '../parts/geom'
import { isTyping } from '../parts/typing'
import { useCard } from '../store/card'
import { usePoints, same } from '../store/points'
import { usePrefs } from '../store/prefs'
import type { Overlay } from './overlay'
import { around, foldLines, snap, type SnapLine } from './snap'

const props = defineProps<Overlay>()
const card = useCard()
const points = usePoints()
const prefs = usePrefs()

/** The rings while something is dragged. */
const held = shallowRef<PointRing[]>()
const rings = computed(() => held.value ?? points.rings)
const screen = (p: Pt) => props.toScreen(apply(points.place, p))
const shown = computed(() =>
  rings.value.map((r) => ({
    closed: r.closed,
    nodes: r.nodes.map((n) => ({
      smooth: n.smooth,
      at: screen(n.at),
      in: n.in && screen(n.in),
      out: n.out && screen(n.out),
    })),
  })),
)
type Seen = (typeof shown.value)[number]
const ends = (r: Seen, i: number) => {
  const a = r.nodes[i]!
  const b = r.nodes[(i + 1) % r.nodes.length]!
  return { a: a.at, p: a.out ?? a.at, q: b.in ?? b.at, b: b.at, line: !a.out && !b.in }
}
const outline = computed(() =>
  shown.value
    .map((r) => {
      let d = r.nodes.length ? `M${r.nodes[0]!.at.x} ${r.nodes[0]!.at.y}` : ''
      for (let i = 0; i < r.nodes.length - (r.closed ? 0 : 1); i++) {
        const e = ends(r, i)
        d += e.line ? `L${e.b.x} ${e.b.y}` : `C${e.p.x} ${e.p.y} ${e.q.x} ${e.q.y} ${e.b.x} ${e.b.y}`
      }
      return d + (r.closed ? 'Z' : '')
    })
    .join(''),
)
/** The handles of what is chosen. */
const handles = computed(() =>
  points.chosen.flatMap((c) => {
    const n = shown.value[c.ring]?.nodes[c.node]
    if (!n) return []
    const of = (out: boolean, to: Pt | undefined) => (to ? [{ point: c, out, at: n.at, to }] : [])
    return [...of(false, n.in), ...of(true, n.out)]
  }),
)

const lines = shallowRef<SnapLine[]>([])
let drag: ((e: PointerEvent) => void) | undefined
let drop: (() => unknown) | undefined
const copy = () => JSON.parse(JSON.stringify(points.rings)) as PointRing[]
const face = (e: PointerEvent | MouseEvent) => props.toFace(props.local(e))

function begin(e: PointerEvent, motion: (e: PointerEvent) => void, end: () => unknown) {
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  drag = motion
  drop = end
}

/** What a dragged point or handle catches on: the face, its folds and everything else on it. */
function others(also: Box[] = []) {
  const f = props.face
  // The other points of the outline too.
  const own = points.rings.flatMap((r, ring) =>
    r.nodes.filter((_, n) => !points.isChosen(ring, n)).map((n) => ({ ...apply(points.place, n.at), w: 0, h: 0 })),
  )
  const still = f.items.filter((it) => it.id !== points.id).map((it) => it.bounds)
  return around([{ x: 0, y: 0, w: f.width, h: f.height }, f.safe, ...own, ...also], still, foldLines(f))
}

function grab(e: PointerEvent, at: PointRef) {
  if (e.button !== 0) return
  if (e.shiftKey) {
    points.chosen = points.chosen.some((c) => same(c, at))
      ? points.chosen.filter((c) => !same(c, at))
      : [...points.chosen, at]
    return
  }
  if (!points.isChosen(at.ring, at.node)) points.chosen = [at]
  const from = face(e)
  const near = others()
  const start = apply(points.place, points.node(at)!.at)
  let by: Pt = { x: 0, y: 0 }
  begin(
    e,
    (m) => {
      const to = face(m)
      const d = { x: to.x - from.x, y: to.y - from.y }
      const reach = m.shiftKey ? 0 : 6 / props.scale
      const s = snap({ x: start.x + d.x, y: start.y + d.y, w: 0, h: 0 }, near, reach)
      lines.value = s.lines
      by = wayBack(points.place, { x: d.x + s.dx, y: d.y + s.dy })
      const next = copy()
      for (const c of points.chosen) {
        const n = next[c.ring]!.nodes[c.node]!
        for (const p of [n.at, n.in, n.out]) {
          if (!p) continue
          p.x += by.x
          p.y += by.y
        }
      }
      held.value = next
    },
    () => points.move(by),
  )
}

function pull(e: PointerEvent, at: PointRef, out: boolean) {
  if (e.button !== 0) return
  let to: Pt | undefined
  let alone = false
  const own = { ...apply(points.place, points.node(at)!.at), w: 0, h: 0 }
  const near = others([own])
  begin(
    e,
    (m) => {
      const next = copy()
      const n = next[at.ring]!.nodes[at.node]!
      const origin = apply(points.place, n.at)
      const p = face(m)
      const s = snap({ ...p, w: 0, h: 0 }, near, m.shiftKey ? 0 : 6 / props.scale)
      lines.value = s.lines
      const d = wayBack(points.place, { x: p.x + s.dx - origin.x, y: p.y + s.dy - origin.y })
      to = { x: n.at.x + d.x, y: n.at.y + d.y }
      alone = m.altKey
      n[out ? 'out' : 'in'] = to
      const other = n[out ? 'in' : 'out']
      const length = Math.hypot(d.x, d.y)
      if (n.smooth && !alone && other && length > 1e-6) {
        const k = Math.hypot(other.x - n.at.x, other.y - n.at.y) / length
        n[out ? 'in' : 'out'] = { x: n.at.x - d.x * k, y: n.at.y - d.y * k }
      }
      held.value = next
    },
    () => to && points.change({ do: 'moveHandle', id: points.id, point: at, out, to, alone }),
  )
}

/** A frame that chooses what lies in it. */
const band = ref<{ x: number; y: number; width: number; height: number }>()
function frame(e: PointerEvent) {
  if (e.button !== 0) return
  const a = props.local(e)
  begin(
    e,
    (m) => {
      const b = props.local(m)
      band.value = {
        x: Math.min(a.x, b.x),
        y: Math.min(a.y, b.y),
        width: Math.abs(a.x - b.x),
        height: Math.abs(a.y - b.y),
      }
    },
    () => {
      const r = band.value
      band.value = undefined
      const inside = (p: Pt) => !!r && p.x >= r.x && p.y >= r.y && p.x <= r.x + r.width && p.y <= r.y + r.height
      points.chosen = shown.value.flatMap((s, ring) =>
        s.nodes.flatMap((n, node) => (inside(n.at) ? [{ ring, node }] : [])),
      )
    },
  )
}

async function up() {
  const end = drop
  drag = drop = undefined
  lines.value = []
  if (held.value || band.value || end) await end?.()
  held.value = undefined
}

/** Where on the outline a pointer is nearest. */
function nearest(e: MouseEvent): { after: PointRef; t: number } | undefined {
  const p = props.local(e)
  let best: { after: PointRef; t: number } | undefined
  let least = Infinity
  shown.value.forEach((r, ring) => {
    for (let node = 0; node < r.nodes.length - (r.closed ? 0 : 1); node++) {
      const c = ends(r, node)
      for (let k = 1; k < 60; k++) {
        const t = k / 60
        const u = 1 - t
        const w = c.line ? [u, 0, 0, t] : [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t]
        const x = w[0]! * c.a.x + w[1]! * c.p.x + w[2]! * c.q.x + w[3]! * c.b.x
        const y = w[0]! * c.a.y + w[1]! * c.p.y + w[2]! * c.q.y + w[3]! * c.b.y
        const d = Math.hypot(x - p.x, y - p.y)
        if (d >= least) continue
        least = d
        best = { after: { ring, node }, t }
      }
    }
  })
  return best
}
function addHere(e: MouseEvent) {
  const n = nearest(e)
  if (n) void points.add(n.after, n.t)
}

useEventListener(
  window,
  'keydown',
  (e: KeyboardEvent) => {
    const el = e.target as HTMLElement
    if (isTyping(e) || (el.closest('button') && (e.key === 'Enter' || e.key === ' ')) || e.ctrlKey || e.metaKey) return
    const onFace = el === document.body || el.matches('[data-testid=surface]')
    const s = e.altKey ? prefs.step.fine : e.shiftKey ? prefs.step.coarse : prefs.step.normal
    const nudge = (x: number, y: number) => () => points.move(wayBack(points.place, { x: x * s, y: y * s }))
    const does: Record<string, (() => unknown) | undefined> = {
      Tab: onFace ? () => points.step(e.shiftKey ? -1 : 1) : undefined,
      ArrowLeft: nudge(-1, 0),
      ArrowRight: nudge(1, 0),
      ArrowUp: nudge(0, -1),
      ArrowDown: nudge(0, 1),
      Delete: points.remove,
      Backspace: points.remove,
      Insert: () => points.add(),
      '+': () => points.add(),
      s: () => points.bend(points.node(points.chosen[0]!)?.smooth ? 'corner' : 'smooth'),
      Enter: points.close,
      Escape: points.close,
    }
    const act = does[e.key]
    if (!act || (!points.chosen.length && !['Tab', 'Enter', 'Escape'].includes(e.key))) return
    e.preventDefault()
    e.stopPropagation()
    void act()
  },
  { capture: true },
)
const drawn = computed(() =>
  lines.value.map((l) => {
    const a = props.toScreen({ x: l.axis === 'x' ? l.at : 0, y: l.axis === 'y' ? l.at : 0 })
    return l.axis === 'x' ? `M${a.x} 0V4000` : `M0 ${a.y}H4000`
  }),
)
const says = computed(() => {
  if (points.crosses) return 'It crosses itself: that is cleaned when you are done'
  return card.items.get(points.id) ? 'Drag points, double click the outline for one more, Enter when it is right' : ''
})
</script>

<template>
  <div
    class="tool over-face"
    data-testid="points-tool"
    @pointerdown.stop
    @pointermove="drag?.($event)"
    @pointerup="up"
    @pointercancel="((drag = undefined), (held = undefined))"
    @dblclick.stop
  >
    <svg width="100%" height="100%">
      <rect width="100%" height="100%" fill="transparent" @pointerdown="frame" />
      <path :d="outline" class="halo" />
      <path :d="outline" class="edge" />
      <path :d="outline" class="catch" data-testid="points-outline" @pointerdown="frame" @dblclick="addHere" />
      <path v-for="(d, i) in drawn" :key="'l' + i" :d="d" class="snap" />
      <g v-for="h in handles" :key="`${h.point.ring} ${h.point.node} ${h.out}`">
        <path :d="`M${h.at.x} ${h.at.y}L${h.to.x} ${h.to.y}`" class="stalk" />
        <circle
          :cx="h.to.x"
          :cy="h.to.y"
          r="10"
          class="grab"
          :data-testid="`handle-${h.out ? 'out' : 'in'}-${h.point.ring}-${h.point.node}`"
          @pointerdown="pull($event, h.point, h.out)"
        />
        <circle :cx="h.to.x" :cy="h.to.y" r="3.6" class="end" />
      </g>
      <template v-for="(r, ring) in shown" :key="ring">
        <g
          v-for="(n, node) in r.nodes"
          :key="node"
          class="point"
          :class="{ on: points.isChosen(ring, node) }"
          :data-testid="`point-${ring}-${node}`"
          @pointerdown="grab($event, { ring, node })"
        >
          <circle :cx="n.at.x" :cy="n.at.y" r="11" class="grab" />
          <circle v-if="n.smooth" :cx="n.at.x" :cy="n.at.y" r="4.5" class="mark" />
          <path v-else :d="`M${n.at.x} ${n.at.y - 6}l6 6l-6 6l-6 -6Z`" class="mark" />
        </g>
      </template>
      <rect v-if="band" v-bind="band" class="band" />
    </svg>
    <div class="says">{{ says }}</div>
  </div>
</template>

<style scoped>
.halo,
.edge,
.catch,
.stalk,
.snap {
  fill: none;
  pointer-events: none;
}
.halo {
  stroke: #fffdf9;
  stroke-width: 3.4;
}
.edge {
  stroke: var(--brick);
  stroke-width: 1.5;
}
.catch {
  stroke: transparent;
  stroke-width: 14;
  pointer-events: stroke;
  cursor: copy;
}
.snap {
  stroke: var(--honey-dark);
  stroke-dasharray: 4 3;
}
.stalk {
  stroke: #35658c;
  stroke-width: 1.2;
}
.grab {
  fill: transparent;
  cursor: move;
}
.end {
  fill: #35658c;
  pointer-events: none;
}
.mark {
  fill: #fffdf9;
  stroke: var(--brick);
  stroke-width: 1.5;
}
.on .mark {
  fill: var(--honey);
  stroke: #7a4d05;
}
.band {
  fill: #e2a42b22;
  stroke: var(--honey-dark);
  stroke-dasharray: 4 3;
}
.says {
  left: 50%;
  bottom: 52px;
  transform: translateX(-50%);
}
</style>
