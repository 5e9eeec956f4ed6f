<script setup lang="ts">
import { Alert } from 'ant-design-vue'
import { useElementSize, useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { formatTime } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useMachine } from '../../store/machine'
import { usePrefs } from '../../store/prefs'
import { useSheets } from '../../store/sheets'
import CutSettings from './CutSettings.vue'
import BedDrawing from './BedDrawing.vue'
import RunBar from './RunBar.vue'
import RunList from './RunList.vue'
import { passViews } from './passes'
import { toolName } from './tools'

const card = useCard()
const machine = useMachine()
const prefs = usePrefs()
const sheets = useSheets()

const chosen = ref(1)
const view = ref<'plan' | 'result' | 'apart'>('plan')
const travel = ref(false)
const el = ref<HTMLElement>()
const { width, height } = useElementSize(el)

onMounted(() => {
  void sheets.load()
  void machine.look()
  if (machine.running && machine.run?.sheet) chosen.value = machine.run.sheet
})
// What the cutter says of itself is asked again and again: only a run tells of itself.
useIntervalFn(() => void machine.look(), 1500)

const list = computed(() => sheets.layout?.sheets ?? [])
const sheet = computed(() => list.value.find((s) => s.number === chosen.value) ?? list.value[0])
/** The job at the cutter that concerns the chosen sheet. */
const job = computed(() =>
  machine.run?.card === card.id && machine.run.sheet === sheet.value?.number ? machine.run : undefined,
)
const run = computed(() => (job.value?.kind === 'run' ? job.value : undefined))
const running = computed(() => (job.value?.state === 'running' ? job.value : undefined))
const isDone = computed(() => (run.value ? run.value.state === 'done' : sheet.value?.state.state === 'done'))
const picture = computed(() => job.value?.pictures?.[0] ?? sheet.value?.state.picture)
const apart = computed(() => (running.value ? [] : (sheet.value?.state.apart ?? [])))
const total = computed(() => sheet.value?.passes.reduce((n, p) => n + p.seconds, 0) ?? 0)
const passes = computed(() => passViews(sheet.value?.passes ?? [], run.value?.progress ?? (isDone.value ? 1 : 0)))
const bed = computed<[number, number]>(() => {
  const b = machine.cutter?.bed
  return b?.[0] && b[1] ? [b[0], b[1]] : [304.8, 304.8]
})
const corner = computed<[number, number]>(() => {
  const c = machine.cutter?.corner
  return c ? [c[0], c[1]] : [0, 0]
})

watch(
  () => run.value?.state,
  (now, was) => {
    if (was === 'running' && now === 'done') view.value = 'result'
  },
)
watch(chosen, () => (view.value = 'plan'))

const broken = computed(() => {
  const s = sheet.value?.state
  return !!s && ['stopped', 'failed'].includes(s.state) && !!s.given && s.done < s.of && !!s.lies
})
/** The cutter has not told how far it came: a person points at the first path that is not cut. */
const unknown = computed(() => broken.value && !!sheet.value?.state.unknown && !running.value)
const pointed = ref<{ pass: number; path: number }>()
watch([unknown, chosen], () => (pointed.value = undefined))
const beside = computed(() => {
  const off = apart.value.filter((a) => a.off)
  return off.length ? off.reduce((a, b) => (b.worst > a.worst ? b : a)) : undefined
})
const state = computed(() => {
  const j = running.value
  if (!j) return 'idle'
  if (j.kind !== 'run' || j.note) return 'busy'
  return j.needs ? 'needs' : j.paused ? 'paused' : 'cutting'
})
const headline = computed(() => {
  const n = sheet.value?.number
  const j = job.value
  if (!n) return ''
  if (running.value?.note) return `${running.value.note} …`
  if (state.value === 'needs') return `Put the ${toolName(j?.needs)} into the holder.`
  if (state.value === 'paused') return 'Paused. The tool is up.'
  if (running.value && j?.kind === 'test') return 'Cutting a test …'
  if (running.value)
    return `Cutting sheet ${n} · ${passes.value[running.value.run?.pass ?? 0]?.name.toLowerCase() ?? ''}`
  if (unknown.value)
    return pointed.value
      ? 'It goes on with the path that you pointed at, and cuts all that come after it.'
      : (sheet.value?.state.why ?? '')
  if (j?.state === 'failed') return j.note ?? 'The run failed.'
  if (j?.state === 'stopped') return 'Stopped. The tool is up; nothing more will be cut.'
  if (j?.kind === 'test') return j.note ?? ''
  if (!run.value && broken.value) return `Sheet ${n} was broken off. ${sheet.value?.state.why ?? ''}`
  if (sheet.value?.state.state === 'found') return `Sheet ${n} lies on the cutting mat and is ready to be cut.`
  if (sheet.value?.state.state === 'loaded') return `Sheet ${n} lies on the cutting mat.`
  if (idle.value) return `Nothing on sheet ${n} is cut, scored or drawn: it does not go into the machine.`
  if (sheet.value?.beyond) return prefs.said(sheet.value.beyond)
  if (!isDone.value && sheet.value?.unregistered)
    return `Sheet ${n} is printed and has no marks: nothing tells the cutter where the print lies, and it may cut 3 mm beside it.`
  if (!isDone.value) return `Sheet ${n} is ready to be cut.`
  if (beside.value)
    return `Sheet ${n} is cut, but “${beside.value.name}” up to ${beside.value.worst.toFixed(2)} mm beside its print. Look at it before it is glued.`
  if (sheet.value?.state.unknown)
    return `Sheet ${n} was sent. This cutter does not tell what it has done: look at the sheet.`
  if (sheet.value?.unregistered) return `Sheet ${n} is cut, not compared with the print: it has no marks.`
  return `Sheet ${n} is cut.`
})
/** How the sheet was found to lie, as people would say it. */
const lies = computed(() => {
  const f = job.value?.lies ?? sheet.value?.state.lies
  if (!f?.marks?.length) return undefined
  const signed = (v: number, digits: number) => (v > 0 ? '+' : v < 0 ? '−' : '') + Math.abs(v).toFixed(digits)
  const way = (v: number, more: string, less: string) => `${Math.abs(v).toFixed(2)} mm ${v < 0 ? less : more}`
  return {
    moved: `${way(f.shiftX, 'right', 'left')}, ${way(f.shiftY, 'down', 'up')}`,
    turned: `${signed(f.turn, 2)}°`,
    stretched: `${signed(f.stretchX * 100, 2)}, ${signed(f.stretchY * 100, 2)} %`,
    within: `${Math.max(f.left, 0.01).toFixed(2)} mm`,
    out: f.marks.filter((m) => !m.used),
  }
})
const left = computed(() =>
  running.value?.kind === 'run'
    ? `${formatTime(running.value.run?.seconds ?? total.value)} left`
    : `${formatTime(total.value)} by plan`,
)

/** Whether there is nothing for the machine to do on the sheet. */
const idle = computed(() => sheet.value?.passes.length === 0)
const free = computed(
  () => !!sheet.value && !idle.value && !sheet.value.beyond && !!machine.cutter?.ready && !machine.running,
)

function start(what: 'run' | 'goOn' | 'loads' | 'finds' | 'tests') {
  view.value = 'plan'
  if (sheet.value) void machine.start(what, sheet.value.number, what === 'goOn' ? pointed.value : undefined)
}
async function takeOff() {
  await machine.unload()
  await sheets.load()
}
</script>

<template>
  <div class="columns machine">
    <RunList :chosen="sheet?.number" @choose="chosen = $event" />
    <main class="work">
      <div class="verbs">
        <b v-if="sheet">Sheet {{ sheet.number }} of {{ list.length }}</b>
        <i class="rule" />
        <button
          v-if="machine.cutter?.hand"
          class="verb"
          :disabled="!free"
          title="Puts the sheet on the cutting mat of the stand-in, as hands do"
          data-testid="load"
          @click="start('loads')"
        >
          Load mat
        </button>
        <button
          v-if="machine.cutter?.eye && sheet?.marks.length"
          class="verb"
          :disabled="!free"
          data-testid="find"
          @click="start('finds')"
        >
          Find marks
        </button>
        <button
          class="verb"
          :disabled="!free"
          title="A small square with a triangle, in a free corner of the sheet"
          data-testid="test-cut"
          @click="start('tests')"
        >
          Test cut
        </button>
        <button
          v-if="machine.cutter?.loaded"
          class="verb"
          :disabled="machine.running"
          data-testid="unload"
          @click="takeOff"
        >
          Take it off
        </button>
        <span class="space" />
        <button class="verb" :aria-pressed="travel" data-testid="travel" @click="travel = !travel">Travel</button>
        <i class="rule" />
        <button class="verb" :aria-pressed="view === 'plan'" @click="view = 'plan'">Plan</button>
        <button
          class="verb"
          :aria-pressed="view === 'result'"
          :disabled="!picture"
          data-testid="show-result"
          @click="view = 'result'"
        >
          Result
        </button>
        <button
          v-if="apart.length"
          class="verb"
          :aria-pressed="view === 'apart'"
          data-testid="show-apart"
          @click="view = 'apart'"
        >
          Print-to-cut error
        </button>
      </div>
      <Alert
        v-if="sheets.layout?.changed"
        type="warning"
        show-icon
        banner
        :message="sheets.layout.changed"
        data-testid="changed-meanwhile"
      />
      <div ref="el" class="bed">
        <template v-if="sheet">
          <img
            v-if="view === 'result' && picture"
            :src="'/api/' + picture"
            :style="{ maxWidth: width - 30 + 'px', maxHeight: height - 30 + 'px' }"
            alt="The bed after the run"
            data-testid="result"
          />
          <BedDrawing
            v-else
            :sheet="sheet"
            :bed="bed"
            :corner="corner"
            :job="job"
            :travel="travel"
            :apart="view === 'apart'"
            :pointing="unknown"
            :pointed="pointed"
            :size="Math.max(200, Math.min(width - 24, height - 16))"
            @point="pointed = $event"
          />
        </template>
        <p v-else-if="sheets.layout" class="none">There is nothing to cut yet. Lay pieces on a face first.</p>
      </div>
    </main>
    <aside class="right">
      <section class="sec">
        <h3>Passes</h3>
        <div v-for="p in passes" :key="p.name" class="row pass" :class="{ on: p.share > 0 && p.share < 1 }">
          <i class="sign" :class="{ now: p.share < 1 }">{{ p.share >= 1 ? '✓' : p.share > 0 ? '▸' : '·' }}</i>
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
        <small v-if="!machine.cutter?.hand" class="note"
          >Lay the sheet at the lower left corner of the cutting mat, its top away from you.</small
        >
        <small v-else class="note">
          The stand-in’s sheets are put on its cutting mat by hand, a little askew.
          {{ sheet.marks.length ? 'Its eye finds the marks, and the cut follows them.' : '' }}
        </small>
      </section>
      <section v-if="apart.length" class="sec" data-testid="apart">
        <h3>Cut meets print</h3>
        <div class="facts">
          <template v-for="a in apart" :key="a.piece">
            <span>{{ a.name }}</span><b :class="a.off ? 'bad' : 'good'"
              >{{ a.mean.toFixed(2) }} mm, worst {{ a.worst.toFixed(2) }}</b
            >
          </template>
        </div>
        <small class="note">How far the cut lies from the printed outline, measured on the sheet.</small>
      </section>
      <CutSettings
        v-if="sheet"
        :stock="sheet.stock"
        :settings="sheet.settings"
        :usual="sheet.usual"
        :passes="sheet.passes"
        @kept="sheets.load()"
      />
      <section v-if="lies" class="sec" data-testid="lies">
        <h3>How the sheet lies</h3>
        <div class="facts">
          <span>Moved</span><b>{{ lies.moved }}</b> <span>Turned</span><b>{{ lies.turned }}</b> <span>Stretched</span
          ><b>{{ lies.stretched }}</b> <span>Marks agree within</span><b>{{ lies.within }}</b>
        </div>
        <small v-for="m in lies.out" :key="m.number" class="note wrong"
          >Mark {{ m.number }} was left out: {{ m.why }}.</small
        >
      </section>
    </aside>
    <RunBar
      class="foot"
      :headline="headline"
      :left="left"
      :failed="
        (job?.state === 'failed' && !unknown) || (unknown && !pointed) || !!sheet?.beyond || (isDone && !!beside)
      "
      :must-point="unknown && !pointed"
      :state="state"
      :ready="free"
      :again="!!isDone"
      :broken="broken"
      :passes="passes"
      @cut="start('run')"
      @go-on="start('goOn')"
      @stop="running && machine.stop(running)"
      @pause="running && machine.hold(running, 'pause')"
      @on="running && machine.hold(running, 'resume')"
    />
  </div>
</template>

<style scoped>
.machine {
  grid-template-rows: minmax(0, 1fr) 96px;
  grid-template-areas: 'side work right' 'foot foot right';
}
.side {
  grid-area: side;
}
.right {
  grid-area: right;
}
.foot {
  grid-area: foot;
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
.text {
  flex: 1;
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
.none {
  color: var(--ink5);
}
</style>
