<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { message } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Base, Item } from '../../api/types'
import NameInput from '../../parts/NameInput.vue'
import FoldedCard from '../../parts/FoldedCard.vue'
import StockField from '../../parts/StockField.vue'
import { kindTitle, tradeOf } from '../../parts/names'
import { useCard } from '../../store/card'
import { changed } from '../../store/complete'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import BaseMeasures from './BaseMeasures.vue'
import DirectionsDialog from './DirectionsDialog.vue'
import EnvelopePanel from './EnvelopePanel.vue'
import FoldVerdict from './FoldVerdict.vue'
import KindList from './KindList.vue'
import OwnLines from './OwnLines.vue'
import NetDrawing from './NetDrawing.vue'
import DrawnBaseDialog from './DrawnBaseDialog.vue'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const el = ref<HTMLElement>()
const { width, height } = useElementSize(el)

const directing = ref(false)
const base = computed(() => card.view!.card.base)
const stock = computed(() => catalogue.stock(base.value.stock))
const trade = computed(() => tradeOf(catalogue.all, base.value.width, base.value.height))

/** What is laid anew with the base, or lies on that: it is not kept inside, it follows. */
const follows = (it?: Item): boolean =>
  !!it &&
  (!!it.background ||
    !!it.cover ||
    !!it.window ||
    (!!it.on && follows(card.view?.card.faces.flatMap((f) => f.items).find((o) => o.id === it.on))))
async function set(part: Partial<Base>) {
  const was = card.view!
  const now = await card.change({ do: 'setBase', base: { ...base.value, ...part } })
  const kept = now ? changed(was, now).filter((it) => !follows(it)) : []
  if (!kept.length) return
  const names = kept.slice(0, 3).map((it) => `“${it.name}”`)
  const more = kept.length > 3 ? ` and ${kept.length - 3} more` : ''
  void message.info({
    content: `Kept inside the smaller card: ${names.join(', ')}${more}. Undo takes it all back.`,
    duration: 7,
  })
}
/** Another kind has measures of its own, which follow from the size. */
const kind = (k: Base['kind']) => set({ kind: k, measures: {}, lines: [], drawn: undefined })

/** A base from a drawing: its file is chosen, then what its lines are for. */
const drawings = ref<HTMLInputElement>()
const drawn = ref<InstanceType<typeof DrawnBaseDialog>>()
function draw(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) drawn.value?.show(file)
}
const naming = ref('')
/** Faces of a base from a drawing are named by the person. */
async function rename(face: string, name?: string) {
  naming.value = ''
  const d = base.value.drawn
  const scene = card.view!.scene.faces
  const at = scene.find((f) => f.id === face)
  if (!name || !d || !at) return
  const i = scene.filter((f) => f.side === at.side).findIndex((f) => f.id === face)
  const leaves = d.leaves.map((l, k) => (k === i ? { ...l, [at.side]: name } : l))
  await set({ drawn: { ...d, leaves } })
}

const thick = computed(() => `${card.view!.scene.thickness.toFixed(1)} mm`)
</script>

<template>
  <div class="columns">
    <aside class="side">
      <h3>Kind of base</h3>
      <KindList :kind="base.kind" @set="kind" @draw="drawings?.click()" />
      <input
        ref="drawings"
        type="file"
        hidden
        :accept="catalogue.drawingFiles"
        data-testid="base-drawing-input"
        @change="draw"
      />
      <h3>Faces</h3>
      <ul class="faces">
        <li v-for="f in card.view!.scene.faces" :key="f.id">
          <NameInput
            v-if="naming === f.id"
            :value="f.name"
            :label="'Name of the face ' + f.name"
            @done="rename(f.id, $event)"
          />
          <RouterLink v-else :to="`/cards/${card.id}/panels`" @click="card.work(f.id)">{{ f.name }}</RouterLink>
          <button
            v-if="base.drawn && naming !== f.id"
            class="verb"
            :aria-label="'Rename ' + f.name"
            @click="naming = f.id"
          >
            Rename
          </button>
          <small>{{
            f.items.length === 0 ? 'empty' : f.items.length === 1 ? '1 item' : `${f.items.length} items`
          }}</small>
        </li>
      </ul>
    </aside>
    <main class="work">
      <div class="verbs">
        <b>{{ kindTitle(catalogue.all, base.kind) }}</b>
        <span class="chip" data-testid="trade">{{ trade ? trade.name : 'own size' }}</span>
        <span class="space" />
        <button class="verb" data-testid="directions-verb" @click="directing = true">
          Directions for hand cutting
        </button>
        <RouterLink class="verb" :to="`/cards/${card.id}/panels`" data-testid="to-panels">Lay out the faces</RouterLink>
      </div>
      <div ref="el" class="table">
        <!-- Once it is known how much room there is. -->
        <template v-if="height > 0">
          <NetDrawing
            :net="card.view!.scene.net"
            :colour="stock?.colour ?? '#fff'"
            :width="width * 0.6"
            :height="height"
          />
          <FoldedCard :width="Math.max(180, width * 0.36)" :height="Math.min(380, height * 0.6)" />
        </template>
      </div>
    </main>
    <aside class="right">
      <BaseMeasures :base="base" @set="set" />
      <EnvelopePanel v-if="base.kind === 'envelope'" @size="(width, height) => set({ width, height })" />
      <section class="sec">
        <h3>Base stock</h3>
        <div class="pair"><StockField :value="base.stock" testid="base-stock" @set="set({ stock: $event })" /></div>
        <div class="facts">
          <span>Sheet needed</span><b>{{ prefs.size(card.view!.scene.net.width, card.view!.scene.net.height) }}</b>
          <span>Sheet thickness</span><b>{{ stock?.thickness }} mm</b>
          <template v-if="card.view!.scene.net.lines.length"><span>Grain</span><b>along the main fold</b></template>
          <span>Closed, with all on it</span><b>{{ thick }}</b>
        </div>
      </section>
      <FoldVerdict />
      <OwnLines />
      <EnvelopePanel v-if="base.kind !== 'envelope'" />
      <DirectionsDialog v-model="directing" />
      <DrawnBaseDialog ref="drawn" @made="set($event)" />
    </aside>
  </div>
</template>

<style scoped>
.table {
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: flex;
  align-items: center;
  justify-content: space-evenly;
  gap: 10px;
  padding: 10px;
}
.faces {
  list-style: none;
  margin: 0;
  padding: 0;
}
.faces li {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 5px 0;
  border-bottom: 1px solid var(--paper2);
}
.faces a {
  color: var(--ink9);
  font-weight: 550;
  text-decoration: none;
}
.faces a:hover {
  color: var(--brick);
}
a.verb {
  text-decoration: none;
}
.facts {
  margin-top: 10px;
}
</style>
