<script setup lang="ts">
// The list as a table: cells are written in place, a row is chosen by going into it.
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import type { NameRow } from '../../api/types'
import { useCard } from '../../store/card'
import { useNames } from '../../store/names'
import ColumnHead from './ColumnHead.vue'

const card = useCard()
const names = useNames()
const columns = computed(() => names.list?.columns ?? [])
const input = ref<HTMLInputElement>()
const wrong = ref('')

const facts = { '': '', cutting: 'being cut', part: 'cut in part', cut: 'cut', out: 'left out' } as const
function fact(r: NameRow): { text: string; how: string; title?: string } {
  const s = names.stateOf(r.id)
  if (!s) return { text: '', how: '' }
  const why = s.wrong.map((f) => f.why).join(' ')
  if (s.stage === 'out' || s.stage === 'cut') return { text: facts[s.stage], how: s.stage, title: why || undefined }
  if (s.wrong.length) return { text: s.wrong[0]!.short, how: 'wrong', title: why }
  if (s.stage) return { text: facts[s.stage], how: s.stage }
  return names.view?.sheets && names.view.next === r.id && names.cut.length
    ? { text: 'next', how: 'next' }
    : { text: '', how: '' }
}
const facted = computed(() => names.rows.some((r) => fact(r).text))
/** As broad as what stands in a column, px. */
const widths = computed(() =>
  columns.value.map((c, i) => {
    const longest = Math.max(c.length, ...names.rows.map((r) => r.cells[i]?.length ?? 0))
    return Math.min(i ? 88 : 100, Math.max(36, 14 + 6.4 * longest))
  }),
)
const wide = computed(() => widths.value.reduce((a, b) => a + b, 26 + (facted.value ? 58 : 28)))
const cellOf = (row: string, column: string) =>
  names.rows.find((r) => r.id === row)?.cells[columns.value.indexOf(column)] ?? ''
/** Takes what is written in a cell; that of the last row, which has no id, makes a new one. */
async function set(row: string, column: string, field: HTMLInputElement) {
  const text = field.value
  if (text === cellOf(row, column)) return
  if (!row) field.value = '' // it is asked for once, though Enter and leaving the cell both tell
  await card.change({ do: 'setCell', row: row || undefined, column, text })
  if (row && field.value === text) field.value = cellOf(row, column) // as it was taken
}
/** Enter and the arrows go up and down in a column, at once; after a new name the next is written. */
function along(e: KeyboardEvent, at: number, k: number) {
  e.preventDefault()
  const field = e.target as HTMLInputElement
  const to = at + (e.key === 'ArrowUp' ? -1 : 1)
  void set(names.rows[at]?.id ?? '', columns.value[k] ?? '', field)
  document.querySelector<HTMLInputElement>(`[data-cell="${to}.${k}"]`)?.focus()
}

async function again(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) wrong.value = await names.bringFile(file)
}
</script>

<template>
  <aside class="list" :style="{ width: `${Math.min(352, Math.max(300, wide + 13))}px` }" data-testid="names-list">
    <header>
      <h3>{{ names.rows.length === 1 ? '1 name' : `${names.rows.length} names` }}</h3>
      <small :title="names.list?.from">{{ names.list?.from || 'typed here' }}</small>
    </header>
    <p v-if="names.read" class="heads">
      <label
        ><input
          type="checkbox"
          :checked="names.read.headings"
          data-testid="list-headings"
          @change="names.bring(names.read!, !names.read!.headings)"
        />
        The first row names the columns</label
      >
    </p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <div class="scroll">
      <table :style="{ width: `max(100%, ${wide}px)` }">
        <colgroup>
          <col class="n" />
          <col v-for="(w, i) in widths" :key="i" :style="{ width: w + 'px' }" />
          <col :style="{ width: facted ? '58px' : '28px' }" />
        </colgroup>
        <thead>
          <tr>
            <th class="n" />
            <th v-for="c in columns" :key="c"><ColumnHead :name="c" :last="columns.length === 1" /></th>
            <th class="s"><ColumnHead name="" /></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(r, i) in names.rows"
            :key="r.id"
            :class="{ on: r.id === names.row?.id, out: r.out }"
            :data-testid="'name-' + r.id"
            @focusin="names.chosen = r.id"
            @click="names.chosen = r.id"
          >
            <td class="n">{{ i + 1 }}</td>
            <td v-for="(c, k) in columns" :key="k">
              <input
                :value="r.cells[k]"
                :title="r.cells[k]"
                :aria-label="`${c} of row ${i + 1}`"
                :data-cell="`${i}.${k}`"
                maxlength="200"
                spellcheck="false"
                @change="set(r.id, c, $event.target as HTMLInputElement)"
                @keydown.enter="along($event, i, k)"
                @keydown.down="along($event, i, k)"
                @keydown.up="along($event, i, k)"
              />
            </td>
            <td class="s" :class="fact(r).how" :title="fact(r).title">{{ fact(r).text }}</td>
          </tr>
          <tr class="new">
            <td class="n">+</td>
            <td v-for="(c, k) in columns" :key="k">
              <input
                :placeholder="k ? '' : 'another name'"
                :aria-label="`${c} of a new row`"
                :data-cell="`${names.rows.length}.${k}`"
                maxlength="200"
                spellcheck="false"
                data-testid="name-new"
                @change="set('', c, $event.target as HTMLInputElement)"
                @keydown.enter="along($event, names.rows.length, k)"
                @keydown.up="along($event, names.rows.length, k)"
              />
            </td>
            <td />
          </tr>
        </tbody>
      </table>
    </div>
    <footer>
      <button class="verb" title="Reads the list anew, from this file or another" @click="input?.click()">
        Read a file …
      </button>
      <a class="verb" :href="api.namesURL(card.id)" download data-testid="list-out">List out</a>
      <button
        class="verb"
        title="The card is one card again; its words stay as they are shown"
        data-testid="list-off"
        @click="card.change({ do: 'setNames', columns: [], rows: [] })"
      >
        Take the list off
      </button>
      <input
        ref="input"
        type="file"
        accept=".csv,.tsv,.txt,.xlsx,text/csv"
        hidden
        data-testid="list-again"
        @change="again"
      />
    </footer>
  </aside>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--paper0);
  border-right: 1px solid var(--paper3);
}
header {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 10px;
  padding: 12px 14px 4px;
}
header small {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
p {
  margin: 0;
  padding: 2px 14px 6px;
}
.heads label {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink7);
  font-size: 12px;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding-left: 6px;
}
table {
  width: 100%;
  border-collapse: separate;
  border-spacing: 0;
  table-layout: fixed;
}
th {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--paper0);
  text-align: left;
  font-weight: 400;
  color: var(--ink5);
  font-size: 11.5px;
}
td {
  padding: 0;
  height: 29px;
}
col.n {
  width: 26px;
}
td.n,
th.n {
  padding-left: 8px;
  color: var(--ink5);
  font-size: 11px;
}
td input {
  width: 100%;
  min-width: 0;
  border: 1px solid transparent;
  border-radius: 4px;
  padding: 3px 5px;
  background: none;
  font: inherit;
  color: inherit;
  text-overflow: ellipsis;
}
td input:hover {
  border-color: var(--paper3);
}
td input:focus {
  border-color: var(--blue);
  outline: 0;
  background: #fff;
}
td input::placeholder {
  color: var(--ink5);
}
td.s,
th.s {
  padding-right: 8px;
  text-align: right;
  white-space: nowrap;
  font-size: 11.5px;
  color: var(--ink7);
}
td:last-child,
th:last-child {
  position: sticky;
  right: 0;
  background: var(--paper0);
}
th:last-child {
  z-index: 2;
}
td.cut {
  color: #3d5a31;
}
td.wrong {
  color: var(--stop);
}
td.out {
  color: var(--ink5);
}
tr.on td {
  background: var(--brick-soft);
}
tr.on td:first-child {
  border-radius: 6px 0 0 6px;
}
tr.on td:last-child {
  border-radius: 0 6px 6px 0;
}
tr.out input {
  color: var(--ink5);
  text-decoration: line-through;
}
a.verb {
  text-decoration: none;
}
footer .verb {
  white-space: nowrap;
  padding-inline: 6px;
}
footer {
  display: flex;
  gap: 2px;
  padding: 6px 6px;
  border-top: 1px solid var(--paper2);
}
</style>
