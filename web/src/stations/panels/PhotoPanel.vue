<script setup lang="ts">
// A photo in its opening: how much of it is seen, through which outline, how
// sharp it prints, and dividing the opening.
import { Button, Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import ShareField from '../../parts/ShareField.vue'
import { INCH } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useTool } from '../../store/tool'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const tool = useTool()
const wrong = ref('')

const one = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const photo = computed(() => (one.value?.kind === 'photo' ? card.doc(one.value.id)?.photo : undefined))
/** What could hold a photo: anything with an outline of its own. */
const holder = computed(() =>
  one.value && card.doc(one.value.id)?.form && one.value.slot !== 'words' ? one.value : undefined,
)
const two = computed(() => {
  if (card.told.length !== 2) return undefined
  const photos = card.told.filter((it) => it.kind === 'photo')
  const other = card.told.find((it) => it.kind !== 'photo')
  return { photos, other: other && !other.role ? other : undefined }
})

const ppi = computed(() => one.value?.picture?.ppi ?? 0)
const sharp = computed(() => {
  if (ppi.value >= 220) return { word: 'prints sharp', cls: 'fine' }
  if (ppi.value >= 140) return { word: 'prints a little soft', cls: 'soft' }
  return { word: 'prints coarse: show it smaller, zoom out or take a larger picture', cls: 'coarse' }
})

interface Crop {
  fit?: boolean
  zoom?: number
  shiftX?: number
  shiftY?: number
}
function crop(c: Crop) {
  const p = photo.value
  if (!p || !one.value) return
  const now = { fit: !!p.fit, zoom: p.zoom || 1, shiftX: p.shiftX ?? 0, shiftY: p.shiftY ?? 0 }
  void card.change({ do: 'cropPhoto', id: one.value.id, ...now, ...c })
}

const openings = computed(() => catalogue.all.shapes.filter((s) => s.opening))
/** Which entry of the catalogue the opening is, or free. */
const outline = computed(() => {
  const o = photo.value?.opening ?? { outline: 'rectangle', corner: 'square' }
  const same = (s: { outline: string; corner?: string }) =>
    s.outline === o.outline && (s.corner ?? '') === (o.corner ?? '')
  return openings.value.find(same)?.id ?? 'free'
})
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
async function cropTo() {
  const t = two.value
  if (!t?.other || !t.photos[0]) return
  const id = t.photos[0].id
  await card.selectMade(card.change({ do: 'cropToOutline', photo: id, by: t.other.id }), () => [id])
}
const swap = () => {
  const [a, b] = card.told
  if (a && b) void card.change({ do: 'swapPictures', a: a.id, b: b.id })
}
</script>

<template>
  <section v-if="photo && one" class="sec" data-testid="photo">
    <h3>Photo</h3>
    <p class="ppi" :class="sharp.cls" data-testid="ppi">{{ ppi }} pixels to the inch: {{ sharp.word }}</p>
    <div class="pair">
      <Segmented
        class="wide"
        block
        :value="photo.fit ? 'fit' : 'fill'"
        :options="[
          { value: 'fill', label: 'Fill' },
          { value: 'fit', label: 'Fit' },
        ]"
        data-testid="photo-fit"
        @change="(v) => crop({ fit: v === 'fit', zoom: 1, shiftX: 0, shiftY: 0 })"
      />
      <ShareField
        label="Zoom"
        :value="Math.round((photo.zoom || 1) * 100)"
        :min="100"
        :max="500"
        testid="photo-zoom"
        @set="crop({ zoom: $event / 100 })"
      />
      <div class="wide choices">
        <button class="verb" data-testid="photo-slide" :aria-pressed="tool.tool === 'crop'" @click="tool.take('crop')">
          Slide it
        </button>
        <button class="verb" data-testid="photo-centre" @click="crop({ shiftX: 0, shiftY: 0 })">Centre</button>
        <button class="verb" data-testid="photo-replace" @click="card.awaiting = one.id">Replace</button>
      </div>
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
  </section>
  <section
    v-if="two && (two.photos.length === 2 || (two.photos.length && two.other))"
    class="sec"
    data-testid="photo-two"
  >
    <h3>Photo</h3>
    <Button v-if="two.photos.length === 2 || two.other?.slot" block data-testid="swap-pictures" @click="swap"
      >Swap the pictures</Button
    >
    <Button v-else block data-testid="crop-to" @click="cropTo">Crop the photo to {{ two.other!.name }}</Button>
  </section>
  <section v-if="holder || (photo && one)" class="sec" data-testid="opening-panel">
    <template v-if="holder">
      <h3>Opening</h3>
      <Button block data-testid="fill-photo" @click="card.awaiting = holder.id">Put a photo in it</Button>
    </template>
    <small class="also">Divide the opening</small>
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
  </section>
</template>

<style scoped>
.wide {
  grid-column: 1 / 3;
}
.choices {
  display: flex;
  margin: 0 -8px;
}
.also {
  margin: 8px 0 5px;
}
.ppi {
  margin: 2px 0 8px;
  font-size: 12px;
}
.fine {
  color: var(--moss);
}
.soft {
  color: #8a5a0a;
}
.coarse {
  color: var(--stop);
}
</style>
