<script setup lang="ts">
// How the stock of a sheet is cut, remembered for every sheet of that stock.
import { computed, ref, watch } from 'vue'
import { api } from '../../api/client'
import type { CutSettings, SheetView } from '../../api/types'
import NumberField from '../../parts/NumberField.vue'
import { useSheets } from '../../store/sheets'

const props = defineProps<{ sheet: SheetView }>()
const sheets = useSheets()
const wrong = ref('')
watch(
  () => props.sheet.stock.id,
  () => (wrong.value = ''),
)

const usual = computed(() => JSON.stringify(props.sheet.settings) === JSON.stringify(props.sheet.usual))

const has = (tool: number) => props.sheet.passes.some((p) => p.tool === tool)
const perforated = computed(() => props.sheet.passes.some((p) => p.name === 'Perforation'))

async function keep(s: CutSettings) {
  try {
    await api.keepSettings(props.sheet.stock.id, s)
    wrong.value = ''
    await sheets.load()
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
const set = (part: Partial<CutSettings>) => void keep({ ...props.sheet.settings, ...part })
const say = (why: string) => why && (wrong.value = why)
</script>

<template>
  <section class="sec" data-testid="cut-settings">
    <header>
      <h3>{{ sheet.stock.name }} is cut</h3>
      <button v-if="!usual" class="verb" data-testid="cut-usual" @click="keep(sheet.usual)">As usual</button>
    </header>
    <div class="pair">
      <NumberField
        label="Speed"
        :value="sheet.settings.speed"
        sign=" mm/s"
        :digits="0"
        testid="cut-speed"
        @set="set({ speed: $event })"
        @wrong="say"
      />
      <NumberField
        label="Force"
        :value="sheet.settings.force"
        sign=" g"
        :digits="0"
        testid="cut-force"
        @set="set({ force: Math.round($event) })"
        @wrong="say"
      />
      <NumberField
        label="Rounds"
        :value="sheet.settings.rounds"
        :digits="0"
        testid="cut-rounds"
        @set="set({ rounds: Math.round($event) })"
        @wrong="say"
      />
      <NumberField
        label="Trails"
        :value="sheet.settings.offset"
        sign=" mm"
        :digits="2"
        title="How far the tip of the blade is behind the middle of its holder"
        testid="cut-offset"
        @set="set({ offset: $event })"
        @wrong="say"
      />
      <NumberField
        label="Overcut"
        :value="sheet.settings.over"
        sign=" mm"
        :digits="2"
        title="How far a closed cut goes on over its start"
        testid="cut-over"
        @set="set({ over: $event })"
        @wrong="say"
      />
      <NumberField
        v-if="has(1) || has(2) || has(4)"
        label="Lightly"
        :value="sheet.settings.light"
        sign=" g"
        :digits="0"
        title="The force of pen, scoring tip and kiss cut"
        testid="cut-light"
        @set="set({ light: Math.round($event) })"
        @wrong="say"
      />
      <template v-if="perforated">
        <NumberField
          label="Cuts"
          :value="sheet.settings.dash"
          sign=" mm"
          :digits="1"
          title="What a perforation cuts"
          testid="cut-dash"
          @set="set({ dash: $event })"
          @wrong="say"
        />
        <NumberField
          label="Holds"
          :value="sheet.settings.hold"
          sign=" mm"
          :digits="1"
          title="What a perforation leaves"
          testid="cut-hold"
          @set="set({ hold: $event })"
          @wrong="say"
        />
      </template>
    </div>
    <p v-if="wrong" class="wrong" role="alert" data-testid="cut-wrong">{{ wrong }}</p>
  </section>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 6px;
}
p {
  margin-bottom: 0;
}
</style>
