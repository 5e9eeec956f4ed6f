<script setup lang="ts">
// Adding mats, one under the other: how far each shows, of which stock; their corners and form.
import { Button, Checkbox, Popover, Segmented, Select, SelectOption, Switch } from 'ant-design-vue'
import { useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import StockField from '../../parts/StockField.vue'
import { cornerNames } from '../../parts/names'
import { INCH } from '../../parts/measure'
import type { Command } from '../../api/types'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import WindowForm from './WindowForm.vue'
import { useTrial } from './useTrial'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const open = ref(false)
usePopover(open, '[data-testid=mat-dialog]', () => (over.value ? frame.value?.lay() : add()))
/** A window mat lies over photos and shapes. */
const over = ref(false)
const frame = ref<InstanceType<typeof WindowForm>>()
const framed = computed(() =>
  card.selected.filter((it) => it.kind !== 'lettering' && it.kind !== 'mat').map((it) => it.id),
)
watch(open, (now) => now && framed.value.length !== card.selected.length && (over.value = false))
interface Step {
  width: number
  stock: string
  /** Ink that is printed on it; none leaves it the colour of its stock. */
  colour?: string
}
// Mats are offered as the last ones were made, from what lies on them outward.
const steps = useStorage<Step[]>('sectilis.mat.steps', [{ width: INCH / 8, stock: 'moss-216' }])
const corner = useStorage<keyof typeof cornerNames>('sectilis.mat.corner', 'square')
const solid = ref(false)
/** Of the outermost: how much farther it shows at the foot, and a form of its own. */
const below = ref(0)
const form = ref('')
const wrong = ref('')
const last = computed(() => steps.value.length - 1)
const suffix = (i: number) => (i ? `-${i + 1}` : '')
const set = (i: number, part: Partial<Step>) =>
  (steps.value = steps.value.map((s, k) => (k === i ? { ...s, ...part } : s)))
/** Ink on a coloured stock would take its colour: a mat that is printed starts with white. */
const print = (i: number, on: boolean) =>
  set(i, on ? { colour: '#a8432a', stock: catalogue.all.first.piece } : { colour: undefined })
const more = () => (steps.value = [...steps.value, { ...steps.value[last.value]!, colour: undefined }])
const less = (i: number) => (steps.value = steps.value.filter((_, k) => k !== i))
const forms = computed(() => catalogue.all.shapes.filter((s) => s.tray))

const can = computed(() => card.selected.length > 0 && card.selected.every((it) => it.takesMat))
/** Lettering and shapes with holes can have a mat that is whole. */
const holes = computed(() => card.selected.some((it) => it.outline.split('M').length > 2))
const options = Object.entries(cornerNames).map(([value, label]) => ({ value, label }))

const commands = computed<Command[]>(() =>
  steps.value.map((s, i) => ({
    do: 'addMat',
    ids: card.selected.map((it) => it.id),
    width: s.width,
    corner: corner.value,
    solid: solid.value,
    stock: s.stock,
    colour: s.colour,
    ...(i === last.value ? { below: below.value, form: form.value || undefined } : {}),
  })),
)
const refused = useTrial(
  computed(() => open.value && !over.value),
  () => (can.value ? commands.value : undefined),
)

async function add() {
  // It closes at once: a click on its verb while the change is on its way opens it anew.
  open.value = false
  if (!(await card.change(...commands.value))) open.value = true
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft">
    <button class="verb" :disabled="!can" data-testid="add-mat">Add mat</button>
    <template #content>
      <div class="mat" data-testid="mat-dialog">
        <h3>
          Mat {{ over ? 'over' : 'under' }}
          {{ card.selected.length === 1 ? card.selected[0]!.name : `${card.selected.length} items` }}
        </h3>
        <Segmented
          v-if="framed.length === card.selected.length"
          :value="over ? 'over' : 'under'"
          class="corner"
          block
          :options="[
            { value: 'under', label: 'Under it' },
            { value: 'over', label: 'Over it, a window' },
          ]"
          data-testid="mat-over"
          @change="(v) => (over = v === 'over')"
        />
        <WindowForm
          v-if="over"
          ref="frame"
          :ids="framed"
          :open="open && over"
          @done="open = false"
          @again="open = true"
        />
        <template v-else>
          <div v-for="(s, i) in steps" :key="i" class="pair step">
            <MeasureField
              :label="steps.length > 1 ? `Mat ${i + 1} shows by` : 'Shows by'"
              :mm="s.width"
              wide
              :testid="'new-mat-width' + suffix(i)"
              @set="set(i, { width: $event })"
              @wrong="wrong = $event"
            />
            <StockField :value="s.stock" :testid="'new-mat-stock' + suffix(i)" @set="set(i, { stock: $event })" />
            <label class="ink wide">
              <Switch
                size="small"
                :checked="!!s.colour"
                :data-testid="'new-mat-ink' + suffix(i)"
                @change="(on) => print(i, on === true)"
              />
              Printed in a colour
              <input
                v-if="s.colour"
                type="color"
                :value="s.colour"
                aria-label="The colour of the mat"
                @change="set(i, { colour: ($event.target as HTMLInputElement).value })"
              />
              <span class="space" />
              <button v-if="last" class="verb" :data-testid="'new-mat-less' + suffix(i)" @click.prevent="less(i)">
                Leave out
              </button>
            </label>
          </div>
          <button v-if="steps.length < 6" class="verb more" data-testid="new-mat-more" @click="more">
            One more mat
          </button>
          <Segmented v-model:value="corner" class="corner" block :options="options" data-testid="new-mat-corner" />
          <div class="pair">
            <MeasureField
              label="At the foot +"
              :mm="below"
              testid="new-mat-below"
              @set="below = $event"
              @wrong="wrong = $event"
            />
            <Field label="Form">
              <Select v-model:value="form" :bordered="false" size="small" data-testid="new-mat-form">
                <SelectOption value="">follows</SelectOption>
                <SelectOption v-for="f in forms" :key="f.id" :value="f.id">{{ f.name }}</SelectOption>
              </Select>
            </Field>
          </div>
          <Checkbox v-if="holes" v-model:checked="solid" class="whole" data-testid="new-mat-solid"
            >Without holes</Checkbox
          >
          <p v-if="wrong || refused" class="wrong" role="alert">{{ prefs.said(wrong || refused) }}</p>
          <Button type="primary" block data-testid="lay-mat" @click="add">{{
            last ? 'Lay them under' : 'Lay it under'
          }}</Button>
        </template>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.mat {
  width: 290px;
  max-height: 76vh;
  overflow: auto;
}
.step + .step {
  padding-top: 10px;
  border-top: 1px solid var(--paper3);
}
.ink {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 26px;
  font-size: 12.5px;
}
.ink input {
  width: 30px;
  height: 22px;
  padding: 0;
  border: 0;
  background: none;
}
.space {
  flex: 1;
}
.more {
  margin: -4px 0 8px -8px;
}
.corner {
  margin-bottom: 10px;
}
h3 {
  margin-bottom: 10px;
}
.pair,
.whole {
  margin-bottom: 10px;
}
</style>
