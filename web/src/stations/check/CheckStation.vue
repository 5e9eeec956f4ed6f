<script setup lang="ts">
// What would spoil paper, be looked at again, or is to be known: each finding with its place, why it
// matters, and what would mend it.
import { Button, Segmented } from 'ant-design-vue'
import { until, useEventListener } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api } from '../../api/client'
import type { Command, Finding, Mend, SceneFace } from '../../api/types'
import { isTyping } from '../../parts/typing'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useCheck } from '../../store/check'
import { complete } from '../../store/complete'
import { usePrefs } from '../../store/prefs'
import { useNames } from '../../store/names'
import { useSheets } from '../../store/sheets'
import CutDrawing from './CutDrawing.vue'
import FindingList from './FindingList.vue'
import LeaveSo from './LeaveSo.vue'
import PlaceView from './PlaceView.vue'
import SentAs from './SentAs.vue'
import { checkOf, faceOf, keyOf, placeOf, titleOf } from './finding'

const card = useCard()
const catalogue = useCatalogue()
const check = useCheck()
const names = useNames()
const sheets = useSheets()
const prefs = usePrefs()
const router = useRouter()

const place = ref('')
const of = (f: Finding) => placeOf(catalogue.all, card.view, f)
const places = computed(() => {
  const n = new Map<string, number>()
  for (const f of check.open) n.set(of(f), (n.get(of(f)) ?? 0) + 1)
  return [...n]
})
watch(places, (now) => place.value && !now.some(([name]) => name === place.value) && (place.value = ''))
const key = (f: Finding) => keyOf(f, check.all)
/** What was mended or left so a moment ago, until the checks have looked again. */
const gone = ref<string[]>([])
/** What is about to be. */
const waiting = new Set<string>()
watch(
  () => check.fresh,
  (now) => now && (gone.value = gone.value.filter((k) => waiting.has(k))),
)
const shown = computed(() =>
  check.open.filter((f) => (!place.value || of(f) === place.value) && !gone.value.includes(key(f))),
)
const left = computed(() => check.left.filter((f) => !place.value || of(f) === place.value))
const list = computed(() => [...shown.value, ...left.value])
const chosen = ref('')
const at = computed(() => list.value.findIndex((f) => key(f) === chosen.value))
/** What is chosen stays so; when it is mended, the next one is. */
let last = 0
watch(
  list,
  () => {
    if (at.value >= 0) return
    const n = shown.value.length
    chosen.value = n ? key(shown.value[Math.min(last, n - 1)]!) : ''
  },
  { immediate: true },
)
watch(at, (i) => i >= 0 && (last = i))
const finding = computed(() => (at.value >= 0 ? list.value[at.value] : undefined))
const kind = computed(() => finding.value && checkOf(catalogue.all, finding.value))
const plain = computed(() => {
  const f = finding.value
  return (f && faceOf(card.view, f)) ?? card.view?.scene.faces[0]
})
/** A face of the card for the name that shows the fault, where not every card does. */
const named = shallowRef<SceneFace>()
const row = computed(() => finding.value?.row ?? '')
const face = computed(() => (row.value ? named.value : undefined) ?? plain.value)
/** Where that is on its card. */
const spot = computed(() => {
  const f = finding.value
  return face.value === named.value ? (named.value?.items.find((it) => it.id === f?.item)?.bounds ?? f?.at) : f?.at
})
const told = computed(() => (named.value && row.value ? ` for ${names.called(row.value)}` : ''))
/** The faces as they are after some commands. */
async function after(commands: Command[]): Promise<SceneFace | undefined> {
  const v = card.view
  if (!v) return
  const next = await api.attempt(v.id, v.revision, commands, row.value)
  if (next.part) complete(next, v)
  return next.scene.faces.find((f) => f.id === plain.value?.id)
}
const step = (by: number) => {
  const n = list.value.length
  if (n) chosen.value = key(list.value[(Math.max(at.value, 0) + by + n) % n]!)
}

/** The mend that is looked at; the first until another is pointed at. */
const pointed = ref(0)
const mends = computed(() => finding.value?.mends ?? [])
watch(chosen, () => (pointed.value = 0))
const mend = computed<Mend | undefined>(() => mends.value[pointed.value] ?? mends.value[0])
const steps = (m: Mend | undefined): Command[] => (m?.do ?? []) as Command[]

/** How the face would be after the mend. */
const mended = shallowRef<SceneFace>()
const wrong = ref('')
let latest = 0
watch(
  () => [card.view?.revision, chosen.value, JSON.stringify(mend.value), plain.value?.id],
  async () => {
    const mine = ++latest
    mended.value = named.value = undefined
    wrong.value = ''
    const cmds = steps(mend.value)
    try {
      if (row.value) {
        const is = await after([])
        if (mine === latest) named.value = is
      }
      if (!cmds.length) return
      const then = await after(cmds)
      if (mine === latest) mended.value = then
    } catch (e) {
      if (mine === latest) wrong.value = e instanceof Error ? e.message : String(e)
    }
  },
  { immediate: true },
)
const seen = ref<'is' | 'mended' | 'both'>('is')
/** A mend that the pointer or the focus is on is seen meanwhile. */
const peeking = ref(false)
watch(chosen, () => (peeking.value = false))
function peek(i: number) {
  pointed.value = i
  peeking.value = true
}
const asMended = computed(() => seen.value === 'mended' || (seen.value === 'is' && peeking.value))
/** The piece at whose cut its ink is looked at. */
const edge = computed(() => {
  const f = finding.value
  return f?.check === 'noBleed' && face.value?.items.some((it) => it.id === f.item && it.piece) ? f.item : undefined
})
const both = computed(() => seen.value === 'both' && !!mended.value)
const single = computed(() => (asMended.value && mended.value ? mended.value : face.value))

async function doMend(m: Mend | undefined = mend.value) {
  if (!m) return
  if (m.paper) {
    const own = sheets.ownOf(m.paper.stock)
    await sheets.keepOnHand({ ...own, sizes: [...(own.sizes ?? []), m.paper.size] })
    return
  }
  const i = mends.value.indexOf(m)
  await doing((f) => steps(f.mends?.[i]))
}
let before = Promise.resolve()
/**
 * A change of what is looked at, made when the checks have looked at the card as it is: what another change
 * has mended is not mended once more. Until they have looked again, it is not asked about.
 */
function doing(commands: (f: Finding) => Command[]) {
  const mine = finding.value && key(finding.value)
  if (!mine) return
  const id = card.id
  gone.value = [...gone.value, mine]
  waiting.add(mine)
  before = before.then(async () => {
    await until(() => check.fresh || card.id !== id).toBe(true, { timeout: 10_000 })
    const now = check.open.find((f) => key(f) === mine)
    const list = now && card.id === id ? commands(now) : []
    const done = list.length > 0 && (await card.change(...list))
    waiting.delete(mine)
    if (!done) gone.value = gone.value.filter((k) => k !== mine)
  })
  return before
}
/** All that have the same thing to mend, by the first mend of each, as one change. */
const alikeOf = (f: Finding) => check.open.filter((o) => o.check === f.check && o.mends?.[0]?.do?.length)
const alike = computed(() => (finding.value ? alikeOf(finding.value) : []))
const mendAll = () => doing((f) => alikeOf(f).flatMap((o) => steps(o.mends![0])))

const leaving = ref(false)
const leave = (why: string) => {
  const f = finding.value
  if (f) void doing(() => [{ do: 'leaveSo', check: f.check, item: f.item, why }])
}
const lookAgain = (f: Finding) => card.change({ do: 'leaveSo', check: f.check, item: f.item, why: '' })

/** To the thing itself: on its face, in sight; or to the sheets. */
function go() {
  const f = finding.value
  if (!f) return
  if (kind.value?.reads === 'names') {
    if (f.row) names.chosen = f.row
    if (f.item) names.item = f.item
    return void router.push(`/cards/${card.id}/names`)
  }
  if (kind.value?.reads === 'sheets' && !f.item) return void router.push(`/cards/${card.id}/sheets`)
  if (!f.item) return void router.push(`/cards/${card.id}/${kind.value?.reads === 'folding' ? 'base' : 'panels'}`)
  card.work(f.face)
  card.select([f.item])
  if (f.at) card.framed = { face: f.face, at: f.at }
  void router.push(`/cards/${card.id}/panels`)
}

useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.defaultPrevented || isTyping(e) || e.ctrlKey || e.metaKey || e.altKey || leaving.value) return
  const onSlip =
    !(e.target as HTMLElement).closest?.('button, [role=slider], a') ||
    (e.target as HTMLElement).closest('[data-testid=slip]')
  if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
    if (!onSlip) return
    e.preventDefault()
    step(e.key === 'ArrowDown' ? 1 : -1)
  } else if (e.key === 'm' && finding.value && !finding.value.left && mend.value) void doMend()
  else if (e.key === 'l' && finding.value && !finding.value.left) {
    e.preventDefault()
    leaving.value = true
  } else if (e.key === 'g') go()
})
watch(chosen, () =>
  requestAnimationFrame(() =>
    document.querySelector('[data-testid=slip][aria-current=true]')?.scrollIntoView({ block: 'nearest' }),
  ),
)
</script>

<template>
  <div class="check" :data-fresh="check.fresh">
    <aside class="side">
      <div v-if="places.length" class="filter" role="group" aria-label="Which findings">
        <button :class="{ on: !place }" data-testid="place-all" @click="place = ''">All {{ check.open.length }}</button>
        <button
          v-for="[name, n] in places"
          :key="name"
          :class="{ on: place === name }"
          :data-testid="'place-' + name"
          @click="place = name"
        >
          {{ name }} {{ n }}
        </button>
      </div>
      <FindingList :findings="shown" :left="left" :chosen="chosen" :all="check.all" @choose="chosen = $event" />
    </aside>
    <main class="work">
      <div class="verbs">
        <template v-if="finding">
          <b data-testid="finding-title">{{ titleOf(catalogue.all, card.view, finding) }}</b>
          <i class="rule" />
          <button class="verb" title="g" data-testid="go-there" @click="go">Go there</button>
          <button v-if="finding.left" class="verb" data-testid="look-again" @click="lookAgain(finding)">
            Look at it again
          </button>
          <LeaveSo v-else v-model:open="leaving" @leave="leave" />
          <span class="space" />
          <button class="verb" aria-label="The finding before" @click="step(-1)">‹</button>
          <span class="of">{{ at + 1 }} of {{ list.length }}</span>
          <button class="verb" aria-label="The next finding" data-testid="next-finding" @click="step(1)">›</button>
        </template>
        <b v-else>{{ check.fact === '…' || gone.length ? 'Looking at the card …' : 'Nothing to mend' }}</b>
      </div>
      <div class="stage">
        <template v-if="finding && face">
          <PlaceView
            v-if="single"
            :key="face.id"
            :face="both ? face : single"
            :at="spot"
            :edge="edge"
            :caption="both ? 'As it is' : (peeking && mended ? `${face.name}, mended` : face.name) + told"
          />
          <PlaceView v-if="both && mended" :face="mended" :at="spot" :edge="edge" caption="Mended" />
          <Segmented
            v-if="mended"
            v-model:value="seen"
            class="seen"
            block
            :options="[
              { value: 'is', label: 'As it is' },
              { value: 'mended', label: 'Mended' },
              { value: 'both', label: 'Both' },
            ]"
            data-testid="seen-as"
          />
        </template>
        <div v-else-if="check.fact !== '…' && !gone.length" class="glad" data-testid="all-well">
          <svg width="120" height="96" viewBox="0 0 120 96" aria-hidden="true">
            <path d="M18 20L60 10V84L18 90Z" fill="#fffdf9" stroke="#d8c9af" />
            <path d="M60 10L104 18V88L60 84Z" fill="#f5efe4" stroke="#d8c9af" />
            <path
              d="M70 50l9 10 17-24"
              fill="none"
              stroke="#587a4a"
              stroke-width="5"
              stroke-linecap="round"
              stroke-linejoin="round"
            />
          </svg>
          <h2>All is well with this card</h2>
          <p>Nothing would spoil paper, and there is nothing to look at again. It may be printed and cut.</p>
          <RouterLink :to="`/cards/${card.id}/sheets`"><Button type="primary">To the sheets</Button></RouterLink>
        </div>
      </div>
      <CutDrawing />
    </main>
    <aside class="right">
      <template v-if="finding">
        <section class="sec">
          <h3>Why it matters</h3>
          <p data-testid="finding-why">{{ prefs.said(finding.why) }}</p>
          <p class="matters">{{ kind?.matters }}</p>
          <p v-if="finding.left" class="matters">Left so: {{ finding.left }}</p>
        </section>
        <section class="sec">
          <h3>What would mend it</h3>
          <p v-if="!mends.length" class="matters">
            That is for your hand: go there and change it, or leave it so if it is meant.
          </p>
          <button
            v-for="(m, i) in mends"
            :key="m.says"
            class="way"
            :class="{ on: i === pointed }"
            data-testid="way"
            @pointerenter="peek(i)"
            @pointerleave="peeking = false"
            @focus="peek(i)"
            @blur="peeking = false"
            @click="doMend(m)"
          >
            {{ prefs.said(m.says) }}
          </button>
          <p v-if="wrong" class="wrong" role="alert">{{ prefs.said(wrong) }}</p>
          <div v-if="mends.length && !finding.left" class="acts">
            <Button type="primary" title="m" data-testid="do-mend" @click="doMend()">Mend</Button>
            <Button v-if="alike.length > 1" data-testid="mend-all" @click="mendAll"
              >Mend all {{ alike.length }} of this kind</Button
            >
          </div>
        </section>
      </template>
      <SentAs v-if="check.view" :view="check.view" />
    </aside>
  </div>
</template>

<style scoped>
.check {
  display: grid;
  grid-template: minmax(0, 1fr) / 268px minmax(0, 1fr) var(--right);
  height: 100%;
}
.side {
  padding: 10px 9px;
  gap: 0;
}
.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
}
.filter button {
  border: 0;
  border-radius: 12px;
  padding: 3px 9px;
  background: none;
  font: 550 12px 'Figtree Variable';
  color: var(--ink7);
  cursor: pointer;
}
.filter button:hover {
  background: var(--paper2);
}
.filter button.on {
  background: var(--ink9);
  color: #fff;
}
.work {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.of {
  color: var(--ink7);
  font-size: 12px;
}
.stage {
  position: relative;
  flex: 1;
  min-height: 0;
  display: flex;
}
.seen {
  position: absolute;
  right: 16px;
  bottom: 14px;
  width: 240px;
}
.glad {
  margin: auto;
  max-width: 340px;
  text-align: center;
}
.glad h2 {
  margin: 12px 0 6px;
  font-size: 19px;
}
.glad p {
  color: var(--ink7);
  margin: 0 0 16px;
}
.sec p {
  margin: 0 0 6px;
}
.matters {
  color: var(--ink7);
}
.way {
  display: block;
  width: 100%;
  margin-bottom: 6px;
  padding: 8px 10px;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: #fff;
  font: 600 13px 'Figtree Variable';
  color: var(--ink9);
  text-align: left;
  cursor: pointer;
}
.way.on {
  border-color: var(--brick);
  box-shadow: 0 0 0 1px var(--brick);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
@media (max-width: 1100px) {
  .check {
    grid-template-columns: 220px minmax(0, 1fr) 230px;
  }
}
</style>
