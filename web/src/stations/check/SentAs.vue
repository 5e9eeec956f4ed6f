<script setup lang="ts">
// What the card is sent in and by, and whose its supplies are.
import { Button, message, Popover } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import type { CheckView, Post } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import { useEnvelope } from '../../parts/useEnvelope'
import { useCard } from '../../store/card'
import { useCheck } from '../../store/check'
import { usePrefs } from '../../store/prefs'

const props = defineProps<{ view: CheckView }>()
const card = useCard()
const check = useCheck()
const prefs = usePrefs()

const isEnvelope = computed(() => card.view?.card.base.kind === 'envelope')
const { envelope } = useEnvelope()

const open = ref(false)
const posts = ref<Post[]>([])
const wrong = ref('')
async function show(now: boolean) {
  open.value = now
  wrong.value = ''
  if (now) posts.value = await api.posts().catch(() => [])
}
const set = (i: number, part: Partial<Post>) =>
  (posts.value = posts.value.map((p, k) => (k === i ? { ...p, ...part } : p)))
const more = () =>
  (posts.value = [...posts.value, { name: 'Another class', width: 240, height: 165, thick: 5, weight: 50 }])
async function keep(list: Post[]) {
  try {
    await api.setPosts(list)
    open.value = false
    await check.load()
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}

const credits = computed(() => props.view.credits)
const names: Record<string, [string, string]> = {
  photo: ['photo', 'photos'],
  art: ['drawing', 'drawings'],
  paper: ['paper', 'papers'],
  lettering: ['font', 'fonts'],
  edging: ['edging', 'edgings'],
}
const madeWith = computed(() => {
  const n = new Map<string, number>()
  for (const k of credits.value.all) n.set(k.kind, (n.get(k.kind) ?? 0) + 1)
  return [...n].map(([kind, c]) => `${c} ${names[kind]?.[c === 1 ? 0 : 1] ?? kind}`).join(', ')
})
const rights: Record<string, string> = { free: 'free', personal: 'personal use only', credit: 'credit due' }
async function copy() {
  try {
    await navigator.clipboard.writeText(credits.value.text)
    void message.success('The credits are copied.')
  } catch {
    void message.warning('This browser does not let it be copied. Choose the lines and copy them by hand.')
  }
}
const due = computed(() => check.open.find((f) => f.check === 'credits' && f.mends?.length))
</script>

<template>
  <section v-if="!isEnvelope" class="sec" data-testid="sent-as">
    <h3>Envelope</h3>
    <div class="facts">
      <span>{{ view.sending.trade || 'No trade envelope' }}</span><b :class="view.sending.trade ? 'good' : 'bad'">{{
        view.sending.trade ? 'fits' : 'fits closely'
      }}</b>
      <span>Made to measure</span><b>{{ prefs.size(view.sending.width, view.sending.height) }}</b>
      <span>Thickest, closed</span><b>{{ `${(card.view?.scene.thickness ?? 0).toFixed(1)} mm` }}</b> <span>By post</span
      ><b :class="{ bad: !view.post }" data-testid="post"
        >{{ view.post || 'no class takes it' }}, {{ Math.round(view.letter.weight) }} g</b
      >
    </div>
    <button class="verb" data-testid="check-envelope" @click="envelope">
      {{ view.tied ? 'Go to its envelope' : 'Make the envelope' }}
    </button>
    <Popover :open="open" trigger="click" placement="leftBottom" @open-change="show">
      <button class="verb" data-testid="posts-verb">Classes of post</button>
      <template #content>
        <div class="posts" data-testid="posts">
          <p>What each class takes, in its envelope. The first that takes the card is told.</p>
          <div v-for="(p, i) in posts" :key="i" class="post">
            <input
              :value="p.name"
              maxlength="120"
              :aria-label="'Name of class ' + (i + 1)"
              @change="set(i, { name: ($event.target as HTMLInputElement).value })"
            />
            <button
              class="verb"
              :aria-label="'Take ' + p.name + ' off the list'"
              @click="posts = posts.filter((_, k) => k !== i)"
            >
              ×
            </button>
            <div class="pair">
              <MeasureField label="Long" :mm="p.width" @set="set(i, { width: $event })" @wrong="wrong = $event" />
              <MeasureField label="High" :mm="p.height" @set="set(i, { height: $event })" @wrong="wrong = $event" />
              <MeasureField
                label="Thick"
                :mm="p.thick"
                :testid="'post-thick-' + i"
                @set="set(i, { thick: $event })"
                @wrong="wrong = $event"
              />
              <NumberField
                label="Grams"
                :value="p.weight"
                :digits="0"
                @set="set(i, { weight: $event })"
                @wrong="wrong = $event"
              />
            </div>
            <label
              ><input type="checkbox" :checked="p.oblong" @change="set(i, { oblong: !p.oblong })" /> nothing
              square</label
            >
          </div>
          <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
          <div class="row">
            <Button size="small" @click="more">One more</Button>
            <Button size="small" @click="keep([])">The usual ones</Button>
            <Button size="small" type="primary" data-testid="posts-keep" @click="keep(posts)">Keep</Button>
          </div>
        </div>
      </template>
    </Popover>
  </section>
  <section class="sec" data-testid="credits">
    <h3>Credits</h3>
    <p>{{ madeWith ? `Made with ${madeWith}.` : 'Nothing from the tray is on it.' }}</p>
    <ul v-if="credits.all.some((k) => k.rights !== 'free' || k.line)">
      <li v-for="k in credits.all.filter((c) => c.rights !== 'free' || c.line)" :key="k.kind + k.id">
        {{ k.name }}<small>{{ rights[k.rights] }}</small>
      </li>
    </ul>
    <p v-if="!credits.text" class="none">Nothing is due.</p>
    <template v-else>
      <pre data-testid="credits-text">{{ credits.text }}</pre>
      <button class="verb" data-testid="copy-credits" @click="copy">Copy them</button>
      <button v-if="due" class="verb" data-testid="place-credits" @click="card.change(...(due.mends![0]!.do ?? []))">
        {{ due.mends![0]!.says }}
      </button>
    </template>
  </section>
</template>

<style scoped>
.facts {
  margin-bottom: 6px;
}
.verb {
  margin-left: -8px;
  margin-right: 8px;
  color: var(--brick);
}
.sec p {
  margin: 0 0 4px;
}
.none {
  color: var(--ink7);
}
ul {
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
pre {
  margin: 0 0 4px;
  padding: 6px 8px;
  background: var(--paper1);
  border-radius: var(--r);
  font: 12px/1.5 'Figtree Variable';
  white-space: pre-wrap;
}
.posts {
  width: 290px;
  max-height: 70vh;
  overflow: auto;
}
.post {
  display: grid;
  grid-template-columns: 1fr 24px;
  gap: 5px;
  padding: 8px 0;
  border-top: 1px solid var(--paper2);
}
.post > input {
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  padding: 4px 7px;
  font: 600 13px 'Figtree Variable';
}
.post > .verb {
  margin: 0;
  padding: 0;
}
.post .pair,
.post label {
  grid-column: 1 / 3;
}
.row {
  display: flex;
  justify-content: flex-end;
  gap: 6px;
}
</style>
