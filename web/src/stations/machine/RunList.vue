<script setup lang="ts">
// The runs of a card, one for each sheet, and the cutter they go to.
import { computed } from 'vue'
import { useCard } from '../../store/card'
import { counted } from '../../parts/names'
import { useMachine } from '../../store/machine'
import { useSheets } from '../../store/sheets'
import CutterMenu from './CutterMenu.vue'
import MishapMenu from './MishapMenu.vue'
import { toolName } from './tools'

defineProps<{ chosen: number | undefined }>()
defineEmits<{ choose: [sheet: number] }>()
const card = useCard()
const machine = useMachine()
const sheets = useSheets()

const list = computed(() => sheets.layout?.sheets ?? [])
const away = computed(() => machine.cutter?.state === 'away')
const trouble = computed(() => ['away', 'off', 'no mat', 'jammed'].includes(machine.cutter?.state ?? ''))
const busy = computed(() => (machine.running ? machine.run : undefined))
const state = computed(() => {
  if (away.value) return 'not there'
  if (busy.value?.needs) return 'wants a tool'
  if (busy.value?.paused) return 'paused'
  if (busy.value && !trouble.value) return busy.value.kind === 'find' ? 'looking' : 'busy'
  return machine.cutter?.state ?? '…'
})
const inches = (mm: number) => Math.round((mm / 25.4) * 10) / 10
const what = computed(() => {
  const c = machine.cutter
  if (!c) return ''
  const bed = `${inches(c.bed[0])} × ${inches(c.bed[1])} in cutting mat`
  return c.hand ? `stand-in on this computer · ${bed}` : bed
})
const names: Record<string, string> = { loaded: 'on the mat', found: 'on the mat' }
const stateOf = (n: number, state: string) =>
  busy.value?.kind === 'run' && busy.value.card === card.id && busy.value.sheet === n
    ? busy.value.paused
      ? 'paused'
      : 'cutting'
    : (names[state] ?? state)
</script>

<template>
  <aside class="side">
    <h3>Runs</h3>
    <div class="runs">
      <button
        v-for="s in list"
        :key="s.number"
        class="bare row"
        :class="{ on: s.number === chosen }"
        :data-testid="'run-' + s.number"
        @click="$emit('choose', s.number)"
      >
        <i class="swatch tall" :style="{ background: s.stock.colour }" />
        <span class="text">
          <b>{{ s.of < 0 ? 'Scrap' : 'Sheet' }} {{ s.number }}</b>
          <small>{{ s.stock.name }}</small>
          <small>{{
            s.pieces.length === 1 ? s.pieces[0]!.name : counted(s.pieces.map((p) => p.plain ?? p.name))
          }}</small>
        </span>
        <small :data-testid="'run-state-' + s.number">{{
          s.passes.length ? stateOf(s.number, s.state.state) : 'nothing to cut'
        }}</small>
      </button>
    </div>
    <span class="space" />
    <div class="box" data-testid="cutter">
      <div class="name">
        <b>{{ machine.cutter?.name || 'Cutter' }}</b>
        <CutterMenu />
      </div>
      <small v-if="away" data-testid="cutter-why">The cutter is not there: {{ machine.cutter?.why }}.</small>
      <small v-else-if="machine.cutter?.why && !machine.running" class="bad" data-testid="cutter-why"
        >Not ready: {{ machine.cutter.why }}.</small
      >
      <small v-else>{{ what }}</small>
      <div class="chips">
        <span class="chip" :class="trouble ? 'bad' : 'fine'">● {{ state }}</span>
        <span v-if="machine.cutter?.tool" class="chip" data-testid="tool">{{ toolName(machine.cutter.tool) }} in</span>
        <span class="space" />
        <MishapMenu v-if="machine.cutter?.hand" />
      </div>
    </div>
  </aside>
</template>

<style scoped>
.runs {
  margin: 0 -6px;
}
.row:hover:not(.on) {
  background: var(--paper2);
}
.text {
  flex: 1;
  min-width: 0;
}
.text small {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.tall {
  width: 30px;
  height: 38px;
}
.space {
  flex: 1;
}
.name {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.name b {
  overflow: hidden;
  text-overflow: ellipsis;
}
.chips {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 6px;
  margin-top: 7px;
}
small.bad {
  color: var(--stop);
}
</style>
