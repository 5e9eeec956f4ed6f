<script setup lang="ts">
import { Button, Input, message } from 'ant-design-vue'
import { useEventListener, useNow, watchDebounced } from '@vueuse/core'
import { computed, h, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api } from '../../api/client'
import { useEvents } from '../../api/events'
import type { Summary } from '../../api/types'
import { INCH } from '../../parts/measure'
import Wordmark from '../../parts/Wordmark.vue'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useStocks } from '../../store/stocks'
import { placeSketch } from '../../tray/supplies'
import CardTile from './CardTile.vue'
import SketchPicker from './SketchPicker.vue'

const router = useRouter()
const prefs = usePrefs()
const catalogue = useCatalogue()
const stocks = useStocks()
const cards = ref<Summary[]>()
const find = ref('')
const why = ref('')
const making = ref(false)
const sketching = ref(false)
const now = useNow({ interval: 20000 })
let asked = 0

async function load() {
  const mine = ++asked
  try {
    const list = await api.cards(find.value)
    if (mine !== asked) return
    cards.value = list
    why.value = ''
  } catch (e) {
    why.value = e instanceof Error ? e.message : String(e)
  }
}

const tell = (e: unknown) => void message.warning(e instanceof Error ? e.message : String(e))

onMounted(() => {
  document.title = 'Sectilis'
  void load()
  // The scripts of an open card come while one looks at the table.
  const ahead = () =>
    void Promise.all([import('../CardPage.vue'), import('../panels/PanelsPage.vue')]).catch(() => undefined)
  if ('requestIdleCallback' in window) requestIdleCallback(ahead)
  else setTimeout(ahead, 500)
})
watchDebounced(find, load, { debounce: 150 })
useEvents((e) => {
  if (e.kind !== 'job') void load()
})
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.key === '/' && !(e.target as HTMLElement).matches('input')) {
    e.preventDefault()
    document.querySelector<HTMLInputElement>('[data-testid=find-card]')?.focus()
  }
})

const count = computed(() => {
  const n = cards.value?.length ?? 0
  if (find.value.trim()) return n === 1 ? '1 card found' : `${n} cards found`
  return n === 1 ? '1 card' : `${n} cards · newest first`
})

async function make() {
  making.value = true
  try {
    const mm = prefs.unit === 'mm'
    const { id } = await api.create(
      'New card',
      {
        kind: 'sideFold',
        width: mm ? 105 : 5 * INCH,
        height: mm ? 148 : 7 * INCH,
        stock: 'white-300',
      },
      prefs.mySheets ?? undefined,
    )
    if (prefs.mark && prefs.marks) await putMark(id)
    await router.push(`/cards/${id}/base`)
  } catch (e) {
    tell(e)
  } finally {
    making.value = false
  }
}

/** Puts the maker's mark on the back of a new card; without it the card is as good. */
async function putMark(id: string) {
  try {
    await catalogue.load()
    const mark = catalogue.sketches.find((k) => k.id === prefs.mark)
    const v = await api.open(id)
    const back = v.scene.faces.find((f) => f.id === 'back')
    if (!mark || !back) return
    await api.change(id, v.revision, [placeSketch(mark, back.id)])
  } catch (e) {
    tell(e)
  }
}

const files = ref<HTMLInputElement>()
const bringing = ref(false)
/** A card that was handed on comes with all that it is made with. */
async function bring(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  bringing.value = true
  try {
    const { notes } = await api.bringCard(file)
    for (const n of notes) void message.info({ content: n, duration: 9 })
    await Promise.all([load(), catalogue.again()])
  } catch (err) {
    tell(err)
  } finally {
    bringing.value = false
  }
}

async function rename(c: Summary, title: string) {
  try {
    await api.change(c.id, c.revision, [{ do: 'renameCard', title }])
    await load()
  } catch (e) {
    tell(e)
  }
}

async function copy(c: Summary) {
  try {
    await api.copy(c.id)
    await load()
  } catch (e) {
    tell(e)
  }
}

async function remove(c: Summary) {
  try {
    await api.remove(c.id)
    await load()
  } catch (e) {
    return tell(e)
  }
  const key = 'removed-' + c.id
  const back = async () => {
    message.destroy(key)
    try {
      await api.restore(c.id)
      await load()
    } catch (e) {
      tell(e)
    }
  }
  void message.info({
    key,
    duration: 12,
    content: () => [
      `“${c.title}” is off the table. `,
      h(Button, { type: 'link', size: 'small', onClick: back, 'data-testid': 'put-back' }, () => 'Put it back'),
    ],
  })
}
</script>

<template>
  <div class="page">
    <header class="bar">
      <Wordmark />
      <span class="space" />
      <Input v-model:value="find" class="find" placeholder="Find a card" allow-clear data-testid="find-card" />
      <Button data-testid="stocks-verb" @click="stocks.open()">Stocks</Button>
      <Button :loading="bringing" data-testid="bring-card" @click="files?.click()">Bring in a card</Button>
      <input ref="files" type="file" hidden accept=".sectilis,.zip" data-testid="bring-card-input" @change="bring" />
      <Button data-testid="from-sketch" @click="sketching = true">Start from a sketch</Button>
      <Button type="primary" :loading="making" data-testid="new-card" @click="make">New card</Button>
    </header>
    <main class="desk">
      <div class="head">
        <h1>On the table</h1>
        <span v-if="cards" data-testid="card-count">{{ count }}</span>
      </div>
      <p v-if="why" class="wrong" role="alert">{{ why }}</p>
      <div v-if="cards" class="cards">
        <button v-if="!find.trim()" class="fold" @click="make">
          <span>Fold a<br />new card</span>
        </button>
        <CardTile
          v-for="c in cards"
          :key="c.id"
          :card="c"
          :now="now.getTime()"
          @rename="rename(c, $event)"
          @copy="copy(c)"
          @remove="remove(c)"
        />
      </div>
      <p v-if="cards && !cards.length && find.trim()" class="none">
        No card has “{{ find }}” in its title or its words.
      </p>
    </main>
    <SketchPicker v-if="sketching" v-model:open="sketching" />
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: grid;
  grid-template-rows: 56px 1fr;
}
.bar {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 0 20px 0 16px;
  background: var(--paper0);
  border-bottom: 1px solid var(--paper3);
}
.space {
  flex: 1;
}
.find {
  width: 280px;
}
.desk {
  overflow: auto;
  padding: 24px 40px 40px;
}
.head {
  display: flex;
  align-items: baseline;
  gap: 14px;
  margin-bottom: 26px;
}
h1 {
  font-size: 22px;
}
.head span {
  color: var(--ink5);
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(205px, 1fr));
  gap: 26px 28px;
}
.fold {
  height: 196px;
  border: 0;
  background: none;
  display: grid;
  place-items: end center;
  padding: 0;
  cursor: pointer;
  color: var(--ink5);
  font: 550 13px/1.4 'Figtree Variable';
}
.fold span {
  width: 120px;
  height: 160px;
  display: grid;
  place-items: center;
  border: 1.6px dashed var(--ink3);
  border-radius: 6px;
  margin-bottom: 8px;
}
.fold:hover span {
  border-color: var(--brick);
  color: var(--brick);
}
.none {
  color: var(--ink5);
}
</style>
