<script setup lang="ts">
// The opening of a photo, or what could become one: its outline, its size about the picture
// that stays where it is, and dividing it into cells.
import { Button, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { INCH } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const wrong = ref('')

const one = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const photo = computed(() => (one.value?.kind === 'photo' ? card.doc(one.value.id)?.photo : undefined))
/** What could hold a photo: anything with an outline of its own. */
const holder = computed(() =>
  one.value && card.doc(one.value.id)?.form && one.value.slot !== 'words' ? one.value : undefined,
)
const openings = computed(() => catalogue.all.shapes.filter((s) => s.opening))
/** Which entry of the catalogue the opening is, or free. */
const outline = computed(() => {
  const o = photo.value?.opening ?? { outline: 'rectangle', corner: 'square' }
  const same = (s: { outline: string; corner?: string }) =>
    s.outline === o.outline && (s.corner ?? '') === (o.corner ?? '')
  return openings.value.find(same)?.id ?? 'free'
})
const openingName = computed(() => openings.value.find((o) => o.id === outline.value)?.opening ?? 'its own outline')
function setOutline(id: string) {
  const s = openings.value.find((x) => x.id === id)
  if (!s || !one.value) return
  const corner = s.corner ? { corner: s.corner, radius: s.radius ?? 0 } : {}
  void card.change({ do: 'setOpening', ids: [one.value.id], outline: s.outline, ...corner })
}

const by = ref(INCH / 16)
const grow = (sign: 1 | -1) => {
  if (!one.value) return
  const corner = photo.value?.opening ? 'round' : 'square'
  void card.change({ do: 'growOpening', ids: [one.value.id], by: sign * by.value, corner })
}

const columns = ref(2)
const rows = ref(1)
const gap = ref(INCH / 8)
async function divide() {
  const it = one.value
  if (!it) return
  const asked = card.change({
    do: 'divideOpening',
    id: it.id,
    columns: columns.value,
    rows: rows.value,
    gap: gap.value,
  })
  const v = await card.selectMade(asked)
  // Its cells are filled one after the other.
  card.awaiting = v?.made?.find((id) => card.items.get(id)?.slot === 'photo') ?? ''
}
</script>

<template>
  <PanelSection
    v-if="holder || (photo && one)"
    id="opening-panel"
    title="Opening"
    :fact="photo ? openingName : 'for a photo'"
  >
    <div v-if="photo" class="pair">
      <Field label="Opening" wide>
        <Select
          :value="outline"
          :bordered="false"
          size="small"
          data-testid="opening-outline"
          @change="(v) => setOutline(String(v))"
        >
          <SelectOption v-for="o in openings" :key="o.id" :value="o.id">{{ o.opening }}</SelectOption>
          <SelectOption v-if="outline === 'free'" value="free" disabled>Its own outline</SelectOption>
        </Select>
      </Field>
      <MeasureField label="By" :mm="by" testid="crop-by" @set="((by = $event), (wrong = ''))" @wrong="wrong = $event" />
      <div class="choices">
        <button class="verb" data-testid="crop-grow" title="The picture stays where it is" @click="grow(1)">
          Grow
        </button>
        <button class="verb" data-testid="crop-shrink" title="The picture stays where it is" @click="grow(-1)">
          Shrink
        </button>
      </div>
    </div>
    <Button v-if="holder" block data-testid="fill-photo" @click="card.awaiting = holder.id">Put a photo in it</Button>
    <small class="also">Divide it into cells</small>
    <div class="pair">
      <NumberField
        label="Across"
        :value="columns"
        testid="divide-columns"
        @set="columns = Math.round($event)"
        @wrong="wrong = $event"
      />
      <NumberField
        label="Down"
        :value="rows"
        testid="divide-rows"
        @set="rows = Math.round($event)"
        @wrong="wrong = $event"
      />
      <MeasureField label="Gap" :mm="gap" testid="divide-gap" @set="gap = $event" @wrong="wrong = $event" />
      <Button data-testid="divide-apply" :title="`Cells with a gap of ${prefs.lenUnit(gap)}`" @click="divide"
        >Divide</Button
      >
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.choices {
  display: flex;
  margin: 0 -8px;
}
.also {
  margin: 8px 0 5px;
}
</style>
