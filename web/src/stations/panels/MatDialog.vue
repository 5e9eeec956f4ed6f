<script setup lang="ts">
// Adding a mat: how far it shows, its corners and its stock.
import { Button, Checkbox, Popover, Segmented } from 'ant-design-vue'
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import MeasureField from '../../parts/MeasureField.vue'
import StockField from '../../parts/StockField.vue'
import { cornerNames } from '../../parts/names'
import { INCH } from '../../parts/measure'
import type { Command } from '../../api/types'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'
import { useTrial } from './useTrial'

const card = useCard()
const prefs = usePrefs()
const open = ref(false)
usePopover(open, '[data-testid=mat-dialog]', () => add())
// A mat is offered as the last one was made.
const width = useStorage('sectilis.mat.width', INCH / 8)
const corner = useStorage<keyof typeof cornerNames>('sectilis.mat.corner', 'square')
const stock = useStorage('sectilis.mat.stock', 'moss-216')
const solid = ref(false)
const wrong = ref('')

const can = computed(() => card.selected.length > 0 && card.selected.every((it) => it.takesMat))
/** Lettering and shapes with holes can have a mat that is whole. */
const holes = computed(() => card.selected.some((it) => it.outline.split('M').length > 2))
const options = Object.entries(cornerNames).map(([value, label]) => ({ value, label }))

const command = computed<Command>(() => ({
  do: 'addMat',
  ids: card.selected.map((it) => it.id),
  width: width.value,
  corner: corner.value,
  solid: solid.value,
  stock: stock.value,
}))
const refused = useTrial(open, () => (can.value ? command.value : undefined))

async function add() {
  // It closes at once: a click on its verb while the change is on its way opens it anew.
  open.value = false
  if (!(await card.change(command.value))) open.value = true
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft">
    <button class="verb" :disabled="!can" data-testid="add-mat">Add mat</button>
    <template #content>
      <div class="mat" data-testid="mat-dialog">
        <h3>Mat under {{ card.selected.length === 1 ? card.selected[0]!.name : `${card.selected.length} items` }}</h3>
        <div class="pair">
          <MeasureField
            label="Shows by"
            :mm="width"
            wide
            testid="new-mat-width"
            @set="width = $event"
            @wrong="wrong = $event"
          />
          <Segmented v-model:value="corner" class="wide" block :options="options" data-testid="new-mat-corner" />
          <StockField :value="stock" testid="new-mat-stock" @set="stock = $event" />
        </div>
        <Checkbox v-if="holes" v-model:checked="solid" class="whole" data-testid="new-mat-solid"
          >Without holes</Checkbox
        >
        <p v-if="wrong || refused" class="wrong" role="alert">{{ prefs.said(wrong || refused) }}</p>
        <Button type="primary" block data-testid="lay-mat" @click="add">Lay it under</Button>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.mat {
  width: 250px;
}
h3 {
  margin-bottom: 10px;
}
.pair,
.whole {
  margin-bottom: 10px;
}
</style>
