<script setup lang="ts">
import { Alert, Button, Checkbox, Progress, Select, SelectOption, Spin } from 'ant-design-vue'
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { api } from '../../api/client'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import { formatArea, formatTime } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useMachine } from '../../store/machine'
import { usePrefs } from '../../store/prefs'
import { useSheets } from '../../store/sheets'
import SheetDrawing from './SheetDrawing.vue'

const card = useCard()
const catalogue = useCatalogue()
const machine = useMachine()
const prefs = usePrefs()
const sheets = useSheets()

const chosen = ref(1)
const marks = ref(true)
const bleed = ref(true)
const names = ref(true)
const wrong = ref('')
const el = ref<HTMLElement>()
const { width, height } = useElementSize(el)

onMounted(() => void sheets.load())

const list = computed(() => sheets.layout?.sheets ?? [])
const sheet = computed(() => list.value.find((s) => s.number === chosen.value) ?? list.value[0])
const printed = computed(() => list.value.some((s) => s.printed || s.twoSided))
const pages = computed(() => list.value.reduce((n, s) => n + (s.printed ? 1 : 0) + (s.twoSided ? 1 : 0), 0))

const columns = computed(() => Math.min(width.value < 600 ? 2 : 3, Math.max(1, list.value.length)))
/** As large as lets the sheets stand side by side. */
const scale = computed(() => {
  const size = list.value[0]?.size
  if (!size || !width.value) return 1
  const across = (width.value - 40 - (columns.value - 1) * 28) / columns.value / size.width
  return Math.min(across, (height.value - 80) / size.height)
})

const stocks = computed(() => {
  const out = new Map<string, { name: string; colour: string; first: number; sheets: number; pieces: string[] }>()
  for (const s of list.value) {
    const row = out.get(s.stock.id) ?? {
      name: s.stock.name,
      colour: s.stock.colour,
      first: s.number,
      sheets: 0,
      pieces: [],
    }
    row.sheets++
    row.pieces.push(...s.pieces.map((p) => p.name))
    out.set(s.stock.id, row)
  }
  return [...out.values()]
})

const counted = (pieces: string[]) => {
  const n = new Map<string, number>()
  for (const p of pieces) n.set(p, (n.get(p) ?? 0) + 1)
  return [...n].map(([name, k]) => (k > 1 ? `${name} ×${k}` : name)).join(', ')
}

const size = (id: string) => (prefs.paper.size = id)
const job = computed(() => (machine.print?.card === card.id ? machine.print : undefined))
</script>

<template>
  <div class="sheets">
    <aside class="side">
      <h3>Pieces by stock</h3>
      <div class="stocks">
        <button
          v-for="s in stocks"
          :key="s.name"
          class="bare row"
          :class="{ on: sheet?.stock.name === s.name }"
          @click="chosen = s.first"
        >
          <i class="swatch" :style="{ background: s.colour }" />
          <span>
            <b>{{ s.name }}</b>
            <small>{{ counted(s.pieces) }}{{ s.sheets > 1 ? ` · ${s.sheets} sheets` : '' }}</small>
          </span>
        </button>
      </div>
    </aside>
    <main class="work">
      <div class="verbs">
        <b data-testid="sheet-count">{{ list.length === 1 ? '1 sheet' : `${list.length} sheets` }}</b>
        <span v-if="sheets.layout" class="chip fine"
          >{{ Math.round(sheets.layout.used * 100) }} % of the paper used</span
        >
        <span class="space" />
        <button class="verb" :aria-pressed="marks" @click="marks = !marks">Marks</button>
        <button class="verb" :aria-pressed="bleed" @click="bleed = !bleed">Bleed</button>
        <button class="verb" :aria-pressed="names" @click="names = !names">Names</button>
      </div>
      <div ref="el" class="table">
        <Alert
          v-for="p in sheets.layout?.problems ?? []"
          :key="p.id"
          type="error"
          show-icon
          :message="p.why"
          class="problem"
          data-testid="problem"
        />
        <div v-if="sheets.layout" class="grid" :style="{ gridTemplateColumns: `repeat(${columns}, max-content)` }">
          <SheetDrawing
            v-for="s in list"
            :key="s.number"
            :sheet="s"
            :scale="scale"
            :on="s.number === sheet?.number"
            :bleed="bleed"
            :marks="marks"
            :names="names"
            @choose="chosen = s.number"
          />
        </div>
        <Spin v-else :delay="300" />
      </div>
    </main>
    <aside class="right">
      <section v-if="sheet" class="sec">
        <h3>Sheet {{ sheet.number }}</h3>
        <div class="facts">
          <span>Stock</span><b>{{ sheet.stock.name }}</b> <span>Printed</span
          ><b>{{ sheet.twoSided ? 'on both sides' : sheet.printed ? 'on one side' : 'not' }}</b> <span>Pieces</span
          ><b>{{ sheet.pieces.length }}</b> <span>Marks</span
          ><b>{{ sheet.marks.length ? 'four, one of them doubled' : 'none needed' }}</b>
        </div>
        <div class="files">
          <a class="verb" :href="api.svgURL(card.id, sheet.number, prefs.paper)" download data-testid="svg"
            >Lines as SVG</a
          >
          <a class="verb" :href="api.hpglURL(card.id, sheet.number, prefs.paper)" download data-testid="hpgl"
            >Run as HPGL</a
          >
        </div>
      </section>
      <section class="sec">
        <h3>Paper</h3>
        <div class="pair">
          <Field label="Size" wide>
            <Select
              :value="prefs.paper.size"
              :bordered="false"
              size="small"
              data-testid="paper"
              @change="(v) => size(String(v))"
            >
              <SelectOption v-for="s in catalogue.all.sizes" :key="s.id" :value="s.id"
                >{{ s.name }}, {{ prefs.size(s.width, s.height) }}</SelectOption
              >
            </Select>
          </Field>
          <MeasureField
            label="Margin"
            :mm="prefs.paper.margin"
            testid="margin"
            @set="prefs.paper = { ...prefs.paper, margin: Math.min(50, Math.max(0, $event)) }"
            @wrong="wrong = $event"
          />
          <MeasureField
            label="Between"
            :mm="prefs.paper.between"
            testid="between"
            @set="prefs.paper = { ...prefs.paper, between: Math.min(50, Math.max(3, $event)) }"
            @wrong="wrong = $event"
          />
        </div>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
        <small class="note">Pieces lie at least 3 mm (⅛ in) apart.</small>
      </section>
      <section v-if="sheets.layout" class="sec">
        <h3>What it takes</h3>
        <div class="facts">
          <span>Paper</span
          ><b
            >{{ list.length === 1 ? '1 sheet' : `${list.length} sheets` }} of
            {{ stocks.length === 1 ? '1 stock' : `${stocks.length} stocks` }}</b
          >
          <span>Inked area</span><b>about {{ formatArea(sheets.layout.inked, prefs.unit) }}</b> <span>Cutting</span
          ><b>about {{ formatTime(sheets.layout.seconds) }} min</b>
        </div>
      </section>
      <section class="sec">
        <h3>Print</h3>
        <div class="facts">
          <span>Printer</span><b>Desk printer · stand-in</b> <span>Pages</span><b>{{ pages }}</b>
        </div>
        <div class="buttons">
          <Button
            type="primary"
            :disabled="!printed || job?.state === 'running'"
            data-testid="print"
            @click="machine.start('print')"
          >
            {{ pages === 1 ? 'Print 1 page' : `Print ${pages} pages` }}
          </Button>
          <Button
            :href="printed || prefs.lines ? api.pdfURL(card.id, prefs.paper, prefs.lines) : undefined"
            :disabled="!printed && !prefs.lines"
            download
            data-testid="pdf"
            >PDF</Button
          >
          <Checkbox v-model:checked="prefs.lines" title="The lines too, for cutting by hand" data-testid="lines"
            >with lines</Checkbox
          >
        </div>
        <p v-if="!printed && list.length" class="none">
          Nothing on these sheets is printed. Tick “with lines” for a PDF of their outlines.
        </p>
        <template v-if="job">
          <Progress
            v-if="job.state === 'running'"
            :percent="Math.round(job.progress * 100)"
            :show-info="false"
            stroke-color="#a8432a"
          />
          <p :class="{ wrong: job.state === 'failed' }" class="note" data-testid="print-note">{{ job.note }}</p>
          <Button v-if="job.state === 'running'" size="small" @click="machine.stop(job)">Stop</Button>
          <div v-if="job.pictures?.length" class="prints">
            <a v-for="p in job.pictures" :key="p" :href="'/api/' + p" target="_blank"
              ><img :src="'/api/' + p" alt="A printed page"
            /></a>
          </div>
        </template>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.sheets {
  display: grid;
  grid-template-columns: var(--left) minmax(0, 1fr) var(--right);
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.stocks {
  margin: 0 -6px;
}
.stocks .row:hover:not(.on) {
  background: var(--paper2);
}
.work {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.table {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 18px 20px;
}
.grid {
  display: grid;
  gap: 22px 28px;
  justify-content: center;
}
.problem {
  margin-bottom: 14px;
}
.buttons,
.files {
  display: flex;
  gap: 8px;
  margin-top: 10px;
  align-items: center;
}
.files {
  margin: 8px -8px 0;
}
a.verb {
  text-decoration: none;
  color: var(--brick);
}
.note,
.none {
  margin: 8px 0 0;
  color: var(--ink5);
  font-size: 11.5px;
}
.prints {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
.prints img {
  width: 46px;
  box-shadow: 0 1px 3px #0004;
}
</style>
