<script setup lang="ts">
// A card that is made for a list of names: the list, the cards by name, what differs, and what is cut.
import { Segmented } from 'ant-design-vue'
import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useCard } from '../../store/card'
import { useNames } from '../../store/names'
import { useSheets } from '../../store/sheets'
import DiffersPanel from './DiffersPanel.vue'
import FieldsPanel from './FieldsPanel.vue'
import FitPanel from './FitPanel.vue'
import ListIn from './ListIn.vue'
import NameCards from './NameCards.vue'
import NamesBar from './NamesBar.vue'
import NamesList from './NamesList.vue'
import NameVerbs from './NameVerbs.vue'
import OnSheets from './OnSheets.vue'

const card = useCard()
const names = useNames()
const sheets = useSheets()

onMounted(() => void names.load())
watchDebounced(
  () => [card.view?.id, card.view?.revision],
  () => void names.load(),
  { debounce: 200 },
)
// What was cut is told with the sheets.
watch(
  () => sheets.layout,
  () => void names.load(),
)

const only = ref('all')
const shown = computed(() => (only.value === 'wrong' ? names.wrong : names.rows))
watch(
  () => names.wrong.length,
  (n) => {
    if (!n) only.value = 'all'
  },
)

// A card with a fault shows whose words it is of.
watch(
  () => names.chosen,
  (id) => {
    const at = names.stateOf(id)?.wrong.find((f) => f.item)?.item
    if (at) names.item = at
  },
)

/** Faces on which something differs; the front where nothing does yet. */
const faces = computed(() => {
  const v = card.view
  if (!v) return []
  const by = new Set(names.list?.differs?.map((d) => d.item))
  const differ = v.card.faces.filter((f) => f.items.some((it) => it.words?.fields?.length || by.has(it.id)))
  const ids = differ.length ? differ.map((f) => f.id) : ['front']
  return v.scene.faces.filter((f) => ids.includes(f.id))
})
const picked = ref('')
const face = computed(() => faces.value.find((f) => f.id === picked.value) ?? faces.value[0])
</script>

<template>
  <div class="names" :class="{ none: !names.list }">
    <ListIn v-if="!names.list" />
    <template v-else>
      <NamesList class="list" />
      <main class="work">
        <div class="verbs">
          <NameVerbs />
          <span class="space" />
          <Segmented
            v-if="faces.length > 1"
            size="small"
            :value="face?.id"
            :options="faces.map((f) => ({ value: f.id, label: f.name }))"
            aria-label="Face that is shown"
            data-testid="names-face"
            @change="(v) => (picked = String(v))"
          />
          <button class="verb" :aria-pressed="only === 'all'" data-testid="names-all" @click="only = 'all'">All</button>
          <button
            v-if="names.wrong.length"
            class="verb"
            :aria-pressed="only === 'wrong'"
            data-testid="names-wrong"
            @click="only = 'wrong'"
          >
            What is wrong, {{ names.wrong.length }}
          </button>
        </div>
        <NameCards v-if="face" :face="face" :rows="shown" />
        <NamesBar />
      </main>
      <aside class="right">
        <FieldsPanel />
        <FitPanel />
        <DiffersPanel />
        <OnSheets />
      </aside>
    </template>
  </div>
</template>

<style scoped>
.names {
  display: grid;
  grid-template: minmax(0, 1fr) / auto minmax(0, 1fr) var(--right);
  height: 100%;
}
.names.none {
  grid-template-columns: minmax(0, 1fr);
}
.work {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
@media (max-width: 1150px) {
  .list {
    max-width: 250px;
  }
}
</style>
