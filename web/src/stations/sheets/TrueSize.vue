<script setup lang="ts">
// Whether the printer prints in true size: a page to measure, and what it says.
import { Button } from 'ant-design-vue'
import { computed, onMounted, ref } from 'vue'
import { api } from '../../api/client'
import type { Correction } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import { useCatalogue } from '../../store/catalogue'
import { useMachine } from '../../store/machine'
import { usePrefs } from '../../store/prefs'

const catalogue = useCatalogue()
const machine = useMachine()
const prefs = usePrefs()
const now = ref<Correction>()
const open = ref(false)
const across = ref(0)
const down = ref(0)
const wrong = ref('')
onMounted(async () => (now.value = await api.correction().catch(() => undefined)))

/** How long the rulers of the test page are, mm. */
const rulers = computed(() => {
  const s = catalogue.all.sizes.find((x) => x.id === prefs.paper.size)
  const sides = [s?.width ?? 0, s?.height ?? 0]
  if (prefs.paper.lie === 'landscape') sides.sort((a, b) => b - a)
  return sides.map((v) => Math.floor((v - 50) / 10) * 10)
})
const off = computed(() => {
  const c = now.value
  if (!c || (c.across === 1 && c.down === 1)) return ''
  const per = (v: number) => (v >= 1 ? '+' : '−') + Math.abs((v - 1) * 100).toFixed(2)
  return `${per(c.across)}, ${per(c.down)} %`
})

async function print() {
  open.value = true
  ;[across.value, down.value] = [rulers.value[0] ?? 0, rulers.value[1] ?? 0]
  await machine.start('testPage')
}
async function set() {
  try {
    now.value = await api.measured(prefs.paper, across.value, down.value)
    wrong.value = ''
    open.value = false
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
async function forget() {
  await api.asItComes()
  now.value = { across: 1, down: 1 }
}
</script>

<template>
  <div class="size">
    <div class="row">
      <span>True to size</span>
      <b v-if="off" data-testid="correction">corrected by {{ off }}</b>
      <b v-else>as it comes</b>
      <button v-if="off" class="verb" data-testid="as-it-comes" @click="forget">Forget it</button>
      <button v-else class="verb" data-testid="test-page" @click="print">Test page</button>
    </div>
    <template v-if="open">
      <small>Print it at “actual size”. What do its rulers measure?</small>
      <div class="pair">
        <MeasureField
          label="Across"
          :mm="across"
          testid="ruler-across"
          @set="across = $event"
          @wrong="wrong = $event"
        />
        <MeasureField label="Down" :mm="down" testid="ruler-down" @set="down = $event" @wrong="wrong = $event" />
      </div>
      <p v-if="wrong" class="wrong" role="alert" data-testid="ruler-wrong">{{ wrong }}</p>
      <div class="row">
        <Button size="small" type="primary" data-testid="ruler-set" @click="set">Correct it</Button>
        <Button size="small" @click="open = false">Leave it</Button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.size {
  margin-top: 10px;
}
.row {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0;
}
.row span {
  color: var(--ink5);
}
.row b {
  flex: 1;
  text-align: right;
  font-weight: 500;
}
.pair {
  margin: 6px 0;
}
p {
  margin: 0 0 6px;
}
</style>
