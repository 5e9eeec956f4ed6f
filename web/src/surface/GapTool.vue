<script setup lang="ts">
// Measures an opening: the largest rectangle or circle about a place that
// touches nothing, to be made into a guide or a shape.
import { useStorage } from '@vueuse/core'
import { Segmented } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { api, Fault } from '../api/client'
import type { Gap, Item } from '../api/types'
import type { Pt } from '../parts/geom'
import MeasureField from '../parts/MeasureField.vue'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'
import type { Overlay } from './overlay'

const props = defineProps<Overlay>()
const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()

type Use = 'guide' | 'slot' | 'shape' | 'piece'
const uses: { id: Use; name: string }[] = [
  { id: 'guide', name: 'Guide' },
  { id: 'slot', name: 'Photo slot' },
  { id: 'shape', name: 'Printed shape' },
  { id: 'piece', name: 'Cut piece' },
]
/** What was made of a gap last, and the margin that it left. */
const last = useStorage<{ as: Use; less: number }>('sectilis.gap', { as: 'piece', less: 0 })
const gap = ref<Gap>()
const form = ref<'rectangle' | 'circle'>('rectangle')
const wrong = ref('')
watch(
  () => [props.face.id, card.view?.revision],
  () => (gap.value = undefined),
)

const low = ref(false)
async function measure(at: Pt) {
  low.value = at.y < props.face.height / 2
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
/** Enter makes of the gap what was made of the one before it. */
const enter = () => (box.value ? void make(last.value.as) : middle())

const around = (g: Gap) => ({
  x: g.centre.x - g.radius,
  y: g.centre.y - g.radius,
  w: 2 * g.radius,
  h: 2 * g.radius,
})
/** What is measured, less a margin all round. */
const box = computed(() => {
  const g = gap.value
  if (!g) return undefined
  const d = last.value.less
  const b = form.value === 'rectangle' ? g.rect : around(g)
  return b.w > 2 * d + 0.5 && b.h > 2 * d + 0.5 ? { x: b.x + d, y: b.y + d, w: b.w - 2 * d, h: b.h - 2 * d } : b
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

async function make(as: Use) {
  const b = box.value
  if (!b) return
  last.value.as = as
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
          made:
            as === 'piece' ? { as: 'cut', stock: prefs.mine.stock || catalogue.all.first.piece } : { as: 'printed' },
          fill: as === 'shape' ? { colour: prefs.mine.ink || '#587a4a' } : {},
          form: shape,
          ...(as === 'slot' ? { slot: { takes: 'photo' as const, fill: {}, made: { as: 'printed' as const } } } : {}),
        }
  await card.selectMade(card.change({ do: 'placeItems', face: props.face.id, items: [item] }))
}
</script>

<template>
  <div class="tool" tabindex="0" data-testid="gap" @pointerdown.stop="down" @dblclick.stop @keydown.enter.self="enter">
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
    <!-- It keeps off the place that was measured. -->
    <div class="says" :class="{ low }" @pointerdown.stop>
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
        <MeasureField
          class="less"
          label="Less"
          :mm="last.less"
          testid="gap-less"
          @set="last.less = Math.max(0, $event)"
        />
        <span>Make a</span>
        <button
          v-for="u in uses"
          :key="u.id"
          class="verb"
          :class="{ main: last.as === u.id }"
          :title="last.as === u.id ? 'Enter' : undefined"
          :data-testid="'gap-' + u.id"
          @click="make(u.id)"
        >
          {{ u.name }}
        </button>
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
  width: max-content;
  max-width: calc(100% - 48px);
  flex-wrap: wrap;
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
.says.low {
  top: auto;
  bottom: 52px;
}
.less {
  width: 92px;
}
.main {
  background: var(--paper2);
}
</style>
