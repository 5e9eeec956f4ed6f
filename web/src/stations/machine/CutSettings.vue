<script setup lang="ts">
// How the stock of a sheet is cut, remembered for every sheet of that stock.
import { computed, ref, watch } from 'vue'
import { api } from '../../api/client'
import type { CutSettings } from '../../api/types'
import NumberField from '../../parts/NumberField.vue'

/** Tools are those that are used; without them all are asked about. */
const props = defineProps<{
  stock: { id: string; name: string }
  settings: CutSettings
  usual: CutSettings
  passes?: { tool: number; name: string }[]
}>()
const emit = defineEmits<{ kept: [] }>()
const wrong = ref('')
watch(
  () => props.stock.id,
  () => (wrong.value = ''),
)

const isUsual = computed(() => JSON.stringify(props.settings) === JSON.stringify(props.usual))

const has = (tool: number) => !props.passes || props.passes.some((p) => p.tool === tool)
const perforated = computed(() => !props.passes || props.passes.some((p) => p.name === 'Perforation'))

async function keep(s: CutSettings) {
  try {
    await api.keepSettings(props.stock.id, s)
    wrong.value = ''
    emit('kept')
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
const set = (part: Partial<CutSettings>) => void keep({ ...props.settings, ...part })
const say = (why: string) => why && (wrong.value = why)
</script>

<template>
  <section class="sec" data-testid="cut-settings">
    <header>
      <h3>{{ stock.name }} is cut</h3>
      <button v-if="!isUsual" class="verb" data-testid="cut-usual" @click="keep(props.usual)">As usual</button>
    </header>
    <div class="pair">
      <NumberField
        label="Speed"
        :value="settings.speed"
        sign=" mm/s"
        :digits="0"
        testid="cut-speed"
        @set="set({ speed: $event })"
        @wrong="say"
      />
      <NumberField
        label="Force"
        :value="settings.force"
        sign=" g"
        :digits="0"
        testid="cut-force"
        @set="set({ force: Math.round($event) })"
        @wrong="say"
      />
      <NumberField
        label="Rounds"
        :value="settings.rounds"
        :digits="0"
        testid="cut-rounds"
        @set="set({ rounds: Math.round($event) })"
        @wrong="say"
      />
      <NumberField
        label="Trails"
        :value="settings.offset"
        sign=" mm"
        :digits="2"
        title="How far the tip of the blade is behind the middle of its holder"
        testid="cut-offset"
        @set="set({ offset: $event })"
        @wrong="say"
      />
      <NumberField
        label="Overcut"
        :value="settings.over"
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
        :value="settings.light"
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
          :value="settings.dash"
          sign=" mm"
          :digits="1"
          title="What a perforation cuts"
          testid="cut-dash"
          @set="set({ dash: $event })"
          @wrong="say"
        />
        <NumberField
          label="Holds"
          :value="settings.hold"
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
