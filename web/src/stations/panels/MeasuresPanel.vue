<script setup lang="ts">
import { Select, SelectOption, Switch } from 'ant-design-vue'
import { computed, ref } from 'vue'
import PanelSection from '../../parts/PanelSection.vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import { apply, centre, union } from '../../parts/geom'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'
import { useThings } from '../../store/things'
import FitMenu from './FitMenu.vue'

const card = useCard()
const prefs = usePrefs()
const things = useThings()
const wrong = ref('')

const one = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const bounds = computed(() => union(card.told.map((it) => it.bounds)))
/** The size along the item's own axes; of several, that of the box about them. */
const size = computed(() => (one.value ? one.value.box : bounds.value))
const ids = computed(() => card.told.map((it) => it.id))
const mat = computed(() => one.value?.kind === 'mat')

/** Resizes about the upper left corner, which is what “from left” counts from. */
function resize(w: number | undefined, h: number | undefined) {
  const b = size.value
  let fx = w === undefined ? 1 : w / b.w
  let fy = h === undefined ? 1 : h / b.h
  const kept = ratio.value
  if (kept) {
    if (w === undefined) fx = fy
    else fy = fx
  }
  const about = one.value ? apply(one.value.at, { x: b.x, y: b.y }) : { x: b.x, y: b.y }
  void card.change({ do: 'resizeItems', ids: ids.value, fx, fy, about })
}

/** The main fold at an edge of the face, which places can be measured from. */
const fold = computed(() => {
  const l = card.face?.folds.find((f) => f.main)
  if (!l) return undefined
  const upright = Math.abs(l.from.x - l.to.x) < 0.01
  return { upright, at: upright ? l.from.x : l.from.y }
})
/** Where what is selected reaches over onto another face. */
const crossing = computed(() => {
  const f = card.face
  if (!f) return ''
  const b = bounds.value
  for (const n of f.neighbours) {
    const m = apply(n.at, { x: n.width / 2, y: n.height / 2 })
    const over = m.x < 0 ? -b.x : m.x > f.width ? b.x + b.w - f.width : m.y < 0 ? -b.y : b.y + b.h - f.height
    if (over > 0.05) return `Reaches over onto ${n.name} by ${prefs.lenUnit(over)}.`
  }
  return ''
})
type From = 'edge' | 'centre' | 'fold'
const handling = computed(() => things.of(card.id, card.told[0]?.id))
const from = computed<From>(() => {
  const f = handling.value.from ?? 'edge'
  return f === 'fold' && !fold.value ? 'edge' : f
})
/** Whether the ratio is kept: of what cannot be stretched always. */
const ratio = computed(() => !one.value?.freeRatio || !handling.value.free)
/** Where the two places are counted from, and what of the item is counted to. */
const origin = computed(() => {
  const f = card.face
  const b = bounds.value
  const x = { name: 'From left', value: b.x, sign: 1 }
  const y = { name: 'From top', value: b.y, sign: 1 }
  if (!f) return { x, y }
  if (from.value === 'centre') {
    return {
      x: { name: 'From centre', value: b.x + b.w / 2 - f.width / 2, sign: 1 },
      y: { name: 'From middle', value: b.y + b.h / 2 - f.height / 2, sign: 1 },
    }
  }
  if (from.value === 'fold' && fold.value) {
    const { upright, at } = fold.value
    const [start, size, whole] = upright ? [b.x, b.w, f.width] : [b.y, b.h, f.height]
    // From a fold at the far side, the item's far edge is the near one.
    const far = at > whole / 2
    const part = { name: 'From fold', value: far ? at - start - size : start - at, sign: far ? -1 : 1 }
    return upright ? { x: part, y } : { x, y: part }
  }
  return { x, y }
})

const move = (dx: number, dy: number) => void card.change({ do: 'moveItems', ids: ids.value, dx, dy })

function turnTo(deg: number) {
  const it = one.value
  if (!it) return
  void card.change({ do: 'turnItems', ids: ids.value, degrees: deg - it.turn, about: apply(it.at, centre(it.box)) })
}
</script>

<template>
  <PanelSection v-if="card.told.length" id="measures" title="Measures" :fact="prefs.size(size.w, size.h)">
    <template #verbs><FitMenu v-if="one && !mat && !one.role" :item="one.id" /></template>
    <div class="pair">
      <MeasureField
        label="Width"
        :mm="size.w"
        :disabled="mat"
        testid="width"
        @set="resize($event, undefined)"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="Height"
        :mm="size.h"
        :disabled="mat"
        testid="height"
        @set="resize(undefined, $event)"
        @wrong="wrong = $event"
      />
      <MeasureField
        :label="origin.x.name"
        :mm="origin.x.value"
        testid="left"
        @set="move(($event - origin.x.value) * origin.x.sign, 0)"
        @wrong="wrong = $event"
      />
      <MeasureField
        :label="origin.y.name"
        :mm="origin.y.value"
        testid="top"
        @set="move(0, ($event - origin.y.value) * origin.y.sign)"
        @wrong="wrong = $event"
      />
      <NumberField
        v-if="one"
        label="Turn"
        :value="one.turn"
        sign="°"
        testid="turn"
        @set="turnTo"
        @wrong="wrong = $event"
      />
      <Field v-if="!mat" label="In ratio">
        <Switch
          :checked="ratio"
          :disabled="one ? !one.freeRatio : true"
          size="small"
          data-testid="ratio"
          @change="things.set(card.id, ids, { free: ratio })"
        />
        <em>{{ ratio ? 'kept' : 'free' }}</em>
      </Field>
    </div>
    <div class="pair from">
      <Field label="Places from" wide>
        <Select
          :value="from"
          :bordered="false"
          size="small"
          data-testid="from"
          @change="(v) => things.set(card.id, ids, { from: v as From })"
        >
          <SelectOption value="edge">left and top</SelectOption>
          <SelectOption value="centre">the centre</SelectOption>
          <SelectOption v-if="fold" value="fold">the fold</SelectOption>
        </Select>
      </Field>
    </div>
    <small v-if="crossing" class="why" data-testid="crossing">{{ crossing }}</small>
    <p v-if="wrong" class="wrong" role="alert" data-testid="measure-wrong">{{ wrong }}</p>
    <small v-if="mat" class="why">A mat takes its size and place from what lies on it.</small>
  </PanelSection>
</template>

<style scoped>
.from {
  margin-top: 7px;
}
em {
  margin-left: 7px;
  font-style: normal;
  font-weight: 550;
}
.why {
  margin-top: 7px;
}
p {
  margin-bottom: 0;
}
</style>
