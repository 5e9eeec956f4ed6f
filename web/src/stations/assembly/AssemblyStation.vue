<script setup lang="ts">
// The card is put together step by step: what is done, with what from the desk, by which measures, and why
// now; ticked off as one goes.
import { Checkbox } from 'ant-design-vue'
import { useEventListener, useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api } from '../../api/client'
import { isTyping } from '../../parts/typing'
import GuideOut from './GuideOut.vue'
import StepVerbs from './StepVerbs.vue'
import { useAssembly } from '../../store/assembly'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'

const card = useCard()
const assembly = useAssembly()
const prefs = usePrefs()

const steps = computed(() => assembly.steps)
const chosen = ref('')
const at = computed(() =>
  Math.max(
    0,
    steps.value.findIndex((s) => s.id === chosen.value),
  ),
)
const step = computed(() => steps.value[at.value])
/** One begins at the first that is not done. */
watch(
  steps,
  (now) => {
    if (now.some((s) => s.id === chosen.value)) return
    chosen.value = (now.find((s) => !assembly.done.has(s.id)) ?? now[0])?.id ?? ''
  },
  { immediate: true },
)
const go = (by: number) => {
  const next = steps.value[Math.min(Math.max(at.value + by, 0), steps.value.length - 1)]
  if (next) chosen.value = next.id
}
async function tick() {
  const s = step.value
  if (!s) return
  const is = !assembly.done.has(s.id)
  const last = at.value === steps.value.length - 1
  if (is && !last) go(1)
  await assembly.tick(s.id, is)
}

const picture = (id: string, side: number) => api.stepURL(card.id, id, assembly.view?.revision ?? 0, side, prefs.unit)
const number = (n: number) =>
  ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'][n] ?? String(n)
const headed = computed(() => {
  const n = number(steps.value.length)
  return `${n[0]!.toUpperCase()}${n.slice(1)} ${steps.value.length === 1 ? 'step' : 'steps'}`
})
const minutes = computed(() => Math.max(5, Math.round((assembly.view?.minutes ?? 0) / 5) * 5))
/** Of several cards, alike or for each name, the guide is that of one. */
const ofSeveral = computed(() => {
  const n = assembly.view?.cards ?? 1
  return n > 1 ? ` · one of ${n} cards` : ''
})
const made = (id: string) => `made in step ${steps.value.findIndex((s) => s.id === id) + 1}`
const out = computed(() => assembly.view?.out ?? [])
/** Steps that were merged, moved or reworded go on as the guide has them. */
const undone = computed(() =>
  card.view?.card.steps?.find((k) => k.id === step.value?.id || step.value?.with?.includes(k.id)),
)
/** For a tablet on the table: the step alone, large. */
const large = useStorage('sectilis.assembly.large', false)
const near = computed(() => {
  const from = Math.min(Math.max(0, at.value - 2), Math.max(0, steps.value.length - 6))
  return steps.value.slice(from, from + 6).map((s, i) => ({ s, n: from + i + 1 }))
})
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.defaultPrevented || isTyping(e) || e.ctrlKey || e.metaKey || e.altKey) return
  if (e.key === 'ArrowRight' || e.key === 'ArrowDown') go(1)
  else if (e.key === 'ArrowLeft' || e.key === 'ArrowUp') go(-1)
  else if (e.key === ' ' && !(e.target as HTMLElement).closest('button, a, label')) void tick()
  else if (e.key === 'Escape' && large.value) large.value = false
  else return
  e.preventDefault()
})
watch(chosen, () =>
  requestAnimationFrame(() =>
    document.querySelector('[data-testid=step][aria-current=step]')?.scrollIntoView({ block: 'nearest' }),
  ),
)
</script>

<template>
  <div class="assembly" :class="{ large }">
    <aside v-if="!large" class="side">
      <header v-if="steps.length">
        <h3>{{ headed }}</h3>
        <small>about {{ minutes }} minutes{{ ofSeveral }}</small>
      </header>
      <ol>
        <li v-for="(s, i) in steps" :key="s.id">
          <button
            class="step"
            :class="{ on: s.id === step?.id, done: assembly.done.has(s.id) }"
            :aria-current="s.id === step?.id ? 'step' : undefined"
            data-testid="step"
            :data-step="s.id"
            @click="chosen = s.id"
          >
            <i>{{ i + 1 }}</i>
            <span
              ><b>{{ s.title }}</b
              ><em>{{ prefs.said(s.says) }}</em></span
            >
          </button>
        </li>
      </ol>
      <section v-if="out.length" class="out">
        <h3>Left out</h3>
        <p v-for="o in out" :key="o.id">
          {{ o.title
          }}<button
            class="verb"
            :data-testid="'back-' + o.id"
            @click="card.change({ do: 'changeStep', step: { id: o.id } })"
          >
            Bring it back
          </button>
        </p>
      </section>
    </aside>
    <main class="work">
      <div class="verbs">
        <template v-if="step">
          <b data-testid="step-title">{{ at + 1 }} · {{ step.title }}</b>
          <i class="rule" />
          <Checkbox :checked="assembly.done.has(step.id)" data-testid="tick" @change="tick">Done</Checkbox>
          <span class="space" />
          <button class="verb" aria-label="The step before" data-testid="step-before" :disabled="!at" @click="go(-1)">
            ‹
          </button>
          <button
            class="verb"
            aria-label="The next step"
            data-testid="step-next"
            :disabled="at >= steps.length - 1"
            @click="go(1)"
          >
            ›
          </button>
          <button class="verb" :aria-pressed="large" data-testid="step-large" @click="large = !large">
            {{ large ? 'Back to the list' : 'Large, for the table' }}
          </button>
        </template>
        <b v-else>{{ assembly.fact === '…' ? 'Looking at the card …' : 'Nothing to put together' }}</b>
      </div>
      <div class="stage">
        <template v-if="step">
          <img
            :key="step.id + assembly.view?.revision"
            :src="picture(step.id, 1200)"
            :alt="step.title"
            data-testid="step-picture"
          />
          <p class="does" data-testid="step-does">{{ prefs.said(step.does) }}</p>
        </template>
        <p v-else-if="assembly.fact !== '…'" class="none">
          There is nothing on this card yet. Lay something out on
          <RouterLink :to="`/cards/${card.id}/panels`">Panels</RouterLink>, and its steps stand here.
        </p>
      </div>
      <nav v-if="!large && steps.length > 1" class="near" aria-label="Steps before and after">
        <button
          v-for="k in near"
          :key="k.s.id"
          :class="{ on: k.s.id === step?.id, done: assembly.done.has(k.s.id) }"
          :title="k.s.title"
          @click="chosen = k.s.id"
        >
          <i>{{ k.n }}</i>
          <img :src="picture(k.s.id, 220)" alt="" loading="lazy" />
        </button>
      </nav>
    </main>
    <aside v-if="!large" class="right">
      <template v-if="step">
        <section v-if="step.desk.length" class="sec" data-testid="desk">
          <h3>On the desk for this step</h3>
          <ul>
            <li v-for="(t, i) in step.desk" :key="i">
              <b>{{ t.name }}</b><small>{{ t.made ? made(t.made) : prefs.said(t.says) }}</small>
            </li>
          </ul>
        </section>
        <section v-if="step.kind === 'cut' && assembly.view?.hand.length" class="sec" data-testid="by-hand">
          <h3>Without a machine</h3>
          <ul>
            <li v-for="k in assembly.view.hand" :key="k.item">
              <b>{{ k.name }}</b><small class="lines">{{ prefs.said(k.says) }}</small>
            </li>
          </ul>
          <RouterLink class="verb asguide" :to="`/cards/${card.id}/base`">Directions for the base</RouterLink>
          <a class="verb asguide" :href="api.pdfURL(card.id, true, false)" download>Sheets with their lines</a>
        </section>
        <section v-if="step.measures.length" class="sec">
          <h3>Measures</h3>
          <div class="facts">
            <template v-for="m in step.measures" :key="m.name">
              <span>{{ m.name }}</span><b>{{ prefs.lenUnit(m.mm) }}</b>
            </template>
            <template v-if="step.foam">
              <span>Foam</span><b>{{ step.foam }} mm, {{ step.pads === 1 ? '1 pad' : `${step.pads} pads` }}</b>
            </template>
          </div>
        </section>
        <section v-if="step.changed && undone && !undone.own" class="sec">
          <h3>Changed by you</h3>
          <button
            class="verb asguide"
            data-testid="step-as-guide"
            @click="card.change({ do: 'changeStep', step: { id: undone.id } })"
          >
            As the guide has it
          </button>
        </section>
        <section v-if="step.why" class="sec">
          <h3>Why now</h3>
          <p>{{ step.why }}</p>
        </section>
        <section class="sec">
          <h3>Change this step</h3>
          <div class="acts"><StepVerbs :step="step" :at="at" @chosen="chosen = $event" /></div>
        </section>
      </template>
      <GuideOut />
    </aside>
  </div>
</template>

<style scoped>
.lines {
  white-space: pre-line;
}
.assembly {
  display: grid;
  grid-template: minmax(0, 1fr) / 268px minmax(0, 1fr) var(--right);
  height: 100%;
}
.assembly.large {
  grid-template-columns: minmax(0, 1fr);
}
.side {
  padding: 10px 9px;
  gap: 6px;
}
.side header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 0 6px;
}
h3 {
  margin: 0 0 6px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.step {
  display: flex;
  gap: 10px;
  width: 100%;
  padding: 6px 8px;
  border: 0;
  border-radius: 6px;
  background: none;
  color: var(--ink9);
  text-align: left;
  cursor: pointer;
}
.step:hover {
  background: var(--paper2);
}
.step.on {
  background: var(--brick-soft);
}
i {
  font: 600 14px 'Fraunces Variable';
  color: var(--ink7);
}
.step i {
  flex: none;
  width: 18px;
}
b {
  font-weight: 600;
}
.step span {
  min-width: 0;
}
.step b {
  display: block;
  overflow-wrap: anywhere;
}
em {
  font-style: normal;
  font-size: 12px;
  color: var(--ink7);
}
.step.done b {
  text-decoration: line-through;
  color: var(--ink5);
}
.work {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.stage {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
  padding: 14px 24px 10px;
}
.stage img {
  flex: 1;
  min-height: 0;
  width: 100%;
  object-fit: contain;
}
.does {
  flex: none;
  max-width: 560px;
  margin: 8px 0 0;
  text-align: center;
  color: var(--ink9);
}
.large .does {
  max-width: 900px;
  font-size: 22px;
  line-height: 1.4;
}
.none {
  margin: auto;
  color: var(--ink7);
}
.near {
  flex: none;
  display: flex;
  align-items: stretch;
  gap: 9px;
  height: 124px;
  padding: 10px 16px;
  background: var(--paper2);
  border-top: 1px solid var(--paper3);
  overflow-x: auto;
}
.near button {
  position: relative;
  flex: 0 1 116px;
  min-width: 80px;
  border: 1px solid var(--paper3);
  border-radius: 6px;
  background: var(--paper0);
  padding: 4px;
  cursor: pointer;
}
.near button.on {
  border-color: var(--brick);
  box-shadow: 0 0 0 1px var(--brick);
}
.near button.done img {
  opacity: 0.45;
}
.near i {
  position: absolute;
  z-index: 1;
  left: 7px;
  top: 4px;
}
.near img {
  position: absolute;
  inset: 4px;
  width: calc(100% - 8px);
  height: calc(100% - 8px);
  object-fit: contain;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  margin-left: -8px;
}
.asguide {
  margin-left: -8px;
  color: var(--brick);
}
.out {
  margin-top: 14px;
  padding: 0 6px;
}
.out p {
  margin: 0 0 4px;
  color: var(--ink7);
}
.sec ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.sec li {
  display: flex;
  flex-direction: column;
  padding: 4px 0;
}
.sec p {
  margin: 0 0 8px;
}
@media (max-width: 1100px) {
  .assembly {
    grid-template-columns: 210px minmax(0, 1fr) 220px;
  }
}
</style>
