<script setup lang="ts">
// The closed size of the card, by trade size or typed, and which way it stands.
import { Segmented, Select, SelectOptGroup, SelectOption } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { Base } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import { formatSize } from '../../parts/measure'
import { tradeOf } from '../../parts/names'
import NumberField from '../../parts/NumberField.vue'
import { useCatalogue } from '../../store/catalogue'
import { useFold } from '../../store/fold'
import { usePrefs } from '../../store/prefs'

const props = defineProps<{ base: Base }>()
const emit = defineEmits<{ set: [part: Partial<Base>] }>()
const catalogue = useCatalogue()
const prefs = usePrefs()

const wrong = ref('')
watch(
  () => props.base,
  () => (wrong.value = ''),
)
const fold = useFold()
void fold.load()
const measures = computed(() => (fold.view?.base.kind === props.base.kind ? fold.view.measures : []))
const says = computed(() =>
  props.base.drawn
    ? `Made from “${props.base.drawn.name}”. Another size stretches it.`
    : (catalogue.all.bases.find((k) => k.id === props.base.kind)?.says ?? ''),
)
const measure = (id: string, v: number) => emit('set', { measures: { ...props.base.measures, [id]: v } })
/** Chosen by the person; a size that is no trade size is their own anyway. */
const own = ref(false)
const trade = computed(() => tradeOf(catalogue.all, props.base.width, props.base.height))
const upright = computed(() => (props.base.height >= props.base.width ? 'portrait' : 'landscape'))
const square = computed(() => Math.abs(props.base.height - props.base.width) < 0.01)
const families = computed(() =>
  ['Letter', 'ISO'].map((name) => ({ name, trades: catalogue.all.trades.filter((t) => t.family === name) })),
)

function size(name: string) {
  own.value = name === 'own'
  const t = catalogue.all.trades.find((x) => x.name === name)
  if (!t) return
  emit(
    'set',
    upright.value === 'portrait' ? { width: t.width, height: t.height } : { width: t.height, height: t.width },
  )
}

function turn(to: string | number) {
  if (to !== upright.value) emit('set', { width: props.base.height, height: props.base.width })
}
</script>

<template>
  <section class="sec">
    <h3>Measures</h3>
    <div class="pair">
      <Field label="Closed" wide>
        <Select
          :value="own || !trade ? 'own' : trade.name"
          :bordered="false"
          size="small"
          :list-height="340"
          data-testid="closed"
          @change="(v) => size(String(v))"
        >
          <SelectOptGroup v-for="f in families" :key="f.name" :label="f.name + ' family'">
            <SelectOption v-for="t in f.trades" :key="t.name" :value="t.name">
              {{ t.name }}, {{ f.name === 'ISO' ? formatSize(t.width, t.height, 'mm') : prefs.size(t.width, t.height) }}
            </SelectOption>
          </SelectOptGroup>
          <SelectOption value="own">A size of one’s own</SelectOption>
        </Select>
      </Field>
      <MeasureField
        label="Width"
        :mm="base.width"
        testid="base-width"
        @set="$emit('set', { width: $event })"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="Height"
        :mm="base.height"
        testid="base-height"
        @set="$emit('set', { height: $event })"
        @wrong="wrong = $event"
      />
      <template v-for="m in measures" :key="m.id">
        <MeasureField
          v-if="m.unit === 'mm'"
          :label="m.name"
          :mm="m.at"
          :wide="m.name.length > 12"
          :testid="'measure-' + m.id"
          @set="measure(m.id, $event)"
          @wrong="wrong = $event"
        />
        <Field v-else-if="m.names" :label="m.name" wide>
          <Select
            :value="m.at"
            :bordered="false"
            size="small"
            :data-testid="'measure-' + m.id"
            @change="(v) => measure(m.id, Number(v))"
          >
            <SelectOption v-for="(name, i) in m.names" :key="name" :value="i">{{ name }}</SelectOption>
          </Select>
        </Field>
        <NumberField
          v-else
          :label="m.name"
          :value="m.at"
          :digits="0"
          :sign="m.unit === 'degrees' ? '°' : ''"
          :wide="m.name.length > 12"
          :testid="'measure-' + m.id"
          @set="measure(m.id, $event)"
          @wrong="wrong = $event"
        />
      </template>
      <Segmented
        v-if="!square"
        class="wide"
        block
        :value="upright"
        :options="[
          { value: 'portrait', label: 'Portrait' },
          { value: 'landscape', label: 'Landscape' },
        ]"
        data-testid="upright"
        @change="turn"
      />
    </div>
    <p v-if="wrong" class="wrong" role="alert" data-testid="base-wrong">{{ wrong }}</p>
    <small class="note" data-testid="base-limit">{{ fold.view?.limit || says }}</small>
  </section>
</template>

<style scoped>
.note {
  margin-top: 8px;
}
p {
  margin-bottom: 0;
}
</style>
