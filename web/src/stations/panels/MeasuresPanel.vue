<script setup lang="ts">
import { Switch } from 'ant-design-vue'
import { computed, ref } from 'vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import { apply, centre, union } from '../../parts/geom'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'

const card = useCard()
const prefs = usePrefs()
const wrong = ref('')

const one = computed(() => (card.selected.length === 1 ? card.selected[0] : undefined))
const bounds = computed(() => union(card.selected.map((it) => it.bounds)))
/** The size along the item's own axes; of several, that of the box about them. */
const size = computed(() => (one.value ? one.value.box : bounds.value))
const ids = computed(() => card.selected.map((it) => it.id))
const mat = computed(() => one.value?.kind === 'mat')

/** Resizes about the upper left corner, which is what “from left” counts from. */
function resize(w: number | undefined, h: number | undefined) {
  const b = size.value
  let fx = w === undefined ? 1 : w / b.w
  let fy = h === undefined ? 1 : h / b.h
  const kept = prefs.ratio || !one.value?.freeRatio
  if (kept) {
    if (w === undefined) fx = fy
    else fy = fx
  }
  const about = one.value ? apply(one.value.at, { x: b.x, y: b.y }) : { x: b.x, y: b.y }
  void card.change({ do: 'resizeItems', ids: ids.value, fx, fy, about })
}

const move = (dx: number, dy: number) => void card.change({ do: 'moveItems', ids: ids.value, dx, dy })

function turnTo(deg: number) {
  const it = one.value
  if (!it) return
  void card.change({ do: 'turnItems', ids: ids.value, degrees: deg - it.turn, about: apply(it.at, centre(it.box)) })
}
</script>

<template>
  <section v-if="card.selected.length" class="sec" data-testid="measures">
    <h3>Measures</h3>
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
        label="From left"
        :mm="bounds.x"
        testid="left"
        @set="move($event - bounds.x, 0)"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="From top"
        :mm="bounds.y"
        testid="top"
        @set="move(0, $event - bounds.y)"
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
          :checked="prefs.ratio || (one ? !one.freeRatio : true)"
          :disabled="one ? !one.freeRatio : true"
          size="small"
          data-testid="ratio"
          @change="prefs.ratio = !prefs.ratio"
        />
        <em>{{ prefs.ratio || !one?.freeRatio ? 'kept' : 'free' }}</em>
      </Field>
    </div>
    <p v-if="wrong" class="wrong" role="alert" data-testid="measure-wrong">{{ wrong }}</p>
    <small v-if="mat" class="why">A mat takes its size and place from what lies on it.</small>
  </section>
</template>

<style scoped>
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
