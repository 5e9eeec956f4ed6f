<script setup lang="ts">
// Where the chosen piece lies on its sheet, to be set exactly.
import { computed, ref, watch } from 'vue'
import { Select, SelectOption } from 'ant-design-vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import { useSheets } from '../../store/sheets'
import type { Laying } from './useLaying'

const props = defineProps<{ laying: Laying }>()
const store = useSheets()
const wrong = ref('')
const one = computed(() => (props.laying.chosen.value.length === 1 ? props.laying.chosen.value[0] : undefined))
watch(
  () => one.value?.piece.id,
  () => (wrong.value = ''),
)
/** The sheets that the piece may lie on. */
const sheets = computed(() =>
  (store.layout?.sheets ?? []).filter(
    (s) => s.stock.id === one.value?.sheet.stock.id && (s.of >= 0 || s === one.value?.sheet),
  ),
)
const say = (why: string) => why && (wrong.value = why)
function move(dx: number, dy: number) {
  wrong.value = ''
  props.laying.move(dx, dy)
}
</script>

<template>
  <section v-if="one" class="sec" data-testid="piece-panel">
    <h3>{{ one.piece.name }}</h3>
    <div class="pair">
      <MeasureField
        label="From left"
        :mm="one.piece.box.x"
        testid="piece-x"
        @set="move($event - one.piece.box.x, 0)"
        @wrong="say"
      />
      <MeasureField
        label="From top"
        :mm="one.piece.box.y"
        testid="piece-y"
        @set="move(0, $event - one.piece.box.y)"
        @wrong="say"
      />
      <NumberField
        label="Turned"
        :value="one.piece.place.turn"
        sign="°"
        :digits="1"
        testid="piece-turn"
        @set="laying.turn($event - one.piece.place.turn)"
        @wrong="say"
      />
      <Field label="On sheet">
        <Select
          :value="one.sheet.of"
          :bordered="false"
          size="small"
          data-testid="piece-sheet"
          @change="(v) => laying.onto(Number(v))"
        >
          <SelectOption v-for="s in sheets" :key="s.of" :value="s.of">{{ s.number }}</SelectOption>
        </Select>
      </Field>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <small class="note" :class="{ wrong: one.piece.wrong }" data-testid="piece-note">{{
      one.piece.wrong ||
      (one.piece.byHand
        ? 'Laid by hand: it stays here, and the others are laid round it.'
        : 'Drag it, or set where it lies: then it stays there.')
    }}</small>
  </section>
</template>

<style scoped>
.note {
  display: block;
  margin-top: 8px;
}
p {
  margin: 8px 0 0;
}
</style>
