<script setup lang="ts">
// The photo that is worked on, as large as there is room: as it is, as it came, or half of each;
// with what is drawn on it.
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Pt } from '../../parts/geom'
import { useEdits } from '../../store/edits'

const props = defineProps<{
  /** Parted into as it came and as it is, at a share of the width. */
  split: boolean
  /** What the pointer draws. */
  draws: 'line' | undefined
  /** Four corners in shares of the photo, to be dragged. */
  corners: Pt[] | undefined
  /** The colour on which what was cut out is seen; without one it is seen on what goes. */
  ground: string | undefined
  /** What stays is seen in white. */
  mask: boolean
}>()
const emit = defineEmits<{ line: [from: Pt, to: Pt]; corner: [i: number, at: Pt] }>()
const edits = useEdits()

const room = ref<HTMLElement>()
const { width, height } = useElementSize(room)
const natural = ref({ w: 3, h: 2 })
function loaded(e: Event) {
  const img = e.target as HTMLImageElement
  natural.value = { w: img.naturalWidth || 3, h: img.naturalHeight || 2 }
}
const box = computed(() => {
  const k = Math.min(
    Math.max(width.value - 72, 80) / natural.value.w,
    Math.max(height.value - 52, 80) / natural.value.h,
  )
  return { w: natural.value.w * k, h: natural.value.h * k }
})

const at = ref(0.5)
const art = ref<SVGSVGElement>()
/** Where a pointer is, in shares of the photo. */
function share(e: PointerEvent): Pt {
  const r = art.value!.getBoundingClientRect()
  const within = (v: number) => Math.min(1, Math.max(0, Math.round(v * 1e4) / 1e4))
  return { x: within((e.clientX - r.left) / r.width), y: within((e.clientY - r.top) / r.height) }
}
const line = ref<{ from: Pt; to: Pt }>()
let drag: ((e: PointerEvent) => void) | undefined
let done: ((e: PointerEvent) => void) | undefined

function hold(e: PointerEvent, motion: (e: PointerEvent) => void, end?: (e: PointerEvent) => void) {
  if (e.button) return
  e.stopPropagation()
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  drag = motion
  done = end
}
function down(e: PointerEvent) {
  if (props.draws !== 'line' || props.corners) return
  const from = share(e)
  hold(
    e,
    (m) => (line.value = { from, to: share(m) }),
    () => {
      const l = line.value
      line.value = undefined
      if (l && Math.hypot((l.to.x - l.from.x) * box.value.w, (l.to.y - l.from.y) * box.value.h) > 12)
        emit('line', scaled(l.from), scaled(l.to))
    },
  )
}
/** A place in pixels of the screen, for what is measured at right angles. */
const scaled = (p: Pt): Pt => ({ x: p.x * box.value.w, y: p.y * box.value.h })
function up(e: PointerEvent) {
  done?.(e)
  drag = done = undefined
}
function nudge(e: KeyboardEvent, i: number) {
  const step = e.shiftKey ? 0.001 : 0.005
  const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key]
  const c = props.corners?.[i]
  if (!by || !c) return
  e.preventDefault()
  emit('corner', i, { x: c.x + by[0]! * step, y: c.y + by[1]! * step })
}
const poly = computed(() => props.corners?.map((c) => `${c.x * box.value.w},${c.y * box.value.h}`).join(' '))
</script>

<template>
  <div ref="room" class="room">
    <div class="photo" :style="{ width: box.w + 'px', height: box.h + 'px' }">
      <div v-if="ground && edits.shown" class="ground" :style="{ background: ground }" />
      <template v-else-if="edits.under">
        <img :src="edits.under" alt="" class="faint" draggable="false" />
        <svg class="hatch" aria-hidden="true">
          <pattern id="goes" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
            <path d="M0 0V9" stroke="#8a6a3a" stroke-width="1.1" opacity=".45" />
          </pattern>
          <rect width="100%" height="100%" fill="#efe4d0" opacity=".55" />
          <rect width="100%" height="100%" fill="url(#goes)" />
        </svg>
      </template>
      <img
        v-if="edits.shown"
        :src="edits.shown"
        alt=""
        :class="{ mask }"
        data-testid="edited"
        draggable="false"
        @load="loaded"
      />
      <img
        v-if="edits.before || split"
        class="came"
        :src="edits.came"
        alt=""
        draggable="false"
        data-testid="as-it-came"
        :style="split && !edits.before ? { clipPath: `inset(0 ${100 - at * 100}% 0 0)` } : {}"
      />
      <svg
        ref="art"
        :width="box.w"
        :height="box.h"
        :class="draws"
        data-testid="photo-art"
        @pointerdown="down"
        @pointermove="drag?.($event)"
        @pointerup="up"
        @pointercancel="((drag = done = undefined), (line = undefined))"
      >
        <slot :w="box.w" :h="box.h" />
        <g v-if="line" fill="none">
          <path
            v-for="(stroke, i) in ['#fffdf9', '#1f2b38']"
            :key="stroke"
            :d="`M${line.from.x * box.w} ${line.from.y * box.h}L${line.to.x * box.w} ${line.to.y * box.h}`"
            :stroke="stroke"
            :stroke-width="i ? 1.4 : 3.6"
          />
        </g>
        <g v-if="corners">
          <polygon :points="poly" fill="#fffdf922" stroke="#fffdf9" stroke-width="3" />
          <polygon :points="poly" fill="none" stroke="#a8432a" stroke-width="1.4" />
          <circle
            v-for="(c, i) in corners"
            :key="i"
            :cx="c.x * box.w"
            :cy="c.y * box.h"
            r="7"
            fill="#fffdf9"
            stroke="#a8432a"
            stroke-width="2"
            tabindex="0"
            role="button"
            :aria-label="'Corner ' + (i + 1)"
            :data-testid="'corner-' + i"
            class="corner"
            @pointerdown="hold($event, (m) => emit('corner', i, share(m)))"
            @keydown="nudge($event, i)"
          />
        </g>
        <g
          v-if="split && !edits.before"
          class="parting"
          data-testid="split"
          @pointerdown="hold($event, (m) => (at = share(m).x))"
        >
          <path :d="`M${at * box.w} 0V${box.h}`" stroke="transparent" stroke-width="18" />
          <path :d="`M${at * box.w} 0V${box.h}`" stroke="#fffdf9" stroke-width="2" />
          <circle :cx="at * box.w" :cy="box.h / 2" r="9" fill="#fffdf9" stroke="#1f2b38" stroke-width="1.2" />
        </g>
      </svg>
      <div v-if="edits.before || split" class="tags">
        <span>As it came</span><span v-if="split && !edits.before">As it is</span>
      </div>
    </div>
    <p v-if="edits.busy" class="busy" role="status" data-testid="working">
      Working it out… <button class="verb" data-testid="stop-working" @click="edits.stop()">Stop</button>
    </p>
    <p v-if="edits.wrong" class="wrong" role="alert">{{ edits.wrong }}</p>
  </div>
</template>

<style scoped>
.room {
  position: relative;
  flex: 1;
  min-height: 0;
  display: grid;
  place-items: center;
  overflow: hidden;
  background: var(--paper1);
}
.photo {
  position: relative;
  user-select: none;
  touch-action: none;
}
img,
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.mask {
  filter: brightness(0) invert(1);
}
.ground {
  position: absolute;
  inset: 0;
}
.hatch {
  pointer-events: none;
}
.faint {
  opacity: 0.75;
}
svg.line {
  cursor: crosshair;
}
.corner {
  cursor: move;
}
.parting {
  cursor: ew-resize;
}
.tags {
  position: absolute;
  inset: auto 8px 8px;
  display: flex;
  justify-content: space-between;
  pointer-events: none;
}
.tags span {
  padding: 2px 8px;
  border-radius: 10px;
  background: #1f2b38cc;
  color: #fffdf9;
  font-size: 11.5px;
}
.busy {
  position: absolute;
  top: 4px;
  right: 40px;
  display: flex;
  gap: 4px;
  align-items: center;
  margin: 0;
  padding: 1px 3px 1px 12px;
  border-radius: 10px;
  background: var(--paper0);
  font-size: 12px;
}
.wrong {
  position: absolute;
  bottom: 8px;
  padding: 4px 10px;
  border-radius: 6px;
  background: var(--paper0);
}
</style>
