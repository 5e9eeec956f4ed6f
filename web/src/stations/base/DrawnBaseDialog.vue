<script setup lang="ts">
// A base from a drawing: what its lines are for, what is unclear in it, and which of its panels have faces.
import { Button, Modal, Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { api, Fault } from '../../api/client'
import type { Base, BaseAsk, DrawingAnswer, DrawingFound, Incoming, PathopsUse } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import { roleNames } from '../../parts/lines'
import { unitNames } from '../../parts/names'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import DrawnBasePicture from './DrawnBasePicture.vue'
import DrawnFaces from './DrawnFaces.vue'

const emit = defineEmits<{ made: [base: Base] }>()
const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const open = ref(false)
const reading = ref('')
const wrong = ref('')
const incoming = ref<Incoming>()
const found = ref<DrawingFound>()
const ask = ref<BaseAsk>()
const at = ref('') // the question that is looked at

const lineUses: Partial<Record<PathopsUse, string>> = {
  cut: roleNames.cut,
  mountain: roleNames.mountain,
  valley: roleNames.valley,
  perforation: roleNames.perforation,
  kiss: roleNames.kiss,
  leave: 'Leave out',
}
const answers: Record<DrawingAnswer, string> = {
  close: 'Close it',
  box: 'Take the rectangle round all lines',
  lengthen: 'Lengthen it',
  leave: 'Leave the line out',
  slit: 'It is a slit',
  straight: 'Make it straight',
  perforation: 'Perforate it',
}

async function show(file: File) {
  incoming.value = undefined
  found.value = undefined
  ask.value = undefined
  wrong.value = ''
  reading.value = file.name
  open.value = true
  try {
    const d = await api.readDrawing(file)
    const lines: BaseAsk['lines'] = {}
    for (const l of d.lines) {
      const role = l.likely in roleNames && l.likely !== 'pen' && l.likely !== 'guide'
      // As nets are drawn: valleys dashed, mountains in dashes and dots, cuts solid.
      const drawn = l.dashes >= 4 ? 'mountain' : l.dashes ? 'valley' : 'cut'
      lines[l.key] =
        role && l.likely !== 'cut' ? l.likely : l.likely === 'printed' && !l.closed && !l.dashes ? 'leave' : drawn
    }
    ask.value = {
      lines,
      filled: d.lines.length ? 'leave' : 'cut',
      insideUp: false,
      meet: 0.3,
      answers: {},
      leaves: [],
      stock: card.view!.card.base.stock,
      name: '',
    }
    incoming.value = d
  } catch (e) {
    wrong.value = e instanceof Fault ? e.message : String(e)
  }
}

let latest = 0
watch(
  () => ask.value && JSON.stringify(ask.value),
  async () => {
    const d = incoming.value
    const what = ask.value
    if (!d || !what) return
    const turn = ++latest
    try {
      const f = await api.readBase(d.id, what)
      if (turn !== latest) return
      found.value = f
      wrong.value = ''
    } catch (e) {
      if (turn === latest) wrong.value = e instanceof Fault ? e.message : String(e)
    }
  },
)
const put = (part: Partial<BaseAsk>) => ask.value && (ask.value = { ...ask.value, ...part })
const answer = (id: string, a: DrawingAnswer) => put({ answers: { ...ask.value!.answers, [id]: a } })
const unclear = computed(() => found.value?.questions.filter((q) => !q.answer).length ?? 0)

const leaves = computed(() => found.value?.leaves ?? [])
/** A panel gets faces or loses them. */
function toggle(panel: number) {
  const p = found.value?.panels[panel]
  if (!p) return
  if (p.leaf >= 0) {
    if (leaves.value.length > 1) put({ leaves: leaves.value.filter((_, i) => i !== p.leaf) })
    return
  }
  const n = leaves.value.length + 1
  put({
    leaves: [
      ...leaves.value,
      { at: p.at, outside: `Outside ${n}`, inside: `Inside ${n}`, outsideTurn: 0, insideTurn: 0 },
    ],
  })
}

function make() {
  const b = found.value?.base
  if (!b) return
  open.value = false
  emit('made', { ...b, measures: {}, lines: [] })
}

defineExpose({ show })
</script>

<template>
  <Modal
    v-model:open="open"
    :title="`A base from “${incoming?.name ?? reading}”`"
    :width="860"
    :footer="null"
    centered
    destroy-on-close
  >
    <p v-if="!incoming && !wrong" class="hint">Reading {{ reading }} …</p>
    <p v-if="wrong" class="wrong" role="alert" data-testid="drawn-wrong">{{ wrong }}</p>
    <div v-if="incoming && ask" class="two" data-testid="drawn-dialog">
      <div class="paper">
        <DrawnBasePicture
          v-if="found"
          :found="found"
          :colour="catalogue.stock(ask.stock)?.colour ?? '#fffdf6'"
          :asked="at"
          @leaf="toggle"
          @ask="at = $event"
        />
      </div>
      <div class="about">
        <Field v-if="incoming.units" label="Its unit" wide>
          <Select
            :value="ask.unit ?? ''"
            :bordered="false"
            size="small"
            data-testid="drawn-unit"
            @change="(v) => put({ unit: String(v) || undefined, answers: {} })"
          >
            <SelectOption value="">Not said: millimetres</SelectOption>
            <SelectOption v-for="(_, u) in incoming.units" :key="u" :value="u">{{ unitNames[u] ?? u }}</SelectOption>
          </Select>
        </Field>
        <h3>What its lines are for</h3>
        <div v-for="(l, i) in incoming.lines" :key="l.key" class="line">
          <svg width="22" height="10" aria-hidden="true">
            <path
              d="M0 5H22"
              :stroke="l.colour"
              stroke-width="2.5"
              :stroke-dasharray="l.dashes >= 4 ? '7 2 2 2' : l.dashes ? '5 3' : undefined"
            />
          </svg>
          <span :title="l.layer || l.colour"
            >{{ l.layer || l.colour }}<small>{{ l.count === 1 ? '1 line' : `${l.count} lines` }}</small></span
          >
          <Select
            :value="ask.lines[l.key]"
            size="small"
            :data-testid="'drawn-line-' + i"
            @change="(v) => put({ lines: { ...ask!.lines, [l.key]: v as PathopsUse }, answers: {} })"
          >
            <SelectOption v-for="(name, u) in lineUses" :key="u" :value="u">{{ name }}</SelectOption>
          </Select>
        </div>
        <div v-if="incoming.filled" class="line">
          <svg width="22" height="12" aria-hidden="true">
            <rect x="3" y="1" width="16" height="10" fill="#6f7c88" />
          </svg>
          <span
            >Edges of filled shapes<small>{{ incoming.filled }}</small></span
          >
          <Select
            :value="ask.filled"
            size="small"
            data-testid="drawn-filled"
            @change="(v) => put({ filled: v as PathopsUse, answers: {} })"
          >
            <SelectOption value="cut">Cut</SelectOption>
            <SelectOption value="leave">Leave out</SelectOption>
          </Select>
        </div>
        <div class="pair">
          <Segmented
            :value="ask.insideUp ? 'inside' : 'outside'"
            :options="[
              { value: 'outside', label: 'Outside up' },
              { value: 'inside', label: 'Inside up' },
            ]"
            block
            class="wide"
            data-testid="drawn-side"
            @change="(v) => put({ insideUp: v === 'inside' })"
          />
          <MeasureField
            label="Ends meet within"
            :mm="ask.meet"
            wide
            testid="drawn-meet"
            @set="put({ meet: $event })"
            @wrong="wrong = $event"
          />
        </div>
        <template v-if="found?.questions.length">
          <h3>
            Unclear<small v-if="unclear">{{ unclear }} to answer</small>
          </h3>
          <div
            v-for="(q, i) in found.questions"
            :key="q.id"
            class="ask"
            :class="{ on: at === q.id }"
            @pointerenter="at = q.id"
            @focusin="at = q.id"
          >
            <p>
              <b>{{ i + 1 }}</b> {{ prefs.said(q.says) }}
            </p>
            <Select
              :value="q.answer || undefined"
              placeholder="Say what becomes of it"
              size="small"
              :data-testid="'drawn-ask-' + i"
              @change="(v) => answer(q.id, v as DrawingAnswer)"
            >
              <SelectOption v-for="o in q.options" :key="o" :value="o">{{ answers[o] }}</SelectOption>
            </Select>
          </div>
        </template>
        <template v-if="leaves.length">
          <h3>Faces<small>click panels to give or take them</small></h3>
          <DrawnFaces :leaves="leaves" @change="put({ leaves: $event })" />
        </template>
        <ul v-if="found?.notes.length || incoming.notes.length" data-testid="drawn-notes">
          <li v-for="n in [...(found?.notes ?? []), ...incoming.notes]" :key="n">{{ n }}</li>
        </ul>
      </div>
    </div>
    <footer v-if="incoming">
      <p v-if="!wrong && found?.base" class="says" :class="{ bad: !found.folds }" data-testid="drawn-verdict">
        <template v-if="found.folds">Folds. Closed {{ prefs.size(found.base.width, found.base.height) }}.</template>
        <template v-else>{{ prefs.said(found.why[0] ?? 'It does not fold.') }}</template>
      </p>
      <p v-else-if="!wrong && unclear" class="says bad">
        {{ unclear === 1 ? 'One thing is unclear.' : `${unclear} things are unclear.` }}
      </p>
      <span v-else class="says" />
      <Button @click="open = false">Put aside</Button>
      <Button type="primary" :disabled="!found?.base || !!wrong" data-testid="drawn-make" @click="make">
        Make it the base
      </Button>
    </footer>
  </Modal>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 396px;
  gap: 18px;
}
.paper {
  background: var(--paper1);
  border: 1px solid var(--paper2);
  border-radius: var(--r);
  padding: 6px;
  height: 480px;
}
.about {
  max-height: 480px;
  overflow: auto;
  padding-right: 6px;
}
h3 {
  margin: 12px 0 6px;
  display: flex;
  gap: 8px;
  align-items: baseline;
}
h3 small {
  font-family: 'Figtree Variable';
}
.line {
  display: grid;
  grid-template-columns: 22px 1fr 148px;
  gap: 8px;
  align-items: center;
  margin-bottom: 6px;
}
.line span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line small {
  margin-left: 6px;
}
.pair {
  margin-top: 8px;
}
.wide {
  grid-column: 1 / 3;
}
.ask {
  padding: 6px 8px;
  margin: 0 0 6px;
  border: 1px solid var(--paper2);
  border-radius: var(--r);
}
.ask.on {
  border-color: var(--caution);
}
.ask p {
  margin: 0 0 4px;
}
.ask :deep(.ant-select) {
  width: 100%;
}
ul {
  margin: 8px 0 0;
  padding-left: 16px;
  color: var(--ink7);
}
footer {
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 8px;
  margin-top: 16px;
}
.says {
  flex: 1;
  margin: 0;
  color: var(--moss);
}
.says.bad {
  color: var(--caution);
}
</style>
