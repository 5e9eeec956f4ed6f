<script setup lang="ts">
// What becomes of a piece when it is cut: what would fall out of it, and what holds that; and
// where it is thinner than its stock bears.
import { Button, Checkbox, Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Islands } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'

const card = useCard()
const catalogue = useCatalogue()
const wrong = ref('')

const piece = computed(() => card.pieceOf(card.told))
const placed = computed(() => piece.value?.bridges?.some((b) => b.placed))
const made = computed(() => (piece.value ? card.doc(piece.value.id)?.made : undefined))
const islands = computed<Islands>(() => made.value?.islands ?? {})
const loose = computed(() => piece.value?.islands?.length ?? 0)
const thin = computed(() => piece.value?.thin)
const middles = computed(() => loose.value > 0 || !!islands.value.how)
const parts = computed(() => !!piece.value && card.face?.items.some((it) => it.joined && it.on === piece.value!.id))
const there = computed(() => parts.value || middles.value || !!thin.value || !!made.value?.thicken)
const fact = computed(() =>
  [middles.value && `loose: ${told.value}`, thin.value && `${width.value} thin`].filter(Boolean).join(', '),
)
/** As thin as it is, to a hundredth of a millimetre whatever the unit: it is no measure of the trade. */
const width = computed(() => {
  const t = thin.value
  if (!t) return ''
  return t.least < t.bears ? `${t.least.toFixed(2)} mm, least is ${t.bears.toFixed(2)}` : 'runs to a point'
})
const thicken = (is: boolean) =>
  card.change({ do: 'setMade', ids: [piece.value!.id], made: { ...made.value!, thicken: is || undefined } })
const told = computed(() => {
  if (loose.value) return `${loose.value}${piece.value?.bridges?.length ? ', the others held' : ''}`
  if (islands.value.how === 'leftOut') return 'left out'
  return islands.value.how ? 'all held' : 'none'
})
async function set(part: Islands) {
  // What is changed of it is built on what the change before has made.
  await card.idle()
  if (!piece.value) return
  void card.change({
    do: 'setMade',
    ids: [piece.value.id],
    made: { ...made.value!, islands: part.how === '' ? undefined : { ...islands.value, ...part } },
  })
}
function become(how: string | number) {
  if (how === 'bridged') set(catalogue.all.first.islands)
  else set({ how: how as Islands['how'] })
}
/** What the check would do to carry them by a mat. */
const backing = computed(
  () =>
    card.view?.findings
      .find((f) => f.check === 'looseMiddles' && f.item === piece.value?.id)
      ?.mends?.find((m) => m.do?.some((c) => c.do === 'addMat'))?.do,
)
</script>

<template>
  <PanelSection v-if="piece && there" id="middles" :title="`When ${piece.name} is cut`" :fact="fact">
    <div class="facts">
      <template v-if="middles">
        <span>Loose middles</span>
        <b :class="{ wrong: loose }" data-testid="middles-told">{{ loose ? `${loose} fall out` : told }}</b>
      </template>
      <template v-if="thin">
        <span>Thinnest part</span>
        <b class="wrong" data-testid="thin-told">{{ width }}</b>
      </template>
    </div>
    <Segmented
      v-if="middles"
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
      <small v-if="!placed" class="wide">Drag a bridge by its dot along the edge.</small>
      <button
        v-else
        class="verb wide anew"
        title="Forget where bridges were put by hand"
        data-testid="bridges-anew"
        @click="card.change({ do: 'freeBridges', id: piece.id })"
      >
        Place all bridges anew
      </button>
    </div>
    <Button v-if="backing" size="small" class="back" data-testid="middles-back" @click="card.change(...backing)"
      >Lay a whole mat below</Button
    >
    <Checkbox
      v-if="thin || made?.thicken"
      class="thicken"
      :checked="made?.thicken"
      data-testid="thicken"
      @change="thicken($event.target.checked)"
      >Thicken what is too thin</Checkbox
    >
    <button
      class="verb one"
      title="Keep the outline as it is now; words are a shape from then on"
      data-testid="one-outline"
      @click="card.change({ do: 'makeOneOutline', id: piece.id })"
    >
      Make it one outline
    </button>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin-bottom: 6px;
  font-size: 12.5px;
}
.facts b {
  text-align: right;
  font-weight: 550;
}
.facts .wrong {
  margin: 0;
  color: var(--stop);
}
.pair {
  margin-top: 8px;
}
.wide {
  grid-column: 1 / 3;
}
.anew {
  justify-self: start;
  margin-left: -8px;
}
.one {
  display: block;
  margin: 6px 0 0 -8px;
}
.back,
.thicken {
  margin-top: 8px;
}
</style>
