<script setup lang="ts">
// Growing, shrinking and rounding outlines: the result is shown on the surface
// while its number changes.
import { Button, Popover, Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Command } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import { INCH } from '../../parts/measure'
import { cornerNames } from '../../parts/names'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'
import { useTrial } from './useTrial'

const card = useCard()
const prefs = usePrefs()
const open = ref(false)
usePopover(open, '[data-testid=outline-dialog]', () => apply())
const what = ref<'grow' | 'shrink' | 'round'>('grow')
const by = ref(INCH / 8)
const corner = ref<keyof typeof cornerNames>('round')
const typed = ref('')

const can = computed(() => card.selected.length > 0 && card.selected.every((it) => it.kind !== 'photo' && !it.role))
const corners = Object.entries(cornerNames).map(([value, label]) => ({ value, label }))
const command = computed<Command | undefined>(() => {
  const ids = card.selected.map((it) => it.id)
  if (!ids.length) return undefined
  if (what.value === 'round') return { do: 'roundCorners', ids, radius: by.value }
  return { do: 'grow', ids, by: what.value === 'grow' ? by.value : -by.value, corner: corner.value }
})
const refused = useTrial(open, () => command.value)
const names = { grow: 'Grow by', shrink: 'Shrink by', round: 'Round by' }

async function apply() {
  if (!command.value) return
  // It closes at once: a click on its verb while the change is on its way opens it anew.
  open.value = false
  if (!(await card.change(command.value))) open.value = true
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft">
    <button class="verb" :disabled="!can" data-testid="outline-verb">Outline</button>
    <template #content>
      <div class="outline" data-testid="outline-dialog">
        <h3>Outline of {{ card.selected.length === 1 ? card.selected[0]!.name : `${card.selected.length} items` }}</h3>
        <Segmented
          v-model:value="what"
          block
          :options="[
            { value: 'grow', label: 'Grow' },
            { value: 'shrink', label: 'Shrink' },
            { value: 'round', label: 'Round corners' },
          ]"
          data-testid="outline-what"
        />
        <input
          v-model.number="by"
          type="range"
          min="0.25"
          max="12"
          step="0.05"
          :aria-label="names[what]"
          data-testid="outline-slider"
        />
        <div class="pair">
          <MeasureField
            :label="names[what]"
            :mm="by"
            wide
            testid="outline-by"
            @set="by = $event"
            @wrong="typed = $event"
          />
          <Segmented
            v-if="what !== 'round'"
            v-model:value="corner"
            class="wide"
            block
            :options="corners"
            data-testid="outline-corner"
          />
        </div>
        <p v-if="typed || refused" class="wrong" role="alert">{{ prefs.said(typed || refused) }}</p>
        <Button type="primary" block :disabled="!!(typed || refused)" data-testid="outline-apply" @click="apply">
          {{ names[what] }} {{ prefs.lenUnit(by) }}
        </Button>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.outline {
  width: 312px;
}
h3 {
  margin-bottom: 10px;
}
input[type='range'] {
  width: 100%;
  margin: 12px 0 8px;
  accent-color: var(--brick);
}
.pair {
  margin-bottom: 10px;
}
</style>
