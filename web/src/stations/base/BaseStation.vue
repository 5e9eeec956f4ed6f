<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Base } from '../../api/types'
import FoldedCard from '../../parts/FoldedCard.vue'
import StockField from '../../parts/StockField.vue'
import { kindTitle, tradeOf } from '../../parts/names'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import BaseMeasures from './BaseMeasures.vue'
import NetDrawing from './NetDrawing.vue'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const el = ref<HTMLElement>()
const { width, height } = useElementSize(el)

const base = computed(() => card.view!.card.base)
const stock = computed(() => catalogue.stock(base.value.stock))
const trade = computed(() => tradeOf(catalogue.all, base.value.width, base.value.height))

const kinds = [
  { id: 'sideFold' as const, d: 'M6 8h22v34H6zM28 8h22v34H28z', fold: 'M28 8V42' },
  { id: 'topFold' as const, d: 'M10 4h36v21H10zM10 25h36v21H10z', fold: 'M10 25H46' },
]

const set = (part: Partial<Base>) => void card.change({ do: 'setBase', base: { ...base.value, ...part } })

const items = computed(() => card.view!.card.faces.reduce((n, f) => n + f.items.length, 0))
/** Things that reach over the edge of their face since the size has changed. */
const over = computed(() => {
  const out: string[] = []
  for (const f of card.view!.scene.faces) {
    for (const it of f.items) {
      const b = it.bounds
      if (b.x < -0.1 || b.y < -0.1 || b.x + b.w > f.width + 0.1 || b.y + b.h > f.height + 0.1)
        out.push(`${it.name} on ${f.name}`)
    }
  }
  return out
})
const thick = computed(() => `${card.view!.scene.thickness.toFixed(1)} mm`)
</script>

<template>
  <div class="columns">
    <aside class="side">
      <h3>Kind of base</h3>
      <div class="kinds">
        <button
          v-for="k in kinds"
          :key="k.id"
          class="kind"
          :class="{ on: base.kind === k.id }"
          :aria-pressed="base.kind === k.id"
          :data-testid="'kind-' + k.id"
          @click="base.kind !== k.id && set({ kind: k.id })"
        >
          <svg width="56" height="50" viewBox="0 0 56 50" aria-hidden="true">
            <path :d="k.d" fill="#fffdf6" stroke="#1f2b38" />
            <path :d="k.fold" stroke="#fffdf6" stroke-width="2" />
            <path :d="k.fold" stroke="#a4572b" stroke-width="1.5" stroke-dasharray="6 2 1.500 2" />
          </svg>
          {{ kindTitle(k.id) }}
        </button>
      </div>
      <h3>Faces</h3>
      <ul class="faces">
        <li v-for="f in card.view!.scene.faces" :key="f.id">
          <RouterLink :to="`/cards/${card.id}/panels`" @click="card.work(f.id)">{{ f.name }}</RouterLink>
          <small>{{
            f.items.length === 0 ? 'empty' : f.items.length === 1 ? '1 item' : `${f.items.length} items`
          }}</small>
        </li>
      </ul>
    </aside>
    <main class="work">
      <div class="verbs">
        <b>{{ kindTitle(base.kind) }}</b>
        <span class="chip" data-testid="trade">{{ trade ? trade.name : 'own size' }}</span>
        <span class="space" />
        <RouterLink class="verb" :to="`/cards/${card.id}/panels`" data-testid="to-panels">Lay out the faces</RouterLink>
      </div>
      <div ref="el" class="table">
        <NetDrawing
          :net="card.view!.scene.net"
          :colour="stock?.colour ?? '#fff'"
          :width="width * 0.66"
          :height="height"
        />
        <FoldedCard :width="Math.max(180, width * 0.3)" :height="Math.min(340, height * 0.5)" />
      </div>
    </main>
    <aside class="right">
      <BaseMeasures :base="base" @set="set" />
      <section class="sec">
        <h3>Base stock</h3>
        <div class="pair"><StockField :value="base.stock" testid="base-stock" @set="set({ stock: $event })" /></div>
        <div class="facts">
          <span>Sheet needed</span><b>{{ prefs.size(card.view!.scene.net.width, card.view!.scene.net.height) }}</b>
          <span>Sheet thickness</span><b>{{ stock?.thickness }} mm</b> <span>Grain</span><b>along the fold</b>
          <span>Closed, with all on it</span><b>{{ thick }}</b>
        </div>
      </section>
      <section v-if="items" class="sec">
        <h3>What lies on it</h3>
        <p v-if="!over.length" class="fine">Everything lies within its face.</p>
        <template v-else>
          <p class="over">These reach over the edge of their face:</p>
          <ul class="list">
            <li v-for="o in over.slice(0, 6)" :key="o">{{ o }}</li>
            <li v-if="over.length > 6">and {{ over.length - 6 }} more</li>
          </ul>
        </template>
      </section>
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
.kinds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.kind {
  border: 1px solid var(--paper3);
  border-radius: 8px;
  background: var(--paper0);
  padding: 8px 4px 7px;
  font: 600 12px 'Figtree Variable';
  color: var(--ink9);
  display: flex;
  flex-direction: column;
  align-items: center;
  cursor: pointer;
}
.kind:hover {
  border-color: var(--ink3);
}
.kind.on {
  border-color: var(--brick);
  box-shadow: 0 0 0 1px var(--brick);
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
p {
  margin: 0;
}
.fine {
  color: #3d5a31;
}
.over {
  color: #85560a;
  font-weight: 550;
}
.list {
  margin: 4px 0 0;
  padding-left: 16px;
}
</style>
