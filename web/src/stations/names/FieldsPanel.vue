<script setup lang="ts">
// The words of the card with what changes in them from name to name: a word, or several that are drawn over,
// is made to stand for a column.
import { Button, Select, SelectOption } from 'ant-design-vue'
import { computed, nextTick, ref, watch } from 'vue'
import type { Command } from '../../api/types'
import Field from '../../parts/Field.vue'
import { useCard } from '../../store/card'
import { useCheck } from '../../store/check'
import { useNames } from '../../store/names'
import { parts, stretch, told, type Part } from './words'
import { useLettering } from './useLettering'

const card = useCard()
const check = useCheck()
const names = useNames()
const { all, one } = useLettering()

const cut = computed(() => (one.value ? parts(one.value.words) : []))
const text = computed(() => Array.from(one.value?.words.text ?? ''))
const columns = computed(() => names.list?.columns ?? [])

/** What is asked about: characters from up to, and what they are to stand for. */
const asked = ref<{ from: number; to: number; column: string; before: string; after: string; is: boolean }>()
watch(
  () => [one.value?.id, one.value?.words.text, one.value?.words.fields?.length],
  () => (asked.value = undefined),
)
const said = computed(() =>
  asked.value ? text.value.slice(asked.value.from, asked.value.to).join('').replaceAll('\n', ' ') : '',
)
/** The column that has what is said, if any. */
function columnOf(s: string) {
  const shown = names.rows.find((r) => r.id === names.list?.shown)
  const is = (cells: string[] | undefined) => cells?.findIndex((c) => c && c.toLowerCase() === s.toLowerCase()) ?? -1
  const at = [shown?.cells, ...names.rows.map((r) => r.cells)].map(is).find((i) => i >= 0)
  return columns.value[at ?? -1]
}
function ask(from: number, to: number) {
  const s = text.value.slice(from, to).join('').replaceAll('\n', ' ')
  const free = columns.value.find((c) => !one.value?.words.fields?.some((f) => f.column === c))
  asked.value = { from, to, column: columnOf(s) ?? free ?? columns.value[0] ?? '', before: '', after: '', is: false }
  focus()
}
const focus = () =>
  void nextTick(() =>
    document.querySelector<HTMLElement>('[data-testid=field-form] input')?.focus({ preventScroll: true }),
  )
function point(p: Part) {
  if (window.getSelection()?.toString().trim()) return // words are drawn over
  if (p.field) {
    const { column, before = '', after = '' } = p.field
    asked.value = { from: p.from, to: p.to, column, before, after, is: true }
    return focus()
  }
  const cells = names.rows.flatMap((r) => r.cells)
  ask(...stretch(one.value!.words.text, p, cells))
}
const box = ref<HTMLElement>()
/** What is drawn over with the pointer. */
function drawn() {
  const s = window.getSelection()
  if (!s || s.isCollapsed || !box.value?.contains(s.anchorNode) || !box.value.contains(s.focusNode)) return
  const at = (node: Node | null, offset: number) => {
    const el = node instanceof HTMLElement ? node : node?.parentElement
    const from = Number(el?.closest<HTMLElement>('[data-from]')?.dataset.from ?? NaN)
    const inField = el?.closest('.stands')
    return inField ? from : from + Array.from((node?.textContent ?? '').slice(0, offset)).length
  }
  const a = at(s.anchorNode, s.anchorOffset)
  const b = at(s.focusNode, s.focusOffset)
  s.removeAllRanges()
  let [from, to] = [Math.min(a, b), Math.max(a, b)]
  if (Number.isNaN(from) || Number.isNaN(to)) return
  while (from < to && /\s/.test(text.value[from]!)) from++
  while (to > from && /\s/.test(text.value[to - 1]!)) to--
  if (to > from) ask(from, to)
}

const straight = computed(() => {
  const w = one.value?.words
  return w && !w.box && !w.path && !w.warp
})
/** The first field of words in straight lines fits its letters, too. */
async function make() {
  const k = asked.value
  const w = one.value
  if (!k || !w) return
  const commands: Command[] = [
    {
      do: 'makeField',
      id: w.id,
      from: k.from,
      to: k.to,
      column: k.column,
      before: k.before || undefined,
      after: k.after || undefined,
    },
  ]
  if (!w.words.fields?.length && straight.value) commands.push({ do: 'fitNames', id: w.id })
  asked.value = undefined
  await card.change(...commands)
}
async function unmake() {
  const k = asked.value
  if (!k || !one.value) return
  asked.value = undefined
  await card.change({ do: 'makeField', id: one.value.id, from: k.from, to: k.to, column: '' })
}
/** Words that say one name on all cards, with what makes them say each. */
const same = computed(() => check.open.filter((f) => f.check === 'sameWords' && f.item && f.mends?.length))
function mend(i: number) {
  const f = same.value[i]
  const steps = f?.mends?.[0]?.do
  if (!f || !steps) return
  names.item = f.item!
  void card.change(...steps)
}
</script>

<template>
  <section class="sec" data-testid="fields">
    <h3>Fields in the words</h3>
    <p v-if="!one" class="note">
      There are no words on this card yet. Set some on
      <RouterLink :to="`/cards/${card.id}/panels`">Panels</RouterLink>.
    </p>
    <template v-else>
      <Field v-if="all.length > 1" label="Words" wide class="which">
        <Select
          :value="one.id"
          :bordered="false"
          size="small"
          data-testid="fields-which"
          @change="(v) => (names.item = String(v))"
        >
          <SelectOption v-for="w in all" :key="w.id" :value="w.id"
            >{{ w.name }} · {{ w.face }}{{ w.words.fields?.length ? ', with fields' : '' }}</SelectOption
          >
        </Select>
      </Field>
      <p ref="box" class="text" data-testid="fields-text" @pointerup="drawn">
        <template v-for="(p, i) in cut" :key="i"
          ><br v-if="p.kind === 'line'" /><span v-else-if="p.kind === 'gap'" :data-from="p.from">{{ p.text }}</span
          ><button
            v-else-if="p.kind === 'field'"
            class="bare stands"
            :class="{ on: asked?.is && asked.from === p.from && asked.column === p.field!.column }"
            :data-from="p.from"
            :title="`Says “${p.text}” here`"
            data-testid="field-chip"
            @click="point(p)"
          >
            {{ told(p.field!) }}</button
          ><span
            v-else
            role="button"
            tabindex="0"
            class="word"
            :class="{ on: asked && !asked.is && p.from >= asked.from && p.to <= asked.to }"
            :data-from="p.from"
            @click="point(p)"
            @keydown.enter.prevent="point(p)"
            @keydown.space.prevent="point(p)"
            >{{ p.text }}</span
          ></template
        >
      </p>
      <form
        v-if="asked"
        class="form"
        data-testid="field-form"
        @submit.prevent="make"
        @keydown.esc.stop="asked = undefined"
      >
        <p class="note">
          {{ said ? `“${said}” stands for` : 'Stands for' }}
        </p>
        <div class="pair">
          <Field label="Column" wide>
            <Select v-model:value="asked.column" :bordered="false" size="small" data-testid="field-column">
              <SelectOption v-for="c in columns" :key="c" :value="c">{{ c }}</SelectOption>
            </Select>
          </Field>
          <Field label="Before"
            ><input v-model="asked.before" maxlength="200" placeholder="nothing" data-testid="field-before"
          /></Field>
          <Field label="After"
            ><input v-model="asked.after" maxlength="200" placeholder="nothing" data-testid="field-after"
          /></Field>
        </div>
        <small>What is said before and after it is left out where the list has a gap.</small>
        <div class="acts">
          <Button type="primary" html-type="submit" data-testid="field-make">{{
            asked.is ? 'Change it' : 'Make it a field'
          }}</Button>
          <button v-if="asked.is" type="button" class="verb" data-testid="field-drop" @click="unmake">
            Words again
          </button>
          <button type="button" class="verb" @click="asked = undefined">Leave it</button>
        </div>
      </form>
      <template v-else>
        <p v-for="(f, i) in same" :key="f.item" class="same">
          {{ f.why }} <button class="verb" data-testid="say-each" @click="mend(i)">{{ f.mends![0]!.says }}</button>
        </p>
        <p v-if="!same.length && !one.words.fields?.length" class="note">
          Point at a word that is to change from name to name, or draw over several.
        </p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.which {
  margin-bottom: 8px;
}
.text {
  margin: 0;
  padding: 2px 0;
  font-size: 13.5px;
  line-height: 27px;
  max-height: 220px;
  overflow: auto;
  white-space: pre-wrap;
}
.word {
  border-radius: 4px;
  padding: 2px 0;
  cursor: pointer;
}
.word:hover {
  background: var(--paper2);
}
.word.on {
  background: var(--honey);
}
.stands {
  display: inline;
  padding: 3px 9px;
  border-radius: 8px;
  background: #f2e3c0;
  font-weight: 600;
  font-size: 12.5px;
  line-height: 18px;
}
.stands:hover,
.stands.on {
  box-shadow: inset 0 0 0 1.5px var(--honey-dark);
}
.note {
  margin: 4px 0;
  color: var(--ink5);
  font-size: 12px;
}
.same {
  margin: 6px 0 0;
  padding: 7px 9px;
  border-left: 3px solid var(--caution);
  background: #fbf1dc;
  font-size: 12px;
}
.same .verb {
  color: var(--rust);
  font-weight: 600;
}
.form {
  margin-top: 6px;
}
.form input {
  flex: 1;
  min-width: 0;
  border: 0;
  outline: 0;
  background: none;
  font: inherit;
}
small {
  margin: 5px 0 8px;
}
.acts {
  display: flex;
  gap: 2px;
}
</style>
