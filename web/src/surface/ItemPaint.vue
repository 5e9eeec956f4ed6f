<script setup lang="ts">
// One item in its own coordinates: its stock, its ink, its picture, and what its
// look adds.
import { computed, useId } from 'vue'
import { api } from '../api/client'
import type { SceneItem } from '../api/types'
import { isPale } from '../parts/colour'
import { matrix, type Matrix } from '../parts/geom'
import { roleLook } from '../parts/lines'
import WashPaint from './WashPaint.vue'

const props = defineProps<{
  item: SceneItem
  at: Matrix
  outline: string
  fine?: boolean
  px?: number
  pick?: boolean
  /** A part of it alone: its bare stock, its ink, or what is shown of it besides. */
  only?: 'stock' | 'ink' | 'marks'
}>()
/** What a pointer catches: all of the item, or its stock where that is drawn by itself. */
const caught = computed(() => props.pick && (!props.only || props.only === 'stock'))
const draws = (part: 'stock' | 'ink' | 'marks') => !props.only || props.only === part

const uid = useId()
/** Lines are thin on small pictures of the card. */
const look = computed(() => {
  const r = props.item.role
  if (!r) return undefined
  const l = roleLook[r]
  return {
    ...l,
    stroke: (r === 'pen' && props.item.fill.colour) || l.stroke,
    'stroke-width': props.fine ? l['stroke-width'] : 0.6,
  }
})
const gradient = computed(() => {
  const g = props.item.fill.gradient
  if (!g) return undefined
  const b = props.item.box
  const x = (v: number) => b.x + v * b.w
  const y = (v: number) => b.y + v * b.h
  const ends = { x1: x(g.fromX), y1: y(g.fromY), x2: x(g.toX), y2: y(g.toY) }
  return { g, ends, round: { cx: ends.x1, cy: ends.y1, r: Math.hypot(ends.x2 - ends.x1, ends.y2 - ends.y1) } }
})
/** A pattern that is laid out in its own way is one of the item's own. */
const pattern = computed(() => {
  const { fill, patternAt } = props.item
  if (!fill.paper || !patternAt || patternAt.every((v, i) => v === [1, 0, 0, 1, 0, 0][i])) return undefined
  return { href: `#paper-${fill.paper}`, at: matrix(patternAt) }
})
/** The stock of a piece, as it is bought. */
const bare = computed(() => (props.item.groundAt ? `url(#${uid}-bare)` : props.item.ground))
const fill = computed(() => {
  const f = props.item.fill
  if (props.item.joined) return 'none' // it is cut, not printed
  if (f.gradient || pattern.value) return `url(#${uid}-ink)`
  return f.paper ? `url(#paper-${f.paper})` : (f.colour ?? 'none')
})
/** A preview that is no coarser than the screen, and not much finer. */
const side = (box: { w: number; h: number }) => {
  if (!props.fine) return 256
  return Math.max(box.w, box.h) * (props.px ?? 4) * window.devicePixelRatio > 800 ? 1600 : 800
}
const picture = computed(() => {
  const p = props.item.picture
  return p && { href: api.previewURL(p.id, side(p.box)), x: p.box.x, y: p.box.y, width: p.box.w, height: p.box.h }
})
/** Draws every colour toward one: what is left of each part, and what is added. */
const tint = computed(() => {
  const t = props.item.tint
  if (!t) return undefined
  const part = (i: number) => (parseInt(t.colour.slice(1 + 2 * i, 3 + 2 * i), 16) / 255) * t.strength
  const k = 1 - t.strength
  return `${k} 0 0 0 ${part(0)} 0 ${k} 0 0 ${part(1)} 0 0 ${k} 0 ${part(2)} 0 0 0 1 0`
})
const again = computed(() => {
  const r = props.item.reflection
  if (!r) return undefined
  const b = props.item.box
  // The mask is read where the reflection is drawn, in mirrored coordinates.
  const back = (p: { x: number; y: number }) => ({ x: p.x, y: r.at[5] - p.y })
  const [from, to] = [back(r.from), back(r.to)]
  return {
    at: matrix(r.at),
    from,
    to,
    opacity: r.opacity,
    room: { x: b.x - b.w, y: b.y - b.h, width: 3 * b.w, height: 3 * b.h },
  }
})
</script>

<template>
  <g
    :transform="matrix(at)"
    :data-item="caught ? item.id : undefined"
    :data-testid="caught ? 'item-' + item.id : undefined"
    :pointer-events="pick && !caught ? 'none' : undefined"
    :clip-path="item.clip ? `url(#${uid}-trim)` : undefined"
  >
    <clipPath v-if="item.clip" :id="`${uid}-trim`"><path :d="item.clip" /></clipPath>
    <template v-if="item.role && draws('ink')">
      <path v-if="item.role === 'guide' && fine" :d="outline" class="line" stroke="#fffdf9" stroke-width="3.4" />
      <path :d="outline" class="line" v-bind="look" />
      <path v-if="pick" :d="outline" class="line" stroke="transparent" stroke-width="12" />
    </template>
    <template v-if="item.slot && draws('ink')">
      <path :d="outline" fill="#e9dfcd" fill-opacity=".55" stroke="#b9770e" class="slot" />
      <text
        v-if="fine"
        :x="item.box.x + item.box.w / 2"
        :y="item.box.y + item.box.h / 2"
        :font-size="Math.min(14 / (px ?? 4), item.box.w / 5)"
        text-anchor="middle"
        dominant-baseline="central"
        fill="#566370"
      >
        {{ item.slot === 'photo' ? 'Photo' : 'Words' }}
      </text>
    </template>
    <defs v-if="gradient || pattern || tint || item.groundAt">
      <pattern
        v-if="item.groundAt"
        :id="`${uid}-bare`"
        :href="`#paper-${item.groundPaper}`"
        :patternTransform="matrix(item.groundAt)"
      />
      <linearGradient
        v-if="gradient?.g.kind === 'linear'"
        :id="`${uid}-ink`"
        gradientUnits="userSpaceOnUse"
        v-bind="gradient.ends"
      >
        <stop
          v-for="(s, i) in gradient.g.stops"
          :key="i"
          :offset="s.at"
          :stop-color="s.colour"
          :stop-opacity="1 - (s.clear ?? 0)"
        />
      </linearGradient>
      <radialGradient v-else-if="gradient" :id="`${uid}-ink`" gradientUnits="userSpaceOnUse" v-bind="gradient.round">
        <stop
          v-for="(s, i) in gradient.g.stops"
          :key="i"
          :offset="s.at"
          :stop-color="s.colour"
          :stop-opacity="1 - (s.clear ?? 0)"
        />
      </radialGradient>
      <pattern v-if="pattern" :id="`${uid}-ink`" :href="pattern.href" :patternTransform="pattern.at" />
      <filter v-if="tint" :id="`${uid}-tint`" color-interpolation-filters="sRGB">
        <feColorMatrix :values="tint" />
      </filter>
    </defs>
    <path v-if="item.piece && draws('stock')" :d="outline" :fill="bare" />
    <template v-if="draws('ink')">
      <WashPaint v-for="(w, i) in item.under" :key="'u' + i" :wash="w" :outline="outline" :clear="item.clear" />
    </template>
    <g v-if="draws('ink')" :id="again ? `${uid}-own` : undefined" :opacity="item.clear ? 1 - item.clear : undefined">
      <template v-if="picture">
        <clipPath :id="uid"><path :d="item.rest ?? outline" /></clipPath>
        <path v-if="!item.picture!.box.w" :d="outline" fill="#e9dfcd" />
        <image
          v-bind="picture"
          preserveAspectRatio="none"
          :clip-path="`url(#${uid})`"
          :filter="tint ? `url(#${uid}-tint)` : undefined"
        />
        <path v-if="pick" :d="outline" fill="transparent" />
      </template>
      <path v-else-if="fill !== 'none' && !item.role" :d="item.rest ?? outline" :fill="fill" />
      <template v-if="!item.joined">
        <path v-for="(p, i) in item.parts" :key="'p' + i" :d="p.path" :fill="p.colour" />
      </template>
      <path
        v-else-if="pick"
        :d="outline"
        class="joined"
        :class="{ trims: item.joined === 'trims' }"
        :fill="item.joined === 'trims' ? 'none' : 'transparent'"
        :pointer-events="item.joined === 'trims' ? 'stroke' : undefined"
      />
      <WashPaint v-for="(w, i) in item.over" :key="'o' + i" :wash="w" :outline="outline" />
    </g>
    <g v-if="again && draws('ink')" pointer-events="none">
      <linearGradient
        :id="`${uid}-fade`"
        gradientUnits="userSpaceOnUse"
        v-bind="{ x1: again.from.x, y1: again.from.y, x2: again.to.x, y2: again.to.y }"
      >
        <stop offset="0" stop-color="#fff" :stop-opacity="again.opacity" />
        <stop offset="1" stop-color="#fff" stop-opacity="0" />
      </linearGradient>
      <mask :id="`${uid}-mask`" maskUnits="userSpaceOnUse" v-bind="again.room">
        <rect v-bind="again.room" :fill="`url(#${uid}-fade)`" />
      </mask>
      <g :transform="again.at"><use :href="`#${uid}-own`" :mask="`url(#${uid}-mask)`" /></g>
    </g>
    <path
      v-if="fine && draws('marks') && (item.piece || (item.fill.colour && !item.role && isPale(item.fill.colour)))"
      :d="outline"
      fill="none"
      stroke="#1f2b38"
      stroke-opacity=".22"
      stroke-width=".8"
      vector-effect="non-scaling-stroke"
    />
    <template v-if="fine && item.thin && draws('marks')">
      <pattern :id="`${uid}-thin`" width="1" height="1" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <rect width="1" height="1" fill="#e2a42b" fill-opacity=".75" />
        <rect width=".4" height="1" fill="#7a4d05" />
      </pattern>
      <path
        v-for="(d, i) in item.thin.regions"
        :key="'t' + i"
        :d="d"
        :fill="`url(#${uid}-thin)`"
        pointer-events="none"
        data-testid="thin"
      />
    </template>
    <template v-if="fine && item.islands?.length && draws('marks')">
      <pattern
        :id="`${uid}-loose`"
        width="1.6"
        height="1.6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="1.6" height="1.6" fill="#fffdf9" fill-opacity=".7" />
        <rect width=".7" height="1.6" fill="#a8432a" />
      </pattern>
      <path
        v-for="(d, i) in item.islands"
        :key="i"
        :d="d"
        :fill="`url(#${uid}-loose)`"
        class="loose"
        data-testid="island"
      />
    </template>
    <!-- Letters are thin: their whole box can be caught. -->
    <rect
      v-if="caught && item.kind === 'lettering'"
      :x="item.box.x"
      :y="item.box.y"
      :width="item.box.w"
      :height="item.box.h"
      fill="transparent"
    />
  </g>
</template>

<style scoped>
.joined.trims {
  stroke: #a8432a;
  stroke-opacity: 0.9;
  stroke-width: 1.4;
  stroke-dasharray: 6 4;
}
.joined {
  stroke: #1f2b38;
  stroke-opacity: 0.25;
  stroke-width: 0.8;
  vector-effect: non-scaling-stroke;
}
.loose {
  stroke: var(--stop);
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.slot {
  stroke-width: 1.4;
  stroke-dasharray: 6 4;
  vector-effect: non-scaling-stroke;
}
.line {
  fill: none;
  vector-effect: non-scaling-stroke;
}
</style>
