<script setup lang="ts">
// Repeating what is selected; the copies are shown on the face while their
// number and steps are chosen.
import { Button, Popover, Segmented, Switch } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { Command, RepeatItems } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import { union } from '../../parts/geom'
import { INCH } from '../../parts/measure'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'
import { useTrial } from './useTrial'

const card = useCard()
const prefs = usePrefs()
const open = ref(false)
usePopover(open, '[data-testid=repeat-dialog]', () => apply())
const pattern = ref<RepeatItems['pattern']>('row')
const count = ref(5)
const rows = ref(3)
const dx = ref(0)
const dy = ref(0)
const turn = ref(0)
const grow = ref(100)
const radius = ref(INCH)
const sweep = ref(360)
const upright = ref(false)
const wrong = ref('')

// A first step that leaves a small gap.
watch(open, (now) => {
  if (!now || !card.selected.length) return
  const b = union(card.selected.map((it) => it.bounds))
  dx.value = b.w + INCH / 8
  dy.value = pattern.value === 'grid' ? b.h + INCH / 8 : 0
  wrong.value = ''
})
watch(pattern, (now) => {
  const b = union(card.selected.map((it) => it.bounds))
  dy.value = now === 'grid' ? b.h + INCH / 8 : 0
})

const command = computed<Command | undefined>(() => {
  const ids = card.selected.map((it) => it.id)
  if (!ids.length) return undefined
  const base = { do: 'repeatItems' as const, ids, pattern: pattern.value, count: count.value }
  if (pattern.value === 'grid') return { ...base, rows: rows.value, dx: dx.value, dy: dy.value }
  const each = { turn: turn.value, grow: grow.value / 100 }
  if (pattern.value === 'row') return { ...base, ...each, dx: dx.value, dy: dy.value }
  return { ...base, ...each, radius: radius.value, sweep: sweep.value, upright: upright.value }
})
const refused = useTrial(open, () => command.value)

async function apply() {
  const first = card.selected.map((it) => it.id)
  if (!command.value) return
  // It closes at once: a click on its verb while the change is on its way opens it anew.
  open.value = false
  const v = await card.selectMade(card.change(command.value), (v) => [
    ...first,
    ...(v.made ?? []).filter((id) => !card.doc(id)?.mat),
  ])
  if (!v) open.value = true
}
const whole = (v: number) => Math.round(v)
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft">
    <button class="verb" data-testid="repeat">Repeat</button>
    <template #content>
      <div class="repeat" data-testid="repeat-dialog">
        <h3>Repeat</h3>
        <Segmented
          v-model:value="pattern"
          block
          :options="[
            { value: 'row', label: 'In a row' },
            { value: 'grid', label: 'Grid' },
            { value: 'ring', label: 'Ring' },
          ]"
          data-testid="repeat-pattern"
        />
        <div class="pair">
          <NumberField
            :label="pattern === 'grid' ? 'Across' : 'In all'"
            :value="count"
            testid="repeat-count"
            @set="count = whole($event)"
            @wrong="wrong = $event"
          />
          <NumberField
            v-if="pattern === 'grid'"
            label="Down"
            :value="rows"
            testid="repeat-rows"
            @set="rows = whole($event)"
            @wrong="wrong = $event"
          />
          <template v-if="pattern !== 'ring'">
            <MeasureField label="Step across" :mm="dx" testid="repeat-dx" @set="dx = $event" @wrong="wrong = $event" />
            <MeasureField label="Step down" :mm="dy" testid="repeat-dy" @set="dy = $event" @wrong="wrong = $event" />
          </template>
          <template v-else>
            <MeasureField
              label="Radius"
              :mm="radius"
              testid="repeat-radius"
              @set="radius = $event"
              @wrong="wrong = $event"
            />
            <NumberField
              label="Spread"
              :value="sweep"
              sign="°"
              testid="repeat-sweep"
              @set="sweep = $event"
              @wrong="wrong = $event"
            />
            <Field label="Upright" wide
              ><Switch v-model:checked="upright" size="small" data-testid="repeat-upright"
            /></Field>
          </template>
          <template v-if="pattern !== 'grid'">
            <NumberField
              label="Turn each"
              :value="turn"
              sign="°"
              testid="repeat-turn"
              @set="turn = $event"
              @wrong="wrong = $event"
            />
            <NumberField
              label="Size"
              :value="grow"
              sign=" %"
              testid="repeat-grow"
              @set="grow = $event"
              @wrong="wrong = $event"
            />
          </template>
        </div>
        <p v-if="wrong || refused" class="wrong" role="alert">{{ prefs.said(wrong || refused) }}</p>
        <Button type="primary" block :disabled="!!refused" data-testid="repeat-apply" @click="apply">Repeat</Button>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.repeat {
  width: 312px;
}
h3 {
  margin-bottom: 8px;
}
.pair {
  margin: 10px 0;
}
</style>
