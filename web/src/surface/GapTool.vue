<script setup lang="ts">
// Measures an opening: the largest rectangle or circle about a place that
// touches nothing, to be made into a guide or a shape.
import { Segmented } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { api, Fault } from '../api/client'
import type { Gap, Item } from '../api/types'
import type { Pt } from '../parts/geom'
import { useCard } from '../store/card'
import { usePrefs } from '../store/prefs'
import { useTool } from '../store/tool'
import type { Overlay } from './overlay'

const props = defineProps<Overlay>()
const card = useCard()
const prefs = usePrefs()
const tool = useTool()

const gap = ref<Gap>()
const form = ref<'rectangle' | 'circle'>('rectangle')
const wrong = ref('')
watch(
  () => [props.face.id, card.view?.revision],
  () => (gap.value = undefined),
)

async function measure(at: Pt) {
  wrong.value = ''
  try {
    gap.value = await api.gap(card.id, props.face.id, at)
  } catch (e) {
    gap.value = undefined
    wrong.value = e instanceof Fault ? e.message : String(e)
  }
}
const down = (e: PointerEvent) => e.button === 0 && void measure(props.toFace(props.local(e)))
/** The keyboard measures from the middle of the face. */
const middle = () => void measure({ x: props.face.width / 2, y: props.face.height / 2 })

const box = computed(() => {
  const g = gap.value
  if (!g) return undefined
  if (form.value === 'rectangle') return g.rect
  return { x: g.centre.x - g.radius, y: g.centre.y - g.radius, w: 2 * g.radius, h: 2 * g.radius }
})
const drawn = computed(() => {
  const b = box.value
  if (!b) return undefined
  const p = props.toScreen(b)
  return { x: p.x, y: p.y, width: b.w * props.scale, height: b.h * props.scale }
})
const size = computed(() => {
  const b = box.value
  if (!b) return ''
  return form.value === 'circle' ? `${prefs.lenUnit(b.w)} across` : prefs.size(b.w, b.h)
})

async function make(as: 'guide' | 'slot' | 'shape') {
  const b = box.value
  if (!b) return
  const place = { x: b.x + b.w / 2, y: b.y + b.h / 2, turn: 0 }
  const circle = form.value === 'circle'
  const outline = circle ? ('ellipse' as const) : ('rectangle' as const)
  const shape = { outline, width: b.w, height: b.h, ...(circle ? {} : { corner: 'square' as const }) }
  const ring = circle ? 'M5 0A5 5 0 0 1 -5 0A5 5 0 0 1 5 0z' : `M0 0H${b.w}V${b.h}H0z`
  const item: Item =
    as === 'guide'
      ? {
          id: 'new',
          name: `Gap ${size.value}`,
          kind: 'drawing',
          place,
          made: { as: 'line' },
          fill: {},
          lines: { role: 'guide', path: ring, width: b.w, height: b.h },
        }
      : {
          id: 'new',
          name: as === 'slot' ? 'Photo slot' : circle ? 'Circle' : 'Rectangle',
          kind: as === 'slot' ? 'slot' : 'shape',
          place,
          made: { as: 'printed' },
          fill: as === 'slot' ? {} : { colour: '#587a4a' },
          form: shape,
          ...(as === 'slot' ? { slot: { takes: 'photo' as const, fill: {}, made: { as: 'printed' as const } } } : {}),
        }
  const v = await card.selectMade(card.change({ do: 'placeItems', face: props.face.id, items: [item] }))
  if (v?.made) tool.take('choose')
}
</script>

<template>
  <div class="tool" tabindex="0" data-testid="gap" @pointerdown.stop="down" @dblclick.stop @keydown.enter.self="middle">
    <svg width="100%" height="100%">
      <template v-if="drawn">
        <rect
          v-bind="drawn"
          :rx="form === 'circle' ? drawn.width / 2 : 0"
          fill="#e2a42b33"
          stroke="#fffdf9"
          stroke-width="4"
        />
        <rect
          v-bind="drawn"
          :rx="form === 'circle' ? drawn.width / 2 : 0"
          fill="none"
          stroke="#b9770e"
          stroke-width="1.6"
          data-testid="gap-form"
        />
      </template>
    </svg>
    <div class="says" @pointerdown.stop>
      <template v-if="gap">
        <b data-testid="gap-size">{{ size }}</b>
        <Segmented
          v-model:value="form"
          size="small"
          :options="[
            { value: 'rectangle', label: 'Rectangle' },
            { value: 'circle', label: 'Circle' },
          ]"
          data-testid="gap-kind"
        />
        <span>Make it a</span>
        <button class="verb" data-testid="gap-guide" @click="make('guide')">Guide</button>
        <button class="verb" data-testid="gap-slot" @click="make('slot')">Photo slot</button>
        <button class="verb" data-testid="gap-shape" @click="make('shape')">Shape</button>
      </template>
      <span v-else>{{ wrong || 'Point at an opening: the largest rectangle or circle that fits is measured.' }}</span>
    </div>
  </div>
</template>

<style scoped>
.tool {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
  outline: none;
}
svg {
  display: block;
}
.says {
  position: absolute;
  left: 50%;
  top: 32px;
  transform: translateX(-50%);
  display: flex;
  align-items: center;
  gap: 9px;
  padding: 5px 12px;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: var(--paper0);
  cursor: default;
  white-space: nowrap;
}
.says span {
  color: var(--ink7);
}
</style>
