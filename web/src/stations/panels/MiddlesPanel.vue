<script setup lang="ts">
// What would fall out of a piece when it is cut, and what holds it: bridges, a whole mat below,
// or nothing, where it is left out with its hole.
import { Button, Checkbox, Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Islands } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { INCH } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'

const card = useCard()
const catalogue = useCatalogue()
const wrong = ref('')

/** The piece that is chosen, or the one that what is chosen is part of. */
const piece = computed(() => {
  const one = card.told.length === 1 ? card.told[0] : undefined
  return one?.joined ? card.items.get(one.on ?? '') : one?.piece ? one : undefined
})
const made = computed(() => (piece.value ? card.doc(piece.value.id)?.made : undefined))
const islands = computed<Islands>(() => made.value?.islands ?? {})
const loose = computed(() => piece.value?.islands?.length ?? 0)
const there = computed(() => loose.value > 0 || !!islands.value.how)
const told = computed(() => {
  if (loose.value) return `${loose.value}${piece.value?.bridges?.length ? ', the others held' : ''}`
  if (islands.value.how === 'leftOut') return 'left out'
  return islands.value.how ? 'all held' : 'none'
})
const set = (part: Islands) =>
  void card.change({
    do: 'setMade',
    ids: [piece.value!.id],
    made: { ...made.value!, islands: part.how === '' ? undefined : { ...islands.value, ...part } },
  })
function become(how: string | number) {
  if (how === 'bridged') set(catalogue.all.first.islands)
  else set({ how: how as Islands['how'] })
}
const back = () =>
  card.change({
    do: 'addMat',
    ids: [piece.value!.id],
    width: INCH / 8,
    corner: 'square',
    solid: true,
    stock: catalogue.all.first.piece,
  })
</script>

<template>
  <PanelSection v-if="piece && there" id="middles" title="Loose middles" :fact="told">
    <p class="told" :class="{ wrong: loose }" data-testid="middles-told">
      {{ piece.name }}: {{ loose ? `${loose} fall${loose === 1 ? 's' : ''} out when it is cut` : told }}
    </p>
    <Segmented
      :value="islands.how ?? ''"
      block
      :options="[
        { value: '', label: 'Loose' },
        { value: 'bridged', label: 'Bridges' },
        { value: 'leftOut', label: 'Left out' },
      ]"
      aria-label="What becomes of loose middles"
      data-testid="middles"
      @change="become"
    />
    <div v-if="islands.how === 'bridged'" class="pair">
      <NumberField
        label="Bridges, each"
        :value="islands.each ?? 1"
        :digits="0"
        testid="bridges-each"
        @set="set({ each: $event })"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="Wide"
        :mm="islands.width"
        testid="bridges-width"
        @set="set({ width: $event })"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="Wider at the ends by"
        wide
        :mm="islands.foot ?? 0"
        testid="bridges-foot"
        @set="set({ foot: $event })"
        @wrong="wrong = $event"
      />
      <Checkbox
        class="wide"
        :checked="islands.inLine"
        data-testid="bridges-line"
        @change="set({ inLine: $event.target.checked })"
        >In one line through neighbours</Checkbox
      >
    </div>
    <Button v-if="loose" size="small" class="back" data-testid="middles-back" @click="back"
      >Lay a whole mat below</Button
    >
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.told {
  margin: 0 0 6px;
  font-size: 12.5px;
}
.pair {
  margin-top: 8px;
}
.wide {
  grid-column: 1 / 3;
}
.back {
  margin-top: 8px;
}
</style>
