<script setup lang="ts">
// What shapes and mats need: corners, and for a mat its width.
import { Checkbox, Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import PanelSection from '../../parts/PanelSection.vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import ShareField from '../../parts/ShareField.vue'
import { formatArea } from '../../parts/measure'
import { cornerNames } from '../../parts/names'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const wrong = ref('')

const item = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const doc = computed(() => (item.value ? card.doc(item.value.id) : undefined))
const mat = computed(() => doc.value?.mat)
const form = computed(() => (doc.value?.form?.outline === 'rectangle' ? doc.value.form : undefined))
type Corner = keyof typeof cornerNames
const options = Object.entries(cornerNames).map(([value, label]) => ({ value, label }))

/** An outline that was drawn can keep its ends when it is made longer. */
const free = computed(() =>
  doc.value?.form?.outline === 'free' && !doc.value.byHand && !doc.value.window ? doc.value.form : undefined,
)

const round = computed(() => {
  let under = doc.value
  while (under?.mat) under = card.doc(under.mat.of)
  return under?.form?.outline === 'ellipse'
})

const holes = computed(() => (item.value?.outline.split('M').length ?? 0) > 2)

function setMat(part: Partial<NonNullable<typeof mat.value>>) {
  const { width, corner, solid, below, form, hollow, dx, dy } = { ...mat.value!, ...part }
  void card.change({ do: 'setMat', id: item.value!.id, width, corner, solid, below, form, hollow, dx, dy })
}
const forms = computed(() => catalogue.all.shapes.filter((s) => s.tray))

function corners(c: string | number, radius?: number) {
  const id = item.value!.id
  const corner = c as Corner
  if (mat.value) setMat({ corner })
  else if (form.value) void card.change({ do: 'setForm', id, corner, radius })
}
</script>

<template>
  <PanelSection v-if="free" id="ends-panel" title="Made longer" :fact="free.ends ? 'its ends are kept' : 'stretched'">
    <div class="pair">
      <ShareField
        label="Ends kept"
        :value="Math.round((free.ends ?? 0) * 100)"
        :max="49"
        testid="ends"
        @set="card.change({ do: 'setEnds', ids: [item!.id], ends: $event / 100 })"
      />
    </div>
    <small>This much of it at the left and at the right keeps its form; only what is between is stretched.</small>
  </PanelSection>
  <PanelSection
    v-if="mat || form"
    id="form"
    :title="mat ? 'Mat' : 'Corners'"
    :fact="mat ? prefs.lenUnit(mat.width) : cornerNames[form!.corner as Corner]"
  >
    <Segmented
      v-if="!round"
      :value="mat ? mat.corner : cornerNames[form!.corner as Corner]"
      block
      :options="options"
      data-testid="corners"
      @change="corners($event)"
    />
    <div class="pair">
      <MeasureField
        v-if="mat"
        key="width"
        label="Shows by"
        :mm="mat.width"
        wide
        testid="mat-width"
        @set="setMat({ width: $event })"
        @wrong="wrong = $event"
      />
      <template v-if="mat">
        <MeasureField
          label="At the foot +"
          :mm="mat.below ?? 0"
          testid="mat-below"
          @set="setMat({ below: $event })"
          @wrong="wrong = $event"
        />
        <Field label="Form">
          <Select
            :value="mat.form ?? ''"
            :bordered="false"
            size="small"
            data-testid="mat-form"
            @change="(v) => setMat({ form: String(v) || undefined })"
          >
            <SelectOption value="">follows</SelectOption>
            <SelectOption v-for="f in forms" :key="f.id" :value="f.id">{{ f.name }}</SelectOption>
          </Select>
        </Field>
        <MeasureField
          label="Glued by"
          :mm="mat.hollow ?? 0"
          wide
          title="Its middle is taken out to save paper, but for that much under the edge of what lies on it; 0 leaves it whole"
          testid="mat-hollow"
          @set="setMat({ hollow: $event })"
          @wrong="wrong = $event"
        />
        <MeasureField
          label="Right by"
          :mm="mat.dx ?? 0"
          testid="mat-dx"
          @set="setMat({ dx: $event })"
          @wrong="wrong = $event"
        />
        <MeasureField
          label="Down by"
          :mm="mat.dy ?? 0"
          testid="mat-dy"
          @set="setMat({ dy: $event })"
          @wrong="wrong = $event"
        />
      </template>
      <MeasureField
        v-if="!mat && form && form.corner !== 'square'"
        label="By"
        :mm="form.radius ?? 0"
        wide
        testid="radius"
        @set="corners(form!.corner!, $event)"
        @wrong="wrong = $event"
      />
    </div>
    <Checkbox
      v-if="mat && (mat.solid || holes)"
      :checked="!!mat.solid"
      data-testid="mat-solid"
      @change="setMat({ solid: !mat!.solid })"
    >
      Without holes
    </Checkbox>
    <small v-if="item?.saved" data-testid="mat-saved"
      >Its middle saves {{ formatArea(item.saved, prefs.unit) }} of paper.</small
    >
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.pair:not(:empty) {
  margin-top: 8px;
}
</style>
