<script setup lang="ts">
// A drawing from another program on its way onto the face: what its lines are
// for, how large it is, and what of it cannot be taken.
import { Button, Modal, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api, Fault } from '../../api/client'
import type { Incoming, PathopsUse } from '../../api/types'
import Field from '../../parts/Field.vue'
import { roleNames } from '../../parts/lines'
import { unitNames } from '../../parts/names'
import type { Pt } from '../../parts/geom'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'

const emit = defineEmits<{ kept: [id: string] }>()
const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const open = ref(false)
const reading = ref('')
const wrong = ref('')
const incoming = ref<Incoming>()
const lines = ref<Record<string, PathopsUse>>({})
const filled = ref<PathopsUse>('printed')
const unit = ref('')
let middle: Pt | undefined
let next: () => void = () => undefined

const lineUses: Record<string, string> = { piece: 'Cut piece', printed: 'Printed', ...roleNames, leave: 'Leave out' }
const fillUses: Record<string, string> = { printed: 'Printed', piece: 'Cut pieces', leave: 'Leave out' }

const size = computed(() => {
  const k = (unit.value && incoming.value?.units?.[unit.value]) || 1
  return incoming.value ? prefs.size(incoming.value.width * k, incoming.value.height * k) : ''
})
const large = computed(() => {
  const k = (unit.value && incoming.value?.units?.[unit.value]) || 1
  const f = card.face
  return !!f && !!incoming.value && (incoming.value.width * k > f.width || incoming.value.height * k > f.height)
})

/** Shows a file; resolves when it has been laid down or put aside. */
function show(file: File, at?: Pt): Promise<void> {
  middle = at
  incoming.value = undefined
  wrong.value = ''
  unit.value = ''
  filled.value = 'printed'
  reading.value = file.name
  open.value = true
  void read(file)
  return new Promise((resolve) => (next = resolve))
}

async function read(file: File) {
  try {
    const d = await api.readDrawing(file)
    incoming.value = d
    lines.value = Object.fromEntries(d.lines.map((l) => [l.key, l.likely]))
  } catch (e) {
    wrong.value = e instanceof Fault ? e.message : String(e)
  }
}

/** What is to become of it, on the face that is worked on. */
function laying() {
  const d = incoming.value
  const f = card.face
  return (
    d &&
    f && {
      drawing: d.id,
      ...(unit.value ? { unit: unit.value } : {}),
      face: f.id,
      middle: middle ?? { x: f.width / 2, y: f.height / 2 },
      lines: lines.value,
      filled: filled.value,
    }
  )
}
async function lay() {
  const l = laying()
  if (!l || !(await card.selectMade(card.lay(l)))) return
  close()
  await catalogue.loadArt()
}
/** It waits in the tray, and is not laid down now. */
async function keep() {
  const l = laying()
  if (!l) return
  try {
    const a = await api.keepDrawing(l)
    await catalogue.loadArt()
    emit('kept', a.id)
    close()
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}

function close() {
  open.value = false
  next()
}

defineExpose({ show })
</script>

<template>
  <Modal
    :open="open"
    :title="'Bring in ' + (incoming?.name ?? reading)"
    :width="680"
    :footer="null"
    centered
    @cancel="close"
  >
    <p v-if="wrong" class="wrong" role="alert" data-testid="drawing-wrong">{{ wrong }}</p>
    <p v-else-if="!incoming" class="hint">Reading {{ reading }} …</p>
    <div v-else class="two" data-testid="drawing-dialog">
      <div class="paper"><img :src="api.drawingURL(incoming.id)" :alt="'What ' + incoming.name + ' holds'" /></div>
      <div class="about">
        <p data-testid="drawing-size">
          <b>{{ size }}</b> in true size<template v-if="large">, larger than the face</template>
        </p>
        <Field v-if="incoming.units" label="Its unit" wide>
          <Select v-model:value="unit" :bordered="false" size="small" data-testid="drawing-unit">
            <SelectOption value="">Not said: millimetres</SelectOption>
            <SelectOption v-for="(_, u) in incoming.units" :key="u" :value="u">{{ unitNames[u] ?? u }}</SelectOption>
          </Select>
        </Field>
        <template v-if="incoming.filled">
          <h3>Filled shapes</h3>
          <Field :label="incoming.filled === 1 ? '1 shape' : `${incoming.filled} shapes`" wide>
            <Select v-model:value="filled" :bordered="false" size="small" data-testid="drawing-filled">
              <SelectOption v-for="(name, u) in fillUses" :key="u" :value="u">{{ name }}</SelectOption>
            </Select>
          </Field>
        </template>
        <template v-if="incoming.lines.length">
          <h3>Lines</h3>
          <div v-for="(l, i) in incoming.lines" :key="l.key" class="line">
            <i :style="{ background: l.colour }" :title="l.colour" />
            <span :title="l.layer"
              >{{ l.layer || l.colour }}<small>{{ l.count === 1 ? '1 line' : `${l.count} lines` }}</small></span
            >
            <Select v-model:value="lines[l.key]" size="small" :data-testid="'drawing-line-' + i">
              <SelectOption v-for="(name, u) in lineUses" :key="u" :value="u">{{ name }}</SelectOption>
            </Select>
          </div>
        </template>
        <p v-if="incoming.pictures" class="hint">
          {{ incoming.pictures === 1 ? 'One picture comes' : `${incoming.pictures} pictures come` }} along as photos.
        </p>
        <template v-if="incoming.notes.length">
          <h3>Not taken as it was</h3>
          <ul data-testid="drawing-notes">
            <li v-for="n in incoming.notes" :key="n">{{ n }}</li>
          </ul>
        </template>
      </div>
    </div>
    <footer v-if="incoming">
      <Button @click="close">Put aside</Button>
      <Button data-testid="keep-drawing" @click="keep">Only keep it in the tray</Button>
      <Button type="primary" data-testid="lay-drawing" @click="lay">Lay it on {{ card.face?.name }}</Button>
    </footer>
  </Modal>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 290px;
  gap: 18px;
}
.paper {
  display: grid;
  place-items: center;
  background: #fff;
  border: 1px solid var(--paper2);
  border-radius: var(--r);
  padding: 10px;
  height: 340px;
}
img {
  max-width: 100%;
  max-height: 318px;
}
.about {
  max-height: 340px;
  overflow: auto;
}
.about p {
  margin: 0 0 8px;
}
h3 {
  margin: 12px 0 6px;
}
.line {
  display: grid;
  grid-template-columns: 14px 1fr 128px;
  gap: 8px;
  align-items: center;
  margin-bottom: 6px;
}
.line i {
  width: 14px;
  height: 14px;
  border-radius: 7px;
  box-shadow: inset 0 0 0 1px #0003;
}
.line span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
ul {
  margin: 0;
  padding-left: 16px;
  color: var(--ink7);
}
footer {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 16px;
}
</style>
