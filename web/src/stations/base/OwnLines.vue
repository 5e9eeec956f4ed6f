<script setup lang="ts">
// Lines of one's own on the base: each from one place to another, measured
// across and down with the inside up, or whole strips that stand up.
import { Popover, Select, SelectOption } from 'ant-design-vue'
import { computed, reactive, ref } from 'vue'
import type { Command } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import { INCH } from '../../parts/measure'
import { roleLook, roleNames, type Role } from '../../parts/lines'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'

const card = useCard()
const prefs = usePrefs()
const wrong = ref('')

const lines = computed(() => card.view?.card.base.lines ?? [])
/** What a line of a base can be for; a guide leaves the sheet whole there. */
const names: Partial<Record<Role, string>> = {
  cut: roleNames.cut,
  mountain: roleNames.mountain,
  valley: roleNames.valley,
  perforation: roleNames.perforation,
  guide: 'No fold here',
}

const line = reactive({ role: 'cut' as Role, x0: INCH, y0: INCH, x1: INCH, y1: 2 * INCH, order: 0 })
const strip = reactive({ from: INCH, to: 2 * INCH, up: INCH, out: INCH })
const copies = reactive({ count: 1, dx: INCH, dy: 0 })

const folds = computed(() => line.role === 'mountain' || line.role === 'valley')
const place = (p: { x: number; y: number }) => `${prefs.len(p.x)}, ${prefs.len(p.y)}`
async function change(c: Command) {
  wrong.value = ''
  await card.change(c)
}
const add = () =>
  change({
    do: 'addLines',
    lines: [
      {
        role: line.role,
        from: { x: line.x0, y: line.y0 },
        to: { x: line.x1, y: line.y1 },
        order: folds.value ? line.order : 0,
      },
    ],
  })
</script>

<template>
  <section class="sec" data-testid="own-lines">
    <h3>Lines of your own</h3>
    <ul v-if="lines.length">
      <li v-for="(l, i) in lines" :key="i">
        <svg width="26" height="10" aria-hidden="true"><path d="M0 5H26" fill="none" v-bind="roleLook[l.role]" /></svg>
        <span>{{ place(l.from) }} to {{ place(l.to) }}</span>
        <button
          class="verb"
          :aria-label="`Take away the ${names[l.role] ?? l.role} from ${place(l.from)}`"
          @click="change({ do: 'removeLines', lines: [i] })"
        >
          ×
        </button>
      </li>
    </ul>
    <div class="acts">
      <Popover trigger="click" placement="leftTop">
        <button class="verb" data-testid="add-line">Add a line</button>
        <template #content>
          <div class="form">
            <small>Across and down from the upper left, the inside up</small>
            <div class="pair">
              <Field label="For" wide>
                <Select v-model:value="line.role" :bordered="false" size="small" data-testid="line-for">
                  <SelectOption v-for="(name, r) in names" :key="r" :value="r">{{ name }}</SelectOption>
                </Select>
              </Field>
              <MeasureField
                label="From across"
                :mm="line.x0"
                testid="line-x0"
                @set="line.x0 = $event"
                @wrong="wrong = $event"
              />
              <MeasureField
                label="down"
                :mm="line.y0"
                testid="line-y0"
                @set="line.y0 = $event"
                @wrong="wrong = $event"
              />
              <MeasureField
                label="To across"
                :mm="line.x1"
                testid="line-x1"
                @set="line.x1 = $event"
                @wrong="wrong = $event"
              />
              <MeasureField
                label="down"
                :mm="line.y1"
                testid="line-y1"
                @set="line.y1 = $event"
                @wrong="wrong = $event"
              />
              <Field v-if="folds" label="Folded" wide>
                <Select v-model:value="line.order" :bordered="false" size="small" data-testid="line-order">
                  <SelectOption :value="0">Whenever it works out</SelectOption>
                  <SelectOption :value="1">First, before the base</SelectOption>
                  <SelectOption :value="2">Second</SelectOption>
                  <SelectOption :value="3">Third</SelectOption>
                </Select>
              </Field>
            </div>
            <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
            <button class="go" data-testid="line-add" @click="add">Add it</button>
          </div>
        </template>
      </Popover>
      <Popover trigger="click" placement="leftTop">
        <button class="verb" data-testid="add-strip">Add a strip</button>
        <template #content>
          <div class="form">
            <small>It stands up across the main fold</small>
            <div class="pair">
              <MeasureField
                label="From"
                :mm="strip.from"
                testid="strip-from"
                @set="strip.from = $event"
                @wrong="wrong = $event"
              />
              <MeasureField
                label="To"
                :mm="strip.to"
                testid="strip-to"
                @set="strip.to = $event"
                @wrong="wrong = $event"
              />
              <MeasureField
                label="Up"
                :mm="strip.up"
                testid="strip-up"
                @set="strip.up = $event"
                @wrong="wrong = $event"
              />
              <MeasureField
                label="Out"
                :mm="strip.out"
                testid="strip-out"
                @set="strip.out = $event"
                @wrong="wrong = $event"
              />
            </div>
            <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
            <button class="go" data-testid="strip-add" @click="change({ do: 'addStrip', ...strip })">
              Stand it up
            </button>
          </div>
        </template>
      </Popover>
      <template v-if="lines.length">
        <Popover trigger="click" placement="leftTop">
          <button class="verb" data-testid="repeat-lines">Repeat</button>
          <template #content>
            <div class="form">
              <div class="pair">
                <NumberField
                  label="Times"
                  :value="copies.count"
                  :digits="0"
                  wide
                  @set="copies.count = $event"
                  @wrong="wrong = $event"
                />
                <MeasureField label="Across" :mm="copies.dx" @set="copies.dx = $event" @wrong="wrong = $event" />
                <MeasureField label="Down" :mm="copies.dy" @set="copies.dy = $event" @wrong="wrong = $event" />
              </div>
              <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
              <button class="go" @click="change({ do: 'repeatLines', ...copies })">Repeat all lines</button>
            </div>
          </template>
        </Popover>
        <button class="verb" data-testid="mirror-lines" @click="change({ do: 'mirrorLines', level: false })">
          Mirror
        </button>
        <button class="verb" @click="change({ do: 'removeLines', lines: [] })">Clear</button>
      </template>
    </div>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
  max-height: 150px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: 26px 1fr 24px;
  gap: 8px;
  align-items: center;
}
li .verb {
  padding: 1px 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  margin-left: -8px;
}
.form {
  width: 250px;
}
.pair {
  margin: 8px 0;
}
.go {
  width: 100%;
  border: 0;
  border-radius: 6px;
  background: var(--brick);
  color: #fff;
  padding: 6px;
  font: 600 13px 'Figtree Variable';
  cursor: pointer;
}
</style>
