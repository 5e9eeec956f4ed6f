<script setup lang="ts">
// A tiered picture that is chosen: how it is made, and how large each tier is.
import { computed, ref } from 'vue'
import type { Tiers } from '../../api/types'
import PanelSection from '../../parts/PanelSection.vue'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'
import TierFields from './TierFields.vue'

const card = useCard()
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
</script>

<template>
  <PanelSection v-if="group?.tiers" id="tiers" title="Tiers" :fact="group.tiers.count + ' pieces'">
    <template #verbs>
      <button class="verb" title="All show what the lowest shows now" data-testid="tiers-again" @click="set({})">
        As the lowest
      </button>
    </template>
    <TierFields :tiers="group.tiers" @set="set" @wrong="wrong = $event" />
    <ol>
      <li v-for="(it, i) in list" :key="it.id">
        <button class="row" :data-testid="'tier-' + (i + 1)" @click="card.select([it.id])">
          <span>Tier {{ i + 1 }}</span
          ><b>{{ prefs.size(it.box.w, it.box.h) }}</b>
        </button>
      </li>
    </ol>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
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
