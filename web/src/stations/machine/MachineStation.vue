<script setup lang="ts">
import { useElementSize, useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { formatTime } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useMachine } from '../../store/machine'
import { useSheets } from '../../store/sheets'
import CutSettings from './CutSettings.vue'
import BedDrawing from './BedDrawing.vue'
import RunBar from './RunBar.vue'
import RunList from './RunList.vue'
import { passViews } from './passes'

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
  if (machine.running && machine.run?.sheet) chosen.value = machine.run.sheet
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
const isDone = computed(() => (job.value ? job.value.state === 'done' : sheet.value?.state.state === 'done'))
const picture = computed(() => job.value?.pictures?.[0] ?? sheet.value?.state.picture)
const total = computed(() => sheet.value?.passes.reduce((n, p) => n + p.seconds, 0) ?? 0)
const passes = computed(() => passViews(sheet.value?.passes ?? [], job.value?.progress ?? (isDone.value ? 1 : 0)))
const bed = computed<[number, number]>(() => {
  const b = machine.cutter?.bed
  return b?.[0] && b[1] ? [b[0], b[1]] : [304.8, 304.8]
})

watch(
  () => job.value?.state,
  (now, was) => {
    if (was === 'running' && now === 'done') result.value = true
  },
)
watch(chosen, () => (result.value = false))

const headline = computed(() => {
  const n = sheet.value?.number
  if (!n) return ''
  if (running.value?.note) return `${running.value.note} …`
  if (running.value)
    return `Cutting sheet ${n} · ${passes.value[running.value.run?.pass ?? 0]?.name.toLowerCase() ?? ''}`
  if (job.value?.state === 'failed') return job.value.note ?? 'The run failed.'
  if (job.value?.state === 'stopped') return 'Stopped. The tool is up; nothing more will be cut.'
  if (!job.value && broken.value) return `Sheet ${n} was broken off. ${sheet.value?.state.why ?? ''}`
  return isDone.value ? `Sheet ${n} is cut.` : `Sheet ${n} is ready to be cut.`
})
/** How the sheet was found to lie, as people would say it. */
const lies = computed(() => {
  const f = job.value ? job.value.lies : sheet.value?.state.lies
  if (!f?.marks?.length) return undefined
  const signed = (v: number, digits: number) => (v > 0 ? '+' : v < 0 ? '−' : '') + Math.abs(v).toFixed(digits)
  return {
    moved: `${signed(f.shiftX, 1)}, ${signed(f.shiftY, 1)} mm`,
    turned: `${signed(f.turn, 2)}°`,
    stretched: `${signed(f.stretchX * 100, 2)}, ${signed(f.stretchY * 100, 2)} %`,
    within: `${Math.max(f.left, 0.01).toFixed(2)} mm`,
    out: f.marks.filter((m) => !m.used),
  }
})
const left = computed(() =>
  running.value
    ? `${formatTime(running.value.run?.seconds ?? total.value)} left, by plan`
    : `${formatTime(total.value)} by plan`,
)

const broken = computed(() => {
  const s = sheet.value?.state
  return !!s && ['stopped', 'failed'].includes(s.state) && s.done > 0 && s.done < s.of && !!s.lies
})

function cut(goOn = false) {
  result.value = false
  if (sheet.value) void machine.start('run', sheet.value.number, goOn)
}
</script>

<template>
  <div class="columns machine">
    <RunList :chosen="sheet?.number" @choose="chosen = $event" />
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
            :bed="bed"
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
          {{ sheet.marks.length ? 'Its eye looks for the marks; what is cut follows them.' : '' }}
        </small>
      </section>
      <CutSettings v-if="sheet" :sheet="sheet" />
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
      :failed="job?.state === 'failed'"
      :running="!!running"
      :ready="!!sheet && !!machine.cutter?.ready && !machine.running"
      :again="!!isDone"
      :broken="broken"
      :passes="passes"
      @cut="cut()"
      @go-on="cut(true)"
      @stop="running && machine.stop(running)"
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
