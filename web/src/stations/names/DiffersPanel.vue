<script setup lang="ts">
// What else differs by name: the stock of a piece, the picture of a photo, or whether something is there.
import { Button, Select, SelectOption } from 'ant-design-vue'
import { computed, onMounted, ref } from 'vue'
import { api } from '../../api/client'
import type { ByValue, Differs, Picture } from '../../api/types'
import Field from '../../parts/Field.vue'
import StockField from '../../parts/StockField.vue'
import { useCard } from '../../store/card'
import { useNames } from '../../store/names'

const card = useCard()
const names = useNames()
const columns = computed(() => names.list?.columns ?? [])
const differs = computed(() => names.list?.differs ?? [])

const pictures = ref<Picture[]>([])
onMounted(async () => {
  pictures.value = await api.pictures().catch(() => [])
})

type What = Differs['what']
const says: Record<What, string> = { stock: 'stock by', photo: 'picture by', there: 'there, if it has' }
const asks: Record<What, string> = { stock: 'its stock', photo: 'its picture', there: 'whether it is there' }
const all = computed(() => names.view?.canDiffer ?? [])
const nameOf = (id: string) => all.value.find((t) => t.item === id)?.name ?? ''
/** What does not differ yet, and how it can. */
const things = computed(() =>
  all.value
    .map((t) => ({ ...t, what: t.what.filter((w) => !differs.value.some((d) => d.item === t.item && d.what === w)) }))
    .filter((t) => t.what.length),
)

const adding = ref(false)
const thing = ref('')
const what = ref<What>('stock')
const column = ref('')
const can = computed(() => things.value.find((t) => t.item === thing.value)?.what ?? [])
function begin() {
  adding.value = true
  const free = things.value.find((t) => t.item !== 'base' && t.what[0] !== 'there') ?? things.value[0]
  pick(free?.item ?? 'base')
  column.value = columns.value[1] ?? columns.value[0] ?? ''
}
function pick(id: string) {
  thing.value = id
  what.value = can.value[0] ?? 'stock'
}

/** What stands in a column, each once, in the order of the list. */
const cellsOf = (c: string) =>
  [...new Set(names.rows.map((r) => r.cells[columns.value.indexOf(c)] ?? ''))].filter(Boolean)
const valueOf = (cell: string, p: Picture): ByValue => ({
  cell,
  means: p.id,
  pixelWidth: p.width,
  pixelHeight: p.height,
})
const open = ref('')
const key = (d: { item: string; what: string }) => d.item + d.what
async function add() {
  adding.value = false
  const d = { item: thing.value, what: what.value, column: column.value }
  const values = await api.meanings(card.id, d.what, d.column).catch(() => [])
  await card.change({ do: 'differ', ...d, values })
  open.value = key(d)
}
const meaning = (d: Differs, cell: string) => d.values?.find((v) => v.cell === cell)?.means
function mean(d: Differs, cell: string, means: string) {
  const p = pictures.value.find((k) => k.id === means)
  const v: ByValue = d.what === 'photo' && p ? valueOf(cell, p) : { cell, means }
  void card.change({ do: 'differ', ...d, values: [...(d.values ?? []).filter((o) => o.cell !== cell), v] })
}
const drop = (d: Differs) => void card.change({ do: 'differ', item: d.item, what: d.what, column: '' })
</script>

<template>
  <section class="sec" data-testid="differs">
    <h3>
      Differs by name
      <button v-if="!adding && things.length" class="verb" data-testid="differ-add" @click="begin">
        Something else
      </button>
    </h3>
    <p v-if="!differs.length && !adding" class="note">
      The stock of a piece, the picture of a photo, or whether something is there can follow a column.
    </p>
    <div v-for="d in differs" :key="key(d)" class="one">
      <button
        class="bare line"
        :aria-expanded="open === key(d)"
        :data-testid="'differ-' + key(d)"
        @click="open = open === key(d) ? '' : key(d)"
      >
        <small>{{ nameOf(d.item) }}</small><span>{{ says[d.what] }} {{ d.column }}</span>
      </button>
      <div v-if="open === key(d)" class="values">
        <template v-if="d.what !== 'there'">
          <template v-for="cell in cellsOf(d.column)" :key="cell">
            <StockField
              v-if="d.what === 'stock'"
              :label="cell"
              :value="meaning(d, cell)"
              :testid="'means-' + cell"
              @set="mean(d, cell, $event)"
            />
            <Field v-else :label="cell" wide>
              <Select
                :value="meaning(d, cell)"
                :bordered="false"
                size="small"
                placeholder="as on the card"
                :data-testid="'means-' + cell"
                @change="(v) => mean(d, cell, String(v))"
              >
                <SelectOption v-for="p in pictures" :key="p.id" :value="p.id">{{ p.name }}</SelectOption>
              </Select>
            </Field>
          </template>
          <small>What none is chosen for is as the card has it.</small>
        </template>
        <small v-else>It is left out on the cards of names that have nothing there.</small>
        <button class="verb" data-testid="differ-drop" @click="drop(d)">The same for all</button>
      </div>
    </div>
    <form
      v-if="adding"
      class="pair form"
      data-testid="differ-form"
      @submit.prevent="add"
      @keydown.esc.stop="adding = false"
    >
      <Field label="Of" wide>
        <Select
          :value="thing"
          :bordered="false"
          size="small"
          data-testid="differ-thing"
          @change="(v) => pick(String(v))"
        >
          <SelectOption v-for="t in things" :key="t.item" :value="t.item">{{ t.name }}</SelectOption>
        </Select>
      </Field>
      <Field label="Differs in" wide>
        <Select v-model:value="what" :bordered="false" size="small" data-testid="differ-what">
          <SelectOption v-for="w in can" :key="w" :value="w">{{ asks[w] }}</SelectOption>
        </Select>
      </Field>
      <Field label="By" wide>
        <Select v-model:value="column" :bordered="false" size="small" data-testid="differ-column">
          <SelectOption v-for="c in columns" :key="c" :value="c">{{ c }}</SelectOption>
        </Select>
      </Field>
      <div class="wide acts">
        <Button type="primary" html-type="submit" data-testid="differ-do">Let it differ</Button>
        <button type="button" class="verb" @click="adding = false">Leave it</button>
      </div>
    </form>
  </section>
</template>

<style scoped>
h3 {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
h3 .verb {
  margin: -4px -8px -4px 0;
}
.note {
  margin: 0;
  color: var(--ink5);
  font-size: 12px;
}
.one {
  margin-top: 6px;
}
.line {
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  height: 30px;
  padding: 0 9px;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: #fff;
}
.line small {
  flex: 0 1 auto;
  min-width: 0;
  max-width: 110px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line span {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.values {
  display: grid;
  gap: 6px;
  padding: 8px 0 4px 10px;
  border-left: 2px solid var(--paper2);
  margin-left: 4px;
}
.values .verb {
  justify-self: start;
}
.form {
  margin-top: 8px;
}
.acts {
  display: flex;
  gap: 4px;
}
</style>
