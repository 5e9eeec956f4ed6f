<script setup lang="ts">
// The runs of a card, one for each sheet, and the cutter they go to.
import { computed } from 'vue'
import { useCard } from '../../store/card'
import { useMachine } from '../../store/machine'
import { useSheets } from '../../store/sheets'

defineProps<{ chosen: number | undefined }>()
defineEmits<{ choose: [sheet: number] }>()
const card = useCard()
const machine = useMachine()
const sheets = useSheets()

const list = computed(() => sheets.layout?.sheets ?? [])
const away = computed(() => machine.cutter?.state === 'away')
const stateOf = (n: number, state: string) =>
  machine.running && machine.run?.card === card.id && machine.run.sheet === n ? 'cutting' : state
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
          <b>Sheet {{ s.number }}</b>
          <small>{{ s.stock.name }}</small>
          <small>{{ s.pieces.map((p) => p.name).join(', ') }}</small>
        </span>
        <small :data-testid="'run-state-' + s.number">{{ stateOf(s.number, s.state.state) }}</small>
      </button>
    </div>
    <span class="space" />
    <div class="box" data-testid="cutter">
      <b>{{ machine.cutter?.name || 'Cutter' }}</b>
      <small v-if="!away">stand-in on this computer · 12 × 12 in cutting mat</small>
      <small v-else data-testid="cutter-why">The cutter is not there: {{ machine.cutter?.why }}.</small>
      <span class="chip state" :class="away ? 'bad' : 'fine'"
        >● {{ away ? 'not there' : machine.running ? 'cutting' : (machine.cutter?.state ?? '…') }}</span
      >
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
.state {
  margin-top: 7px;
}
</style>
