<script setup lang="ts">
import { Alert, Button, Progress, Segmented, Spin } from 'ant-design-vue'
import { useElementSize, useEventListener } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import type { Mend } from '../../api/types'
import { formatArea, formatTime } from '../../parts/measure'
import { counted } from '../../parts/names'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useMachine } from '../../store/machine'
import { usePrefs } from '../../store/prefs'
import { useSheets } from '../../store/sheets'
import { useStocks } from '../../store/stocks'
import OnHandPanel from './OnHandPanel.vue'
import PaperPanel from './PaperPanel.vue'
import PrintBar from './PrintBar.vue'
import PrintPanel from './PrintPanel.vue'
import PiecePanel from './PiecePanel.vue'
import ScrapBox from './ScrapBox.vue'
import SheetDrawing from './SheetDrawing.vue'
import SheetPanel from './SheetPanel.vue'
import { useLaying } from './useLaying'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const sheets = useSheets()
const shelf = useStocks()
const machine = useMachine()
/** The search for a closer layout, if it was for this card. */
const closer = computed(() => (machine.closer?.card === card.id ? machine.closer : undefined))

const chosen = ref(1)
const marks = ref(true)
const bleed = ref(true)
const names = ref(true)
const el = ref<HTMLElement>()
const { width, height } = useElementSize(el)

onMounted(() => void sheets.load())
const laying = useLaying(() => sheets.layout?.sheets ?? [])
const { chosen: pieces, drag } = laying
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  const at = e.target as HTMLElement
  if (at.closest('input, textarea, .ant-select, [role=menu], [role=dialog]')) return
  const far = e.altKey ? prefs.step.fine : e.shiftKey ? prefs.step.coarse : prefs.step.normal
  const way = { ArrowLeft: [-far, 0], ArrowRight: [far, 0], ArrowUp: [0, -far], ArrowDown: [0, far] }[e.key]
  if (way && pieces.value.length) {
    e.preventDefault()
    laying.move(way[0] ?? 0, way[1] ?? 0)
  } else if (e.key === 'Escape') laying.picked.value = []
})
/** How far what is dragged lies from the edges of its sheet. */
const told = computed(() => {
  const d = drag.value
  const c = d && list.value.flatMap((s) => s.pieces).find((p) => p.id === d.piece)
  if (!d || !c) return ''
  return d.wrong || `${prefs.lenUnit(c.box.x + d.dx)} from left, ${prefs.lenUnit(c.box.y + d.dy)} from top`
})
const wrongs = computed(() => list.value.flatMap((s) => s.pieces.filter((p) => p.wrong)))

/** What would spoil the paper, as pieces lie on the sheets. */
const findings = computed(() => sheets.layout?.findings.filter((f) => !f.left) ?? [])

const list = computed(() => sheets.layout?.sheets ?? [])
const unlaidPieces = computed(() => sheets.layout?.unlaid ?? [])
/** A stock that is looked at although no piece of it is laid. */
const unlaid = ref('')
const sheet = computed(() =>
  unlaid.value ? undefined : (list.value.find((s) => s.number === chosen.value) ?? list.value[0]),
)
const stock = computed(() => sheet.value?.stock ?? unlaidPieces.value.find((p) => p.stock.id === unlaid.value)?.stock)
watch(unlaidPieces, (now) => {
  if (!now.some((p) => p.stock.id === unlaid.value)) unlaid.value = ''
})
function choose(number: number) {
  unlaid.value = ''
  chosen.value = number
}
/** Does what mends a finding: a change of the card, or of the paper that there is. */
function mend({ do: change, paper }: Mend) {
  if (change) void card.change(...change)
  if (!paper) return
  const own = sheets.ownOf(paper.stock)
  void sheets.keepOnHand({ ...own, sizes: [...own.sizes, paper.size] })
}
const kinds = { stop: 'error', caution: 'warning', note: 'info' } as const

/** What is offered where pieces have no room, said by what it changes. */
const offered = computed(() => {
  const o = sheets.layout?.offer
  if (!o) return ''
  const was = sheets.setup
  const size = catalogue.all.sizes.find((s) => s.id === o.size)?.name ?? o.size
  const how = [o.lie !== was.lie && o.lie, o.turning !== was.turning && 'turned freely'].filter(Boolean)
  const bare = (o.unmarked ?? []).filter((id) => !was.unmarked?.includes(id))
  const names = bare.map((id) => card.items.get(id)?.name ?? (id === 'base' ? 'the base' : id))
  const all = `Lay all on ${[size, ...how].join(', ')}`
  return bare.length
    ? `${all}, ${names.slice(0, 2).join(', ')}${bare.length > 2 ? ' and others' : ''} without marks`
    : all
})
/** For how many names the card is made. */
const forNames = computed(() => card.view?.card.names?.rows.filter((r) => !r.out).length ?? 0)
const laidStocks = computed(() => stocks.value.filter((s) => s.sheets).length)
const columns = computed(() => Math.min(width.value < 600 ? 2 : 3, Math.max(1, list.value.length)))
/** As large as lets the sheets stand side by side. */
const scale = computed(() => {
  const widest = Math.max(...list.value.map((s) => s.size.width))
  const highest = Math.max(...list.value.map((s) => s.size.height))
  if (!list.value.length || !width.value) return 1
  const across = (width.value - 40 - (columns.value - 1) * 28) / columns.value / widest
  return Math.min(across, (height.value - 80) / highest)
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
    row.pieces.push(...s.pieces.map((p) => p.plain ?? p.name))
    out.set(s.stock.id, row)
  }
  for (const p of unlaidPieces.value)
    if (!out.has(p.stock.id))
      out.set(p.stock.id, { name: p.stock.name, colour: p.stock.colour, first: 0, sheets: 0, pieces: [p.name] })
  return [...out.entries()].map(([id, row]) => ({ id, ...row }))
})
</script>

<template>
  <div class="columns">
    <aside class="side">
      <h3 class="by">
        Pieces by stock
        <button class="verb" data-testid="stocks-verb" @click="shelf.open(sheets.layout?.sheets[0]?.stock.id)">
          All stocks
        </button>
      </h3>
      <div class="stocks">
        <button
          v-for="s in stocks"
          :key="s.name"
          class="bare row"
          :class="{ on: stock?.id === s.id }"
          @click="s.first ? choose(s.first) : (unlaid = s.id)"
        >
          <i class="swatch" :style="{ background: s.colour }" />
          <span>
            <b>{{ s.name }}</b>
            <small :title="counted(s.pieces)"
              >{{ s.sheets ? '' : 'Not laid: ' }}{{ counted(s.pieces)
              }}{{ s.sheets > 1 ? ` · ${s.sheets} sheets` : '' }}</small
            >
          </span>
        </button>
      </div>
      <span class="space" />
      <ScrapBox :stock="stock?.id" />
    </aside>
    <main class="work">
      <div class="verbs">
        <b data-testid="sheet-count">{{ list.length === 1 ? '1 sheet' : `${list.length} sheets` }}</b>
        <Segmented
          v-if="forNames"
          size="small"
          :value="card.view?.card.names?.laid ? 'all' : 'one'"
          :options="[
            { value: 'one', label: 'One card', title: 'That of the name that is shown' },
            { value: 'all', label: forNames === 1 ? '1 name' : `All ${forNames} names` },
          ]"
          aria-label="Cards that are laid"
          data-testid="lay-names"
          @change="(v) => card.change({ do: 'layNames', all: v === 'all' })"
        />
        <span v-if="sheets.laying" class="chip slow" data-testid="laying">laying them …</span>
        <span v-else-if="sheets.layout" class="chip fine"
          >{{ Math.round(sheets.layout.used * 100) }} % of the paper used</span
        >
        <span v-if="closer?.state === 'running'" class="seeking">
          <Progress
            :percent="Math.round(closer.progress * 100)"
            :show-info="false"
            size="small"
            :stroke-color="'#587a4a'"
          />
          <button class="verb" data-testid="stop-closer" @click="machine.stop(closer)">Enough</button>
          <small v-if="closer.note" data-testid="closer-so-far">{{ closer.note }}</small>
        </span>
        <button
          v-if="closer?.state !== 'running' && list.some((s) => s.pieces.length > 1)"
          class="verb"
          title="Seeks a layout that takes less paper for ten seconds, or until you say it is enough. Sheets that you have printed already no longer fit it."
          data-testid="lay-closer"
          @click="machine.start('closer')"
        >
          Lay closer
        </button>
        <template v-if="pieces.length">
          <i class="rule" />
          <button v-if="laying.canTie.value" class="verb" data-testid="tie" @click="laying.tie">Tie</button>
          <button v-if="laying.tied.value" class="verb" data-testid="untie" @click="laying.untie">Untie</button>
          <button class="verb" data-testid="turn" @click="laying.turn(90)">Turn ¼</button>
          <button
            class="verb"
            title="Onto a sheet of its stock that nothing lies on yet"
            data-testid="apart-sheet"
            @click="laying.apart"
          >
            New sheet
          </button>
          <button
            v-if="laying.byHand.value"
            class="verb"
            title="Lets it be laid with the others again"
            data-testid="loosen"
            @click="laying.loosen"
          >
            Loosen
          </button>
        </template>
        <span class="space" />
        <button class="verb" :aria-pressed="marks" @click="marks = !marks">Marks</button>
        <button class="verb" :aria-pressed="bleed" @click="bleed = !bleed">Bleed</button>
        <button class="verb" :aria-pressed="names" @click="names = !names">Piece names</button>
      </div>
      <div ref="el" class="table">
        <Alert
          v-for="f in findings"
          :key="f.check + f.item + f.why"
          :type="kinds[f.weight]"
          show-icon
          :message="prefs.said(f.why)"
          class="problem"
          :data-testid="`finding-${f.check}`"
        >
          <template v-if="f.mends" #action>
            <Button v-for="m in f.mends" :key="m.says" size="small" data-testid="mend" @click="mend(m)">{{
              m.says
            }}</Button>
          </template>
        </Alert>
        <Button
          v-if="sheets.layout?.offer"
          type="primary"
          class="problem"
          data-testid="offer"
          @click="sheets.setUp(sheets.layout.offer)"
          >{{ offered }}</Button
        >
        <Alert
          v-for="p in wrongs"
          :key="p.id"
          type="warning"
          show-icon
          :message="prefs.said(p.wrong ?? '')"
          class="problem"
          data-testid="laid-wrong"
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
            :laying="laying"
            @choose="choose(s.number)"
          />
        </div>
        <Spin v-else :delay="300" />
      </div>
      <div
        v-if="drag"
        class="told"
        :class="{ wrong: drag.wrong }"
        :style="{ left: drag.x + 16 + 'px', top: drag.y + 14 + 'px' }"
      >
        {{ told }}
      </div>
    </main>
    <aside class="right footed">
      <div class="over">
        <PiecePanel :laying="laying" />
        <SheetPanel v-if="sheet" :sheet="sheet" />
        <OnHandPanel v-if="stock" :stock="stock" />
        <PaperPanel />
        <section v-if="sheets.layout" class="sec">
          <h3>What it takes</h3>
          <div class="facts">
            <span>Paper</span
            ><b
              >{{ list.length === 1 ? '1 sheet' : `${list.length} sheets` }} of
              {{ laidStocks === 1 ? '1 stock' : `${laidStocks} stocks` }}</b
            >
            <template v-if="sheets.layout.cost"
              ><span>Its paper costs</span><b data-testid="cost">{{ sheets.layout.cost.toFixed(2) }}</b></template
            >
            <template v-if="sheets.layout.saved > 1"
              ><span>Saved by laying closer</span
              ><b class="good" data-testid="saved">{{ formatArea(sheets.layout.saved, prefs.unit) }}</b></template
            >
            <template v-if="closer && closer.state !== 'running' && closer.note"
              ><span>Laid closer</span><b data-testid="closer-note">{{ closer.note }}</b></template
            >
            <span>Inked area</span><b>about {{ formatArea(sheets.layout.inked, prefs.unit) }}</b> <span>Cutting</span
            ><b>about {{ formatTime(sheets.layout.seconds) }} min</b>
          </div>
        </section>
        <PrintPanel />
      </div>
      <PrintBar :sheets="list" />
    </aside>
  </div>
</template>

<style scoped>
.footed {
  display: flex;
  flex-direction: column;
  overflow: hidden;
}
.over {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.space {
  flex: 1;
}
/* Shown only where it takes a while. */
.slow {
  animation: 1ms linear 0.3s backwards shown;
}
@keyframes shown {
  from {
    visibility: hidden;
  }
}
.by {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.by .verb {
  margin-right: -8px;
}
.stocks {
  margin: 0 -6px;
}
.stocks .row small {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 4;
  line-clamp: 4;
  overflow: hidden;
}
.stocks .row:hover:not(.on) {
  background: var(--paper2);
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
.told {
  position: fixed;
  z-index: 20;
  padding: 3px 8px;
  border-radius: 5px;
  background: var(--ink9);
  color: var(--paper0);
  font-size: 11.5px;
  pointer-events: none;
  white-space: nowrap;
}
.told.wrong {
  background: var(--stop);
}
.problem {
  margin-bottom: 14px;
}
.seeking {
  display: flex;
  align-items: center;
  gap: 6px;
}
.seeking :deep(.ant-progress) {
  width: 100px;
  margin: 0;
}
.chip {
  margin-right: 10px;
}
.verbs {
  flex-wrap: wrap;
  height: auto;
  min-height: 42px;
}
.verbs b,
.verbs .chip {
  flex: none;
}
</style>
