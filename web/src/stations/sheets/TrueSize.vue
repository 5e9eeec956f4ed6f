<script setup lang="ts">
// Whether the printer prints in true size: a page to measure, and what it says.
import { Button } from 'ant-design-vue'
import { computed, onMounted, ref } from 'vue'
import { api } from '../../api/client'
import type { TrueSize } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import { useMachine } from '../../store/machine'
import { useSheets } from '../../store/sheets'

const machine = useMachine()
const sheets = useSheets()
const now = ref<TrueSize>()
const open = ref(false)
const across = ref(0)
const down = ref(0)
const wrong = ref('')
const load = async () => (now.value = await api.trueSize(sheets.setup).catch(() => undefined))
onMounted(load)

const off = computed(() => {
  const c = now.value
  if (!c || (c.across === 1 && c.down === 1)) return ''
  const per = (v: number) => (v >= 1 ? '+' : '−') + Math.abs((v - 1) * 100).toFixed(2)
  return `${per(c.across)}, ${per(c.down)} %`
})

async function print() {
  // How long the rulers should be, which most often they nearly are.
  const rulers = (await load())?.rulers ?? []
  ;[across.value, down.value] = [rulers[0] ?? 0, rulers[1] ?? 0]
  open.value = true
  await machine.start('testPage')
}
async function set() {
  try {
    now.value = await api.measured(sheets.setup, across.value, down.value)
    wrong.value = ''
    open.value = false
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
async function forget() {
  await api.asItComes()
  await load()
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
