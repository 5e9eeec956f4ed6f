<script setup lang="ts">
// The closed card in section along a line that is dragged over it: papers, foam, folds and the envelope.
import { useElementSize } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { api } from '../../api/client'
import type { Point, SceneCut } from '../../api/types'
import FaceArt from '../../surface/FaceArt.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useCheck } from '../../store/check'

const card = useCard()
const catalogue = useCatalogue()
const check = useCheck()
const mm = (v: number) => `${v.toFixed(1)} mm`
const el = ref<HTMLElement>()
const { width, height } = useElementSize(el)
const cut = shallowRef<SceneCut>()
const front = computed(() => card.view?.scene.faces.find((f) => f.id === 'front'))
/** The ends of the line, in shares of the closed card. */
const ends = ref({ from: { x: 0, y: 0.5 }, to: { x: 1, y: 0.5 } })
const place = (p: Point): Point => ({ x: p.x * (front.value?.width ?? 1), y: p.y * (front.value?.height ?? 1) })

let asked = 0
watch(
  () => [card.view?.id, card.view?.revision, JSON.stringify(ends.value), !!front.value],
  async () => {
    if (!card.view || !front.value) return
    const mine = ++asked
    const c = await api.cut(card.view.id, place(ends.value.from), place(ends.value.to)).catch(() => undefined)
    if (c && mine === asked) cut.value = c
  },
  { immediate: true },
)

const map = computed(() => {
  const f = front.value
  if (!f) return { w: 0, h: 0, k: 1 }
  const k = Math.min(92 / f.width, 92 / f.height)
  return { w: f.width * k, h: f.height * k, k }
})
let held: 'from' | 'to' | undefined
function down(e: PointerEvent, which: 'from' | 'to') {
  held = which
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
}
function move(e: PointerEvent) {
  if (!held) return
  const b = (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
  const share = (v: number) => Math.min(1, Math.max(0, Math.round(v * 100) / 100))
  ends.value = {
    ...ends.value,
    [held]: { x: share((e.clientX - b.left - 8) / map.value.w), y: share((e.clientY - b.top - 8) / map.value.h) },
  }
}
const up = () => (held = undefined)
function key(e: KeyboardEvent, which: 'from' | 'to') {
  const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key]
  if (!step) return
  e.preventDefault()
  const p = ends.value[which]
  const share = (v: number) => Math.min(1, Math.max(0, Math.round(v * 50) / 50))
  ends.value = { ...ends.value, [which]: { x: share(p.x + step[0]! * 0.02), y: share(p.y + step[1]! * 0.02) } }
}

const wide = computed(() => Math.max(10, width.value - 330))
const k = computed(() => wide.value / Math.max(cut.value?.long ?? 1, 1))
/** Paper is drawn thicker than it is, or nobody would see it. */
const times = computed(() => {
  const t = Math.max(cut.value?.thick ?? 1, 0.3)
  return Math.max(1, Math.min(12, Math.floor((height.value - 46) / t / k.value)))
})
const deep = computed(() => k.value * times.value)
const top = computed(() => Math.max(14, (height.value - (cut.value?.thick ?? 0) * deep.value) / 2))
const strips = computed(() =>
  (cut.value?.strips ?? []).map((s) => ({
    ...s,
    x: 30 + s.from * k.value,
    w: Math.max(0.5, (s.to - s.from) * k.value),
    y: top.value + s.upper * deep.value,
    h: Math.max(0.8, (s.lower - s.upper) * deep.value),
  })),
)
/** Foam is blocks with gaps, as it is laid. */
function blocks(s: { x: number; w: number }) {
  const n = Math.max(1, Math.min(9, Math.round(s.w / 60)))
  const b = Math.min(26, (s.w / n) * 0.5)
  return Array.from({ length: n }, (_, i) => ({ x: s.x + ((i + 0.5) * s.w) / n - b / 2, w: b }))
}
const paper = computed(() => cut.value?.strips.find((s) => !s.item))
const leaf = computed(() => (paper.value ? paper.value.lower - paper.value.upper : 0.3))
const folds = computed(() =>
  (cut.value?.folds ?? []).map((f) => {
    const x = 30 + f.at * k.value
    const y = top.value + (f.upper + leaf.value / 2) * deep.value
    const r = ((f.lower - f.upper - leaf.value) * deep.value) / 2
    return `M${x} ${y}A${Math.min(r, 15)} ${r} 0 0 ${f.ahead ? 1 : 0} ${x} ${y + 2 * r}`
  }),
)
const raised = computed(() => {
  const s = strips.value.filter((x) => x.item && !x.foam && x.w > 40).sort((a, b) => a.y - b.y)[0]
  return s && s.y > 12 ? s : undefined
})
/** How thick a card an envelope takes without bulging, mm. */
const takes = computed(() => check.view?.sending.takes ?? Infinity)
const over = computed(() => (cut.value?.thickest ?? 0) > takes.value)
</script>

<template>
  <section class="cut" data-testid="cut">
    <header>
      <h3>Closed card, cut through</h3>
      <span v-if="cut?.strips.length"
        >thickness drawn {{ times }} times · drag the line on the card to cut elsewhere</span
      >
    </header>
    <div ref="el" class="room">
      <svg
        v-if="height > 0 && cut"
        :width="width - 120"
        :height="height"
        role="img"
        :aria-label="`In the cut ${mm(cut.thickest)} thick`"
      >
        <template v-if="cut.strips.length">
          <rect
            :x="14"
            :y="top - 9"
            :width="wide + 32"
            :height="cut.thick * deep + 18"
            rx="7"
            fill="none"
            stroke="#a9b0b5"
            stroke-dasharray="2 3"
          />
          <path
            v-for="(d, i) in folds"
            :key="'f' + i"
            :d="d"
            fill="none"
            stroke="#d8c9af"
            :stroke-width="Math.min(9, Math.max(1.5, leaf * deep))"
          />
          <template v-for="(s, i) in strips" :key="i">
            <template v-if="s.foam">
              <rect
                v-for="(b, n) in blocks(s)"
                :key="n"
                :x="b.x"
                :y="s.y"
                :width="b.w"
                :height="s.h"
                fill="#fff"
                stroke="#d8c9af"
              />
            </template>
            <rect v-else :x="s.x" :y="s.y" :width="s.w" :height="s.h" :fill="s.colour" stroke="#0003" stroke-width=".7">
              <title>{{ s.name }}</title>
            </rect>
          </template>
          <text v-if="raised" :x="raised.x + 6" :y="raised.y - 4">{{ raised.name }}</text>
          <g class="measure" :transform="`translate(${30 + wide + 26} 0)`">
            <path :d="`M-5 ${top}h10M-5 ${top + cut.thick * deep}h10M0 ${top}v${cut.thick * deep}`" />
          </g>
        </template>
        <text v-else x="30" :y="height / 2">This card does not fold flat: there is nothing to cut through.</text>
      </svg>
      <p v-if="cut?.strips.length && check.view" class="told" :class="{ over }">
        <b data-testid="cut-thick">{{ mm(cut.thickest) }}</b> where it is thickest here<br />
        envelopes take about <span class="whole">{{ mm(takes) }}</span>
      </p>
      <svg v-if="front" class="map" :width="map.w + 16" :height="map.h + 16">
        <g :transform="`translate(8 8) scale(${map.k})`">
          <path
            :d="front.shape"
            :fill="catalogue.paint(card.view?.card.base.stock)"
            stroke="#d8c9af"
            vector-effect="non-scaling-stroke"
          />
          <FaceArt :face="front" />
        </g>
        <g transform="translate(8 8)">
          <line
            :x1="ends.from.x * map.w"
            :y1="ends.from.y * map.h"
            :x2="ends.to.x * map.w"
            :y2="ends.to.y * map.h"
            stroke="#a8432a"
            stroke-width="2"
          />
          <circle
            v-for="which in ['from', 'to'] as const"
            :key="which"
            :cx="ends[which].x * map.w"
            :cy="ends[which].y * map.h"
            r="6"
            tabindex="0"
            role="slider"
            :aria-label="which === 'from' ? 'Where the cut begins' : 'Where the cut ends'"
            :aria-valuetext="`${Math.round(ends[which].x * 100)} % across, ${Math.round(ends[which].y * 100)} % down`"
            :data-testid="'cut-' + which"
            @pointerdown="down($event, which)"
            @pointermove="move"
            @pointerup="up"
            @keydown="key($event, which)"
          />
        </g>
      </svg>
    </div>
  </section>
</template>

<style scoped>
.whole {
  white-space: nowrap;
}
.cut {
  height: 168px;
  flex: none;
  display: flex;
  flex-direction: column;
  border-top: 1px solid var(--paper3);
  background: var(--paper1);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 8px 18px 0;
}
h3 {
  margin: 0;
}
header span,
.told {
  color: var(--ink7);
  font-size: 12px;
}
.room {
  position: relative;
  flex: 1;
  min-height: 0;
}
.room > svg {
  position: absolute;
  left: 0;
  top: 0;
}
.room > svg.map {
  left: auto;
  right: 10px;
  top: 8px;
}
.told {
  position: absolute;
  right: 118px;
  top: 50%;
  width: 138px;
  margin: 0;
  transform: translateY(-50%);
}
.told.over b {
  color: var(--stop);
}
text {
  font-size: 11.5px;
  fill: var(--ink7);
}
.measure path {
  stroke: var(--ink5);
  fill: none;
}
circle {
  fill: #fffdf9;
  stroke: var(--brick);
  stroke-width: 2;
  cursor: grab;
  touch-action: none;
}
circle:focus-visible {
  outline: none;
  stroke: var(--blue);
}
</style>
