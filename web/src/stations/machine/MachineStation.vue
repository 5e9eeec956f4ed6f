<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { useElementSize, useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { formatTime } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useMachine } from '../../store/machine'
import { useSheets } from '../../store/sheets'
import BedDrawing from './BedDrawing.vue'

const card = useCard()
const machine = useMachine()
const sheets = useSheets()

const chosen = ref(1)
const result = ref(false)
const el = ref<HTMLElement>()
const { width, height } = useElementSize(el)

onMounted(() => {
  void sheets.load()
  void machine.look()
  if (machine.run?.state === 'running' && machine.run.sheet) chosen.value = machine.run.sheet
})

// A cutter that is busy or not there is looked at again until it is ready.
useIntervalFn(() => {
  if (!machine.running && !machine.cutter?.ready) void machine.look()
}, 1500)

const list = computed(() => sheets.layout?.sheets ?? [])
const sheet = computed(() => list.value.find((s) => s.number === chosen.value) ?? list.value[0])
/** The job that concerns the chosen sheet. */
const job = computed(() =>
  machine.run?.card === card.id && machine.run.sheet === sheet.value?.number ? machine.run : undefined,
)
const running = computed(() => (job.value?.state === 'running' ? job.value : undefined))
const picture = computed(() => job.value?.pictures?.[0] ?? sheet.value?.state.picture)
const total = computed(() => sheet.value?.passes.reduce((n, p) => n + p.seconds, 0) ?? 0)

watch(
  () => job.value?.state,
  (now, was) => {
    if (was === 'running' && now === 'done') result.value = true
  },
)
watch(chosen, () => (result.value = false))

const names: Record<string, string> = {
  waiting: 'waiting',
  cutting: 'cutting',
  done: 'done',
  stopped: 'stopped',
  failed: 'failed',
}
const stateOf = (n: number, state: string) =>
  machine.run?.card === card.id && machine.run.sheet === n && machine.running ? 'cutting' : (names[state] ?? state)

const passes = computed(() => {
  const s = sheet.value
  if (!s) return []
  const length = s.passes.reduce((n, p) => n + p.length, 0)
  const run = (job.value?.progress ?? (s.state.state === 'done' ? 1 : 0)) * length
  let before = 0
  return s.passes.map((p) => {
    const share = Math.max(0, Math.min(1, (run - before) / p.length))
    before += p.length
    const n = p.lines.length
    return {
      name: p.name,
      what: `${n} ${p.tool === 2 ? (n === 1 ? 'line' : 'lines') : n === 1 ? 'path' : 'paths'} · ${p.tool === 2 ? 'scoring tip' : 'blade'}`,
      time: formatTime(p.seconds),
      share,
      weight: Math.max(p.seconds, total.value * 0.04),
      sign: share >= 1 ? '✓' : share > 0 ? '▸' : '·',
    }
  })
})

const headline = computed(() => {
  if (running.value) {
    const p = passes.value[running.value.run?.pass ?? 0]
    return `Cutting sheet ${sheet.value?.number} · ${p?.name.toLowerCase() ?? ''}`
  }
  if (job.value?.state === 'failed') return job.value.note ?? 'The run failed.'
  if (job.value?.state === 'stopped') return 'Stopped. The tool is up; nothing more will be cut.'
  if (sheet.value?.state.state === 'done' || job.value?.state === 'done') return `Sheet ${sheet.value?.number} is cut.`
  return sheet.value ? `Sheet ${sheet.value.number} is ready to be cut.` : ''
})
const left = computed(() =>
  running.value
    ? `${formatTime(running.value.run?.seconds ?? total.value)} left, by plan`
    : `${formatTime(total.value)} by plan`,
)
</script>

<template>
  <div class="machine">
    <aside class="side">
      <h3>Runs</h3>
      <div class="runs">
        <button
          v-for="s in list"
          :key="s.number"
          class="bare row"
          :class="{ on: s.number === sheet?.number }"
          :data-testid="'run-' + s.number"
          @click="chosen = s.number"
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
        <b>{{ machine.cutter?.name ?? 'Cutter' }}</b>
        <small v-if="machine.cutter?.state !== 'away'">stand-in on this computer · 12 × 12 in cutting mat</small>
        <small v-else data-testid="cutter-why">The cutter is not there: {{ machine.cutter?.why }}.</small>
        <div class="state">
          <span class="chip" :class="machine.cutter?.state === 'away' ? 'bad' : 'fine'"
            >●
            {{
              machine.cutter?.state === 'away'
                ? 'not there'
                : machine.running
                  ? 'cutting'
                  : (machine.cutter?.state ?? '…')
            }}</span
          >
          <button v-if="machine.cutter?.state === 'away'" class="verb" @click="machine.look()">Look again</button>
        </div>
      </div>
    </aside>
    <main class="work">
      <div class="verbs">
        <b v-if="sheet">Sheet {{ sheet.number }} of {{ list.length }} · {{ sheet.stock.name }}</b>
        <span class="space" />
        <button class="verb" :aria-pressed="!result" @click="result = false">Plan</button>
        <button
          class="verb"
          :aria-pressed="result"
          :disabled="!picture"
          data-testid="show-result"
          @click="result = true"
        >
          Result
        </button>
      </div>
      <div ref="el" class="bed">
        <template v-if="sheet">
          <img
            v-if="result && picture"
            :src="'/api/' + picture"
            :style="{ maxWidth: width - 30 + 'px', maxHeight: height - 30 + 'px' }"
            alt="The bed after the run"
            data-testid="result"
          />
          <BedDrawing
            v-else
            :sheet="sheet"
            :bed="(machine.cutter?.bed?.[0] ? machine.cutter.bed : [304.8, 304.8]) as [number, number]"
            :job="job"
            :size="Math.max(200, Math.min(width - 24, height - 16))"
          />
        </template>
        <p v-else-if="sheets.layout" class="none">There is nothing to cut yet. Lay pieces on a face first.</p>
      </div>
    </main>
    <aside class="right">
      <section class="sec">
        <h3>Passes</h3>
        <div v-for="p in passes" :key="p.name" class="row pass" :class="{ on: p.sign === '▸' }">
          <i class="sign" :class="{ now: p.sign === '▸' }">{{ p.sign }}</i>
          <span class="text">
            <b>{{ p.name }}</b>
            <small>{{ p.what }}</small>
          </span>
          <span>{{ p.time }}</span>
        </div>
      </section>
      <section v-if="sheet" class="sec">
        <h3>This run</h3>
        <div class="facts">
          <span>Stock</span><b>{{ sheet.stock.name }}</b> <span>Sheet</span><b>{{ sheet.size.name }}</b>
          <span>Time, by plan</span><b>{{ formatTime(total) }}</b> <span>Marks</span
          ><b>{{ sheet.marks.length ? 'four' : 'none' }}</b>
        </div>
        <small class="note">Lay the sheet at the lower left corner of the cutting mat, its top away from you.</small>
      </section>
    </aside>
    <footer class="bar">
      <Button v-if="running" size="large" data-testid="stop" @click="machine.stop(running)">Stop</Button>
      <Button
        v-else
        type="primary"
        size="large"
        :disabled="!sheet || !machine.cutter?.ready || machine.running"
        data-testid="cut"
        @click="((result = false), machine.start('run', sheet!.number))"
      >
        {{ sheet?.state.state === 'done' || job?.state === 'done' ? 'Cut it again' : 'Cut this sheet' }}
      </Button>
      <div class="progress">
        <div class="line">
          <b :class="{ bad: job?.state === 'failed' }" data-testid="headline">{{ headline }}</b>
          <span>{{ left }}</span>
        </div>
        <div class="bars">
          <div v-for="p in passes" :key="p.name" :style="{ flex: p.weight }">
            <div class="track"><i :class="{ whole: p.share >= 1 }" :style="{ width: p.share * 100 + '%' }" /></div>
            <small>{{ p.name.toLowerCase() }}</small>
          </div>
        </div>
      </div>
    </footer>
  </div>
</template>

<style scoped>
.machine {
  display: grid;
  grid-template: minmax(0, 1fr) 96px / var(--left) minmax(0, 1fr) var(--right);
  grid-template-areas: 'side work right' 'bar bar right';
  height: 100%;
}
.side {
  grid-area: side;
}
.work {
  grid-area: work;
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.right {
  grid-area: right;
}
.bar {
  grid-area: bar;
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 18px;
  background: var(--paper2);
  border-top: 1px solid var(--paper3);
}
.runs {
  margin: 0 -6px;
}
.runs .row:hover:not(.on) {
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
  display: flex;
  gap: 6px;
  margin-top: 7px;
}
.bed {
  flex: 1;
  min-height: 0;
  display: grid;
  place-items: center;
  overflow: hidden;
}
.bed img {
  box-shadow: 0 2px 6px #0003;
  border-radius: 4px;
}
.pass {
  padding: 5px 8px;
}
.sign {
  width: 14px;
  font-style: normal;
  font-weight: 700;
  color: var(--moss);
}
.sign.now {
  color: var(--brick);
}
.note {
  margin-top: 8px;
}
.progress {
  flex: 1;
  min-width: 0;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  margin-bottom: 6px;
}
.line b {
  font-weight: 600;
}
.line span {
  color: var(--ink7);
  white-space: nowrap;
}
.bad {
  color: var(--stop);
}
.bars {
  display: flex;
  gap: 3px;
}
.bars > div {
  min-width: 54px;
}
.track {
  height: 14px;
  border-radius: 3px;
  background: var(--paper3);
  overflow: hidden;
}
.track i {
  display: block;
  height: 100%;
  background: var(--brick);
}
.track .whole {
  background: var(--moss);
}
.bars small {
  margin-top: 4px;
  color: var(--ink5);
  white-space: nowrap;
}
.none {
  color: var(--ink5);
}
</style>
