<script setup lang="ts">
// How true the printer is, in size and in colours on a stock: its test page, what that says, and a
// profile.
import { Button, Select } from 'ant-design-vue'
import { computed, onMounted, ref, watch } from 'vue'
import { api, Fault } from '../../api/client'
import type { InkView, SheetPrinterReach, TrueSize } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import StockField from '../../parts/StockField.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useMachine } from '../../store/machine'
import { useSheets } from '../../store/sheets'

const card = useCard()
const catalogue = useCatalogue()
const machine = useMachine()
const sheets = useSheets()

const now = ref<TrueSize>()
const inks = ref<InkView[]>([])
const chosen = ref('')
const stock = computed(() => chosen.value || (card.view?.card.base.stock ?? catalogue.all.first.paper))
const ink = computed(() => inks.value.find((i) => i.stock === stock.value))
const coated = computed(() => catalogue.all.stocks.find((s) => s.id === stock.value)?.coated)
const open = ref(false)
const across = ref(0)
const down = ref(0)
const wrong = ref('')
const busy = ref(false)
const scan = ref<HTMLInputElement>()
const profile = ref<HTMLInputElement>()

const load = async () => (now.value = await api.trueSize(sheets.setup).catch(() => undefined))
onMounted(async () => {
  void load()
  inks.value = await api.inks().catch(() => [])
})
/** What the printer reaches: nothing noted leaves it to each card. */
const reach = ref<SheetPrinterReach>()
onMounted(async () => (reach.value = (await api.printerReach().catch(() => null)) ?? undefined))
const edgeSizes = computed(() => catalogue.all.sizes.map((s) => ({ value: s.id, label: s.name })))
const setReach = (part: Partial<SheetPrinterReach>) =>
  attempt(async () => {
    const next = { margin: 0, borderless: [], ...reach.value, ...part }
    await api.keepPrinterReach(next)
    reach.value = next
    await sheets.load()
  })
watch(stock, () => (wrong.value = ''))

const off = computed(() => {
  const c = now.value
  if (!c || (c.across === 1 && c.down === 1)) return ''
  const per = (v: number) => (v >= 1 ? '+' : '−') + Math.abs((v - 1) * 100).toFixed(2)
  return `${per(c.across)}, ${per(c.down)} %`
})
/** The page that a stand-in keeps of what it printed last, once it has. */
const printed = computed(() =>
  machine.print?.card === '' && machine.print.state === 'done'
    ? machine.print.pictures?.[0]?.replace('prints/', '')
    : undefined,
)

async function print() {
  // How long the rulers should be, which most often they nearly are.
  const rulers = (await load())?.rulers ?? []
  ;[across.value, down.value] = [rulers[0] ?? 0, rulers[1] ?? 0]
  open.value = true
  wrong.value = ''
  await machine.testPage(stock.value)
}

/** Does what is asked; whether it was done. What is wrong is told below. */
async function attempt(what: () => Promise<void>) {
  busy.value = true
  wrong.value = ''
  try {
    await what()
    return true
  } catch (e) {
    wrong.value = e instanceof Fault ? e.message : String(e)
    return false
  } finally {
    busy.value = false
  }
}
const setSize = () => attempt(async () => void (now.value = await api.measured(sheets.setup, across.value, down.value)))
const forgetSize = () =>
  attempt(async () => {
    await api.asItComes()
    await load()
  })
/** Takes what is known of inks now; the colours of the card follow by an event. */
const setInks = (asked: Promise<InkView[]>) => attempt(async () => void (inks.value = await asked))
function picked(e: Event, send: (stock: string, file: File) => Promise<InkView[]>) {
  const field = e.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = '' // so that the same one may be chosen again
  if (file) void setInks(send(stock.value, file))
}
</script>

<template>
  <div class="test">
    <div class="pair">
      <StockField label="Paper in it" :value="stock" testid="printer-stock" @set="chosen = $event" />
    </div>
    <div class="line">
      <span>True to size</span>
      <b v-if="off" data-testid="correction">corrected by {{ off }}</b>
      <b v-else>as it comes</b>
      <button v-if="off" class="verb" data-testid="as-it-comes" @click="forgetSize">Forget it</button>
    </div>
    <div class="line">
      <span>Tones</span>
      <b v-if="ink?.toned" data-testid="toned" title="How far its colour row was off before, on average (ΔE 2000)"
        >corrected, was off by {{ ink.off ?? 0 }}</b
      >
      <b v-else>as they come</b>
      <button v-if="ink?.toned" class="verb" data-testid="as-tones-come" @click="setInks(api.withoutTones(stock))">
        Forget it
      </button>
    </div>
    <div class="line">
      <span>Colours</span>
      <b :title="ink?.profile" data-testid="profile">{{
        ink?.profile ?? (coated ? 'usual on photo paper' : 'usual on matt card')
      }}</b>
      <button v-if="ink?.profile" class="verb" data-testid="no-profile" @click="setInks(api.withoutProfile(stock))">
        Forget it
      </button>
      <button
        v-else
        class="verb"
        title="An ICC profile of your printer with this paper, .icc or .icm: what comes out dull is told by it"
        data-testid="bring-profile"
        @click="profile?.click()"
      >
        Profile …
      </button>
    </div>
    <div class="pair reach">
      <MeasureField
        label="Leaves free"
        wide
        :mm="reach?.margin ?? 0"
        testid="printer-margin"
        @set="setReach({ margin: $event })"
        @wrong="wrong = $event"
      />
      <Field label="To the edges of" wide>
        <Select
          mode="multiple"
          :value="reach?.borderless ?? []"
          :bordered="false"
          size="small"
          placeholder="no size"
          :options="edgeSizes"
          data-testid="printer-borderless"
          @change="(v) => setReach({ borderless: v as string[] })"
        />
      </Field>
    </div>
    <button class="verb page" data-testid="test-page" @click="print">Print a test page</button>
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
      <div class="buttons">
        <Button size="small" data-testid="ruler-set" @click="setSize">Correct the size</Button>
      </div>
      <small>How did its colour row come out? Scan the page, or photograph it from straight above.</small>
      <div class="buttons">
        <Button size="small" :loading="busy" data-testid="bring-scan" @click="scan?.click()"
          >Bring in the picture</Button
        >
        <Button
          v-if="printed"
          size="small"
          :disabled="busy"
          title="The stand-in keeps a picture of what it printed"
          data-testid="take-printed"
          @click="setInks(api.tonesPrinted(stock, printed))"
          >Take what it printed</Button
        >
        <Button size="small" @click="open = false">Done</Button>
      </div>
    </template>
    <p v-if="wrong" class="wrong" role="alert" data-testid="ruler-wrong">{{ wrong }}</p>
    <input
      ref="scan"
      type="file"
      hidden
      accept="image/jpeg,image/png,image/webp"
      data-testid="scan-input"
      @change="picked($event, api.tones)"
    />
    <input
      ref="profile"
      type="file"
      hidden
      accept=".icc,.icm"
      data-testid="profile-input"
      @change="picked($event, api.profile)"
    />
  </div>
</template>

<style scoped>
.test {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  margin-top: 10px;
}
.line {
  display: flex;
  align-items: center;
  min-height: 26px;
  gap: 8px;
  font-size: 12.5px;
}
.line span {
  color: var(--ink5);
}
.line b {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  font-weight: 500;
  text-align: right;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.page {
  justify-self: start;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
small {
  margin-top: 4px;
}
p {
  margin: 0;
}
</style>
