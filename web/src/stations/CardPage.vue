<script setup lang="ts">
// The frame of an open card: header, station, and the keys that work everywhere.
import { Button, Result, Spin } from 'ant-design-vue'
import { useEventListener, watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api } from '../api/client'
import { useEvents } from '../api/events'
import AppHeader from '../parts/AppHeader.vue'
import RunStrip from '../parts/RunStrip.vue'
import ShortcutHelp from '../parts/ShortcutHelp.vue'
import { afterChoice, afterEnter, isTyping, isWriting, writes } from '../parts/typing'
import { stations, type Place, type Station } from '../router'
import { useAssembly } from '../store/assembly'
import { useCheck } from '../store/check'
import { useCard } from '../store/card'
import { useMachine } from '../store/machine'
import { usePrefs } from '../store/prefs'
import { useSheets } from '../store/sheets'
import PaperDefs from '../surface/PaperDefs.vue'

const props = defineProps<{ id: string }>()
const card = useCard()
const sheets = useSheets()
const machine = useMachine()
const check = useCheck()
const assembly = useAssembly()
const prefs = usePrefs()
const route = useRoute()
const router = useRouter()
const help = ref(false)

const here = computed(() => (route.path.split('/').at(-1) as Place) || 'panels')
const go = (s: Station) => void router.push(`/cards/${props.id}/${s}`)

watch(
  () => props.id,
  (id) => void card.open(id),
  { immediate: true },
)
watch(
  () => card.view?.card.title,
  (t) => (document.title = t ? `${t} · Sectilis` : 'Sectilis'),
)
// The sheets follow every change, a moment later.
watchDebounced(
  () => [card.view?.id, card.view?.revision],
  () => void sheets.load(),
  { debounce: 250 },
)
// So does what is checked of the card as a whole.
watchDebounced(
  () => [card.view?.id, card.view?.revision],
  () => void check.load(),
  { debounce: 350, immediate: true },
)
// How it is put together follows from its sheets, and is told a little later.
watchDebounced(
  () => [card.view?.id, card.view?.revision, prefs.unit],
  () => void assembly.load(),
  { debounce: 600, immediate: true },
)
let looking = new AbortController()
// How it will look when it is printed takes a little longer to tell.
watchDebounced(
  () => [card.view?.id, card.view?.revision, card.view?.inks],
  async () => {
    // What was asked of a change before is not waited for.
    looking.abort()
    looking = new AbortController()
    const of = card.view?.id
    const v = of ? await api.prints(of, looking.signal).catch(() => undefined) : undefined
    if (of && v) card.prints = { of, revision: v.revision, findings: v.findings }
  },
  { debounce: 700 },
)
onMounted(() => void machine.look())

useEvents((e) => {
  if (e.kind === 'card' && e.card === props.id && e.revision) void card.catchUp(e.revision)
  if (e.kind === 'inks' || e.kind === 'stocks') void card.reload()
  if (e.kind === 'stocks') void sheets.load()
  if (e.kind === 'assembly' && e.card === props.id) void assembly.load()
  if (e.kind === 'hello') {
    void card.catchUp(Infinity)
    void sheets.load()
    void assembly.load()
    void machine.catchUp()
  }
  if (e.kind === 'job' && e.job) machine.hear(e.job)
})

/** Letters and figures that are typed on chosen words go into them. */
const onWords = (e: KeyboardEvent) =>
  here.value === 'panels' && writes(e) && card.selected.some((it) => it.kind === 'lettering')

useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.key === 'Escape' && help.value) help.value = false
  const mod = e.ctrlKey || e.metaKey
  if (mod && e.key.toLowerCase() === 'z' && !isWriting(e)) {
    e.preventDefault()
    void (e.shiftKey ? card.redo() : card.undo())
    return
  }
  if (e.defaultPrevented || isTyping(e) || onWords(e)) return
  if (!mod && !e.altKey && /^[1-9]$/.test(e.key)) {
    const s = stations[Number(e.key) - 1]
    if (s) go(s)
  } else if (e.key === '?') help.value = true
})
useEventListener(window, 'keydown', afterEnter)
useEventListener(window, 'click', afterChoice)
</script>

<template>
  <div v-if="card.view && card.view.id === id" class="page">
    <PaperDefs />
    <AppHeader
      :here="here"
      :sheets="sheets.layout?.sheets.length"
      :waiting="sheets.layout?.unlaid.length"
      :machine="machine.fact"
      @go="go"
    />
    <RunStrip :here="here" @go="go('machine')" />
    <RouterView class="station" />
    <ShortcutHelp v-model:open="help" />
  </div>
  <Result
    v-else-if="card.gone"
    :status="card.damaged ? 'warning' : '404'"
    :title="card.damaged ? 'This card cannot be read as it is' : 'This card is not on the table'"
    :sub-title="card.gone"
  >
    <template #extra>
      <Button v-if="card.damaged" type="primary" data-testid="recover" @click="card.recover(id)"
        >Take up the last state</Button
      >
      <RouterLink to="/"
        ><Button :type="card.damaged ? 'default' : 'primary'">To the table of cards</Button></RouterLink
      >
    </template>
  </Result>
  <div v-else class="wait"><Spin :delay="300" /></div>
</template>

<style scoped>
.page {
  height: 100%;
  display: grid;
  grid-template: 56px auto minmax(0, 1fr) / minmax(0, 1fr);
}
.station {
  grid-row: 3;
  min-height: 0;
}
.wait {
  height: 100%;
  display: grid;
  place-items: center;
}
</style>
