<script setup lang="ts">
// Which cutter is used: the one the program was started with, or one of a person's own.
import { Button, Input, Popover, Select, SelectOption } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { api } from '../../api/client'
import type { OtherCutter, ToolAt } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import { INCH } from '../../parts/measure'
import { usePopover } from '../../parts/usePopover'
import { useMachine } from '../../store/machine'
import { useSheets } from '../../store/sheets'

const machine = useMachine()
const sheets = useSheets()
const open = ref(false)
usePopover(open, '[data-testid=cutter-menu]')
const fresh = (): OtherCutter => ({ name: '', address: '', width: 12 * INCH, height: 12 * INCH, blind: [0, 0, 0, 0] })
const named = ref<OtherCutter>(fresh())
const all = ref<OtherCutter[]>([])
const wrong = ref('')
const called = (c: OtherCutter) => c.name || c.address
const known = computed(() => all.value.some((c) => called(c) === called(named.value)))
watch(open, async (is) => {
  wrong.value = ''
  if (!is) return
  all.value = await api.machines().catch(() => [])
  const now = await api.namedCutter().catch(() => undefined)
  if (now?.address) named.value = now
})
const edges = ['left', 'right', 'far', 'near'] as const
const setBlind = (i: number, mm: number) =>
  (named.value.blind = named.value.blind.map((v, k) => (k === i ? mm : v)) as OtherCutter['blind'])
/** Where the tools beside the blade stand. */
const tools = [
  { tool: 1, name: 'Pen' },
  { tool: 2, name: 'Scoring tip' },
]
const at = (tool: number): ToolAt =>
  named.value.tools?.find((t) => t.tool === tool) ?? { tool: tool as ToolAt['tool'], across: 0, down: 0 }
function setTool(tool: number, part: Partial<ToolAt>) {
  const rest = (named.value.tools ?? []).filter((t) => t.tool !== tool)
  named.value.tools = [...rest, { ...at(tool), ...part }].filter((t) => t.across || t.down)
}
const more = ref(false)

async function use(c: OtherCutter) {
  try {
    await api.useCutter(c)
    open.value = false
    await machine.look()
    await sheets.load()
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
async function forget() {
  await api.forgetMachine(called(named.value)).catch(() => undefined)
  all.value = await api.machines().catch(() => [])
  named.value = fresh()
}
function take(name: string) {
  named.value = { ...(all.value.find((c) => called(c) === name) ?? fresh()) }
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="topLeft">
    <button class="verb" data-testid="other-cutter">Change</button>
    <template #content>
      <div class="list" data-testid="cutter-menu">
        <b>A cutter of your own</b>
        <Field v-if="all.length" label="One of" wide>
          <Select
            :value="known ? called(named) : ''"
            :bordered="false"
            size="small"
            data-testid="machine-list"
            @change="(v) => take(String(v))"
          >
            <SelectOption v-for="c in all" :key="called(c)" :value="called(c)">{{ called(c) }}</SelectOption>
            <SelectOption value="">another one …</SelectOption>
          </Select>
        </Field>
        <small
          >Any that reads HP-GL: by its address and port, like 192.168.1.40:9100, or by the path of its serial line,
          like /dev/ttyUSB0.</small
        >
        <Input
          v-model:value="named.name"
          placeholder="Name"
          :maxlength="60"
          aria-label="Name"
          data-testid="cutter-name"
        />
        <Input v-model:value="named.address" placeholder="Address" aria-label="Address" data-testid="cutter-address" />
        <div class="pair">
          <MeasureField
            label="Reaches"
            :mm="named.width"
            testid="cutter-width"
            @set="named.width = $event"
            @wrong="wrong = $event"
          />
          <MeasureField
            label="by"
            :mm="named.height"
            testid="cutter-height"
            @set="named.height = $event"
            @wrong="wrong = $event"
          />
        </div>
        <button class="verb more" :aria-expanded="more" data-testid="cutter-more" @click="more = !more">
          {{ more ? 'Less of it' : 'Its mat, tools and limits' }}
        </button>
        <template v-if="more">
          <small>Edges of its cutting mat that no tool reaches</small>
          <div class="pair">
            <MeasureField
              v-for="(e, i) in edges"
              :key="e"
              :label="'At the ' + e"
              :mm="named.blind[i] ?? 0"
              :testid="'cutter-blind-' + e"
              @set="setBlind(i, $event)"
              @wrong="wrong = $event"
            />
          </div>
          <template v-for="t in tools" :key="t.tool">
            <small>{{ t.name }}, from the blade</small>
            <div class="pair">
              <MeasureField
                label="To the right"
                :mm="at(t.tool).across"
                :testid="`cutter-tool-${t.tool}-across`"
                @set="setTool(t.tool, { across: $event })"
                @wrong="wrong = $event"
              />
              <MeasureField
                label="Nearer"
                :mm="at(t.tool).down"
                :testid="`cutter-tool-${t.tool}-down`"
                @set="setTool(t.tool, { down: $event })"
                @wrong="wrong = $event"
              />
            </div>
          </template>
          <small>The most that it does; 0 is as a stock asks for</small>
          <div class="pair">
            <NumberField
              label="Speed, mm/s"
              :value="named.speed ?? 0"
              :digits="0"
              testid="cutter-speed"
              @set="named.speed = $event"
              @wrong="wrong = $event"
            />
            <NumberField
              label="Force, g"
              :value="named.force ?? 0"
              :digits="0"
              testid="cutter-force"
              @set="named.force = Math.round($event)"
              @wrong="wrong = $event"
            />
          </div>
        </template>
        <p v-if="wrong" class="wrong" role="alert" data-testid="cutter-wrong">{{ wrong }}</p>
        <div class="buttons">
          <Button type="primary" size="small" :disabled="!named.address" data-testid="cutter-use" @click="use(named)"
            >Use it</Button
          >
          <Button v-if="known" size="small" data-testid="cutter-forget" @click="forget">Forget it</Button>
          <Button size="small" data-testid="cutter-own" @click="use({ ...fresh(), address: '' })"
            >Back to the one it came with</Button
          >
        </div>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.list {
  display: grid;
  gap: 8px;
  width: 300px;
  max-height: 76vh;
  overflow: auto;
}
p {
  margin: 0;
}
.more {
  justify-self: start;
  margin-left: -8px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
