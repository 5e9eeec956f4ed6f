<script setup lang="ts">
// A tiered picture that is chosen: how it is made, and how large each tier is.
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import type { Tiers } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import TierFields from './TierFields.vue'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const wrong = ref('')
const group = computed(() => {
  const id = card.told.map((it) => card.items.get(it.id)?.group).find((g) => g)
  const g = card.face?.groups?.find((o) => o.id === (card.group?.id ?? id))
  return g?.tiers ? g : undefined
})
const list = computed(() =>
  [...card.items.values()]
    .filter((it) => it.group === group.value?.id && card.doc(it.id)?.tier)
    .sort((a, b) => card.doc(a.id)!.tier! - card.doc(b.id)!.tier!),
)
async function set(part: Partial<Tiers>) {
  const g = group.value
  if (!g) return
  wrong.value = ''
  await card.idle()
  await card.change({ do: 'setTiers', face: card.faceId, group: g.id, tiers: { ...group.value!.tiers!, ...part } })
}
/** What lies over the picture and could stand out of it: words, shapes, cut-outs. */
const could = computed(() => {
  const g = group.value
  const low = list.value[0]
  if (!g || !low) return []
  return [...card.items.values()].filter((it) => {
    const d = card.doc(it.id)
    const mid = { x: it.bounds.x + it.bounds.w / 2, y: it.bounds.y + it.bounds.h / 2 }
    const b = low.bounds
    const over = mid.x > b.x && mid.x < b.x + b.w && mid.y > b.y && mid.y < b.y + b.h
    return over && d && it.group !== g.id && !d.mat && !d.lines && !d.slot && !d.cover && !d.window && !d.background
  })
})
const seen = computed(() => {
  const low = list.value[0]
  return low && card.view ? api.lookURL(card.view, catalogue.all.stocksAre, card.faceId, low.id) : undefined
})
const margin = ref(3)
async function feature(id: string) {
  const g = group.value
  if (!g) return
  wrong.value = ''
  await card.idle()
  const made = card.change({ do: 'makeFeature', id, group: g.id, margin: margin.value, lift: g.tiers!.foam })
  await card.selectMade(made)
}
</script>

<template>
  <PanelSection v-if="group?.tiers" id="tiers" title="Tiers" :fact="list.length + ' pieces'">
    <template #verbs>
      <button class="verb" title="All show what the lowest shows now" data-testid="tiers-again" @click="set({})">
        As the lowest
      </button>
    </template>
    <TierFields :tiers="group.tiers" :seen="seen" @set="set" @wrong="wrong = $event" />
    <ol>
      <li v-for="(it, i) in list" :key="it.id">
        <button class="row" :data-testid="'tier-' + (i + 1)" @click="card.select([it.id])">
          <span>Tier {{ i + 1 }}</span
          ><b>{{ prefs.size(it.box.w, it.box.h) }}</b>
        </button>
      </li>
    </ol>
    <div v-if="could.length" class="pair stands">
      <MeasureField label="With a margin of" wide :mm="margin" testid="feature-margin" @set="margin = $event" />
      <button
        v-for="it in could"
        :key="it.id"
        class="verb wide"
        :data-testid="'feature-' + it.id"
        @click="feature(it.id)"
      >
        Let {{ it.name }} stand out
      </button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.stands {
  margin-top: 10px;
}
.stands .verb {
  grid-column: 1 / 3;
  margin: 0 -8px;
  text-align: left;
}
ol {
  margin: 8px -8px 0;
  padding: 0;
  list-style: none;
}
.row {
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 4px 8px;
  border: 0;
  border-radius: var(--r);
  background: none;
  cursor: pointer;
}
.row:hover {
  background: var(--paper1);
}
b {
  font-weight: 550;
}
p {
  margin: 6px 0 0;
}
</style>
