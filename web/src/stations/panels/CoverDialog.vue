<script setup lang="ts">
// Mats on the panels of whole faces, each layer stepping in from the one below: seen before they are laid.
import { Button, CheckboxGroup, Popover, Select, SelectOption } from 'ant-design-vue'
import { useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { Command, PanelLayer } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import StockField from '../../parts/StockField.vue'
import { INCH } from '../../parts/measure'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useTrial } from './useTrial'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const open = ref(false)
usePopover(open, '[data-testid=cover-dialog]', () => lay())
const first: PanelLayer = { margin: INCH / 8, stocks: ['moss-216'] }
/** Layers are offered as the last ones were laid, or as they lie on the face. */
const layers = useStorage<PanelLayer[]>('sectilis.panel.layers', [first])
const faces = ref<string[]>([])
const wrong = ref('')

const covered = computed(() => card.view?.card.faces.filter((f) => f.covered).map((f) => f.id) ?? [])
const all = computed(() => (card.view?.scene.faces ?? []).map((f) => ({ value: f.id, label: f.name })))
watch(open, (now) => {
  if (!now) return
  wrong.value = ''
  const here = card.view?.card.faces.find((f) => f.id === card.faceId)?.covered
  if (here) layers.value = here.layers
  // What is covered already; else the faces that are seen together with this one.
  const side = card.face?.side
  faces.value = here
    ? covered.value
    : (card.view?.scene.faces.filter((f) => f.side === side).map((f) => f.id) ?? [card.faceId])
})

const last = computed(() => layers.value.length - 1)
const suffix = (i: number) => (i ? `-${i + 1}` : '')
const set = (i: number, part: Partial<PanelLayer>) =>
  (layers.value = layers.value.map((l, k) => (k === i ? { ...l, ...part } : l)))
/** What the mats of a layer are made of, in turn from panel to panel. */
const turns = ({ stocks, papers = [] }: PanelLayer) =>
  Array.from({ length: Math.max(stocks.length, papers.length) }, (_, n) => ({
    stock: stocks[n % stocks.length]!,
    paper: papers[n % papers.length] ?? '',
  }))
const make = (i: number, list: { stock: string; paper: string }[]) =>
  set(i, { stocks: list.map((t) => t.stock), papers: list.some((t) => t.paper) ? list.map((t) => t.paper) : undefined })
const turn = (i: number, n: number, part: { stock?: string; paper?: string }) =>
  make(
    i,
    turns(layers.value[i]!).map((t, k) => (k === n ? { ...t, ...part } : t)),
  )
const more = () => (layers.value = [...layers.value, { ...layers.value[last.value]! }])
const less = (i: number) => (layers.value = layers.value.filter((_, k) => k !== i))

const command = computed<Command>(() => ({ do: 'coverPanels', faces: faces.value, layers: layers.value }))
const refused = useTrial(open, () => command.value)
async function lay() {
  const cmd = command.value
  open.value = false
  if (!(await card.change(cmd))) open.value = true
}
async function off() {
  open.value = false
  await card.change({ do: 'coverPanels', faces: covered.value, layers: [] })
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="leftTop">
    <Button size="small" data-testid="cover-verb">{{ covered.length ? 'Change the mats' : 'Mats on panels' }}</Button>
    <template #content>
      <div class="cover" data-testid="cover-dialog">
        <h3>Mats on panels</h3>
        <p>On every panel of</p>
        <CheckboxGroup v-model:value="faces" class="faces" :options="all" data-testid="cover-faces" />
        <div v-for="(l, i) in layers" :key="i" class="pair step">
          <MeasureField
            :label="i ? 'In from the one below' : 'In from edge and fold'"
            :mm="l.margin"
            wide
            :testid="'cover-margin' + suffix(i)"
            @set="set(i, { margin: $event })"
            @wrong="wrong = $event"
          />
          <template v-for="(t, n) in turns(l)" :key="n">
            <StockField
              :label="n ? 'Then' : turns(l).length > 1 ? 'In turn' : 'Stock'"
              :value="t.stock"
              :testid="'cover-stock' + suffix(i) + (n ? '-then' + n : '')"
              @set="turn(i, n, { stock: $event })"
            />
            <Field label="Printed with" wide>
              <Select
                :value="t.paper"
                :bordered="false"
                size="small"
                :list-height="260"
                :data-testid="'cover-paper' + suffix(i) + (n ? '-then' + n : '')"
                @change="(v) => turn(i, n, { paper: String(v ?? '') })"
              >
                <SelectOption value="">nothing, the stock shows</SelectOption>
                <SelectOption v-for="p in catalogue.papers" :key="p.id" :value="p.id">{{ p.name }}</SelectOption>
              </Select>
            </Field>
          </template>
          <div class="wide row">
            <button
              v-if="turns(l).length < 4"
              class="verb"
              :data-testid="'cover-turn' + suffix(i)"
              @click="make(i, [...turns(l), turns(l)[0]!])"
            >
              One more in turn
            </button>
            <button v-if="turns(l).length > 1" class="verb" @click="make(i, turns(l).slice(0, -1))">One less</button>
            <span class="space" />
            <button v-if="last" class="verb" :data-testid="'cover-less' + suffix(i)" @click="less(i)">Leave out</button>
          </div>
        </div>
        <button v-if="layers.length < 3" class="verb more" data-testid="cover-more" @click="more">One more mat</button>
        <p v-if="wrong || refused" class="wrong" role="alert">{{ prefs.said(wrong || refused) }}</p>
        <Button type="primary" block :disabled="!faces.length" data-testid="cover-lay" @click="lay">Lay them</Button>
        <button v-if="covered.length" class="verb off" data-testid="cover-off" @click="off">
          Take all of them off again
        </button>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.cover {
  width: 290px;
  max-height: 80vh;
  overflow: auto;
}
h3 {
  margin-bottom: 8px;
}
p {
  margin: 0 0 6px;
}
.faces {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 5px;
  margin-bottom: 12px;
}
.step {
  margin-bottom: 10px;
}
.step + .step {
  padding-top: 10px;
  border-top: 1px solid var(--paper3);
}
.row {
  display: flex;
  margin: -6px -8px 0;
}
.row .verb {
  padding: 4px 8px;
  font-size: 12.5px;
  white-space: nowrap;
}
.space {
  flex: 1;
}
.more {
  margin: -4px 0 8px -8px;
}
.off {
  margin: 8px 0 0 -8px;
}
</style>
