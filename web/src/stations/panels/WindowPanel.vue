<script setup lang="ts">
// A window mat that is chosen: how far it covers what is seen through it, and reaches past it.
import { Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Window } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { cornerNames } from '../../parts/names'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'

const card = useCard()
const prefs = usePrefs()
const wrong = ref('')
const one = computed(() => (card.told.length === 1 ? card.doc(card.told[0]!.id) : undefined))
const frame = computed(() => (one.value?.window?.bevel ? undefined : one.value?.window))
const corners = Object.entries(cornerNames).map(([value, label]) => ({ value, label }))
async function set(part: Partial<Window>) {
  wrong.value = ''
  await card.idle()
  if (one.value && frame.value)
    await card.change({ do: 'setWindow', id: one.value.id, window: { ...frame.value, ...part } })
}
</script>

<template>
  <PanelSection
    v-if="frame"
    id="window"
    title="Window"
    :fact="frame.of.length > 1 ? `${frame.of.length} openings` : ''"
  >
    <div class="pair">
      <MeasureField
        label="Covers"
        :mm="frame.overlap"
        testid="set-window-overlap"
        @set="set({ overlap: $event })"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="Reaches past"
        :mm="frame.width"
        testid="set-window-width"
        @set="set({ width: $event })"
        @wrong="wrong = $event"
      />
      <MeasureField
        label="At the foot +"
        wide
        :mm="frame.below ?? 0"
        testid="set-window-below"
        @set="set({ below: $event })"
        @wrong="wrong = $event"
      />
    </div>
    <Segmented
      class="corners"
      block
      :value="frame.corner"
      :options="corners"
      data-testid="set-window-corner"
      @change="(v) => set({ corner: v as Window['corner'] })"
    />
    <p class="note">It follows {{ frame.of.map((id) => card.doc(id)?.name).join(', ') }}, and takes them along.</p>
    <p v-if="wrong" class="wrong" role="alert">{{ prefs.said(wrong) }}</p>
  </PanelSection>
</template>

<style scoped>
.corners {
  margin-top: 10px;
}
.note {
  margin: 8px 0 0;
  color: var(--ink7);
  font-size: 12.5px;
}
</style>
