<script setup lang="ts">
// How a picture is cut in tiers: by which rule, how many, how far each steps in, on foam, edged.
import { Select, SelectOption } from 'ant-design-vue'
import { computed } from 'vue'
import type { Tiers } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import StockField from '../../parts/StockField.vue'
import ShareField from '../../parts/ShareField.vue'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import ColourField from './ColourField.vue'

/** Seen is the picture as it is cropped, to point at what all draw together about. */
const props = defineProps<{ tiers: Tiers; seen?: string }>()
const emit = defineEmits<{ set: [part: Partial<Tiers>]; wrong: [why: string] }>()
const catalogue = useCatalogue()
const prefs = usePrefs()

/** Towards a side all tiers share that edge: they draw together about its middle. */
const ways: Record<string, { name: string; part: Partial<Tiers> }> = {
  place: { name: 'About a place', part: { rule: '', x: 0.5, y: 0.5 } },
  left: { name: 'Towards the left', part: { rule: '', x: 0, y: 0.5 } },
  right: { name: 'Towards the right', part: { rule: '', x: 1, y: 0.5 } },
  top: { name: 'Towards the top', part: { rule: '', x: 0.5, y: 0 } },
  foot: { name: 'Towards the foot', part: { rule: '', x: 0.5, y: 1 } },
  fan: { name: 'Fanned', part: { rule: 'fan', turn: 4 } },
  strips: { name: 'In strips', part: { rule: 'strips' } },
  grid: { name: 'In a grid', part: { rule: 'grid', rows: 3 } },
}
const way = computed(() => {
  const { rule, x, y } = props.tiers
  if (rule) return rule
  return Object.keys(ways).find((k) => k !== 'place' && ways[k]!.part.x === x && ways[k]!.part.y === y) ?? 'place'
})
/** A gap is smaller than a step is. */
function choose(k: string) {
  const gaps = k === 'strips' || k === 'grid'
  emit('set', { ...ways[k]!.part, ...(gaps === apart.value ? {} : { step: gaps ? 3 : 8 }) })
}
/** What matters is pointed at. */
function point(e: MouseEvent) {
  const b = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const share = (v: number, from: number, size: number) =>
    Math.min(1, Math.max(0, Math.round(((v - from) / size) * 100) / 100))
  emit('set', { x: share(e.clientX, b.left, b.width), y: share(e.clientY, b.top, b.height) })
}
const apart = computed(() => way.value === 'strips' || way.value === 'grid')
</script>

<template>
  <div class="pair">
    <Field label="Tiers lie" wide>
      <Select :value="way" :bordered="false" size="small" data-testid="tiers-way" @change="(v) => choose(String(v))">
        <SelectOption v-for="(w, k) in ways" :key="k" :value="k">{{ w.name }}</SelectOption>
      </Select>
    </Field>
    <NumberField
      :label="apart ? 'Side by side' : 'Pieces'"
      :value="tiers.count"
      :digits="0"
      testid="tiers-count"
      @set="emit('set', { count: Math.round($event) })"
      @wrong="emit('wrong', $event)"
    />
    <NumberField
      v-if="way === 'grid'"
      label="Rows"
      :value="tiers.rows ?? 1"
      :digits="0"
      testid="tiers-rows"
      @set="emit('set', { rows: Math.round($event) })"
      @wrong="emit('wrong', $event)"
    />
    <MeasureField
      :label="apart ? 'Gap' : 'Step'"
      :mm="tiers.step"
      testid="tiers-step"
      @set="emit('set', { step: $event })"
      @wrong="emit('wrong', $event)"
    />
    <NumberField
      v-if="way === 'fan'"
      label="Turned by"
      :value="tiers.turn ?? 0"
      sign="°"
      testid="tiers-turn"
      @set="emit('set', { turn: $event })"
      @wrong="emit('wrong', $event)"
    />
    <template v-if="way === 'place' || way === 'fan'">
      <button
        v-if="seen"
        class="point"
        type="button"
        title="Point at what matters: all draw together about it"
        aria-label="Point at what matters"
        data-testid="tiers-point"
        @click="point"
      >
        <img :src="seen" alt="" draggable="false" />
        <i :style="{ left: tiers.x * 100 + '%', top: tiers.y * 100 + '%' }" />
      </button>
      <ShareField
        label="From left"
        :value="Math.round(tiers.x * 100)"
        testid="tiers-x"
        @set="emit('set', { x: $event / 100 })"
      />
      <ShareField
        label="From top"
        :value="Math.round(tiers.y * 100)"
        testid="tiers-y"
        @set="emit('set', { y: $event / 100 })"
      />
    </template>
    <Field label="Foam">
      <Select
        :value="tiers.foam"
        :bordered="false"
        size="small"
        data-testid="tiers-foam"
        @change="(v) => emit('set', { foam: Number(v) })"
      >
        <SelectOption v-for="f in catalogue.all.foam" :key="f" :value="f">{{
          f ? prefs.lenUnit(f) : 'none'
        }}</SelectOption>
      </Select>
    </Field>
    <MeasureField
      label="Edge"
      :mm="tiers.edge ?? 0"
      testid="tiers-edge"
      @set="emit('set', { edge: $event })"
      @wrong="emit('wrong', $event)"
    />
    <template v-if="tiers.edge">
      <ColourField
        label="Edge in"
        wide
        :value="tiers.edgeColour ?? '#ffffff'"
        testid="tiers-colour"
        @set="emit('set', { edgeColour: $event })"
      />
      <StockField
        label="As a stock"
        :value="catalogue.all.stocks.find((s) => s.colour === tiers.edgeColour)?.id"
        testid="tiers-stock"
        @set="emit('set', { edgeColour: catalogue.stock($event)?.colour })"
      />
    </template>
  </div>
</template>

<style scoped>
.point {
  grid-column: 1 / 3;
  position: relative;
  justify-self: center;
  border: 0;
  padding: 0;
  background: none;
  cursor: crosshair;
  line-height: 0;
}
.point img {
  max-width: 100%;
  max-height: 130px;
  border-radius: var(--r);
}
.point i {
  position: absolute;
  width: 14px;
  height: 14px;
  margin: -7px 0 0 -7px;
  border: 2px solid #fffdf9;
  border-radius: 7px;
  background: #a8432acc;
  box-shadow: 0 0 0 1px #1f2b38;
}
input {
  width: 30px;
  height: 22px;
  padding: 0;
  border: 0;
  background: none;
}
</style>
