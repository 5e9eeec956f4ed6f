<script setup lang="ts">
// Cutting a photo in tiers: seen on the face, and told, before it is done.
import { Button, Popover } from 'ant-design-vue'
import { useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api } from '../../api/client'
import type { Command, SheetsTold, Tiers } from '../../api/types'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import TierFields from './TierFields.vue'
import { useTrial } from './useTrial'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const open = ref(false)
usePopover(open, '[data-testid=tiers-dialog]', () => make())
const one = computed(() => {
  const it = card.told.length === 1 ? card.told[0] : undefined
  return it?.kind === 'photo' && !card.doc(it.id)?.tier ? it : undefined
})
const first: Tiers = { count: 4, step: 8, x: 0.5, y: 0.5, foam: 1, edge: 1.5, edgeColour: '#ffffff' }
/** Tiers are offered as the last ones were made. */
const tiers = useStorage<Tiers>('sectilis.tiers', first)
const seen = computed(() => {
  const id = one.value?.piece ? one.value.id : ''
  return id && card.view ? api.lookURL(card.view, catalogue.all.stocksAre, card.faceId, id) : undefined
})
const wrong = ref('')
const command = computed<Command | undefined>(
  () => one.value && { do: 'makeTiers', id: one.value.id, tiers: tiers.value },
)
const refused = useTrial(open, () => command.value)
const told = computed(() => {
  const high = Math.max(0, ...(card.trial ?? []).map((it) => it.to))
  if (!high || !card.trial) return ''
  const s = sheets.value
  const more = s ? (s.after === s.before ? ', no more sheets' : `, ${s.after} sheets instead of ${s.before}`) : ''
  const left = s?.unlaid ? `; ${s.unlaid} of them fit on no sheet` : ''
  // The photo is the lowest of them, whether it looks otherwise or not.
  const pieces = 1 + card.trial.filter((it) => it.id !== one.value?.id).length
  return `${pieces} pieces, ${prefs.lenUnit(high)} high${more}${left}`
})
/** How many sheets it would take, once that is known. */
const sheets = ref<SheetsTold>()
watch(
  () => card.trial,
  async (trial) => {
    sheets.value = undefined
    const v = card.view
    if (!trial || !v || !command.value) return
    const told = await api.trySheets(v.id, v.revision, [command.value]).catch(() => undefined)
    if (card.trial === trial) sheets.value = told
  },
)

// What matters most in the picture is what they draw together about, until that is chosen.
watch(open, async (now) => {
  const p = now && one.value ? card.doc(one.value.id)?.photo : undefined
  if (!p) return
  wrong.value = ''
  const f = await api.facts(p.picture).catch(() => undefined)
  if (f) tiers.value = { ...tiers.value, x: f.detailX, y: f.detailY }
})
async function make() {
  const cmd = command.value
  if (!cmd) return
  open.value = false
  if (!(await card.change(cmd))) open.value = true
}
</script>

<template>
  <Popover v-if="one" v-model:open="open" trigger="click" placement="bottomLeft">
    <button class="verb" data-testid="tiers-verb">Tiers</button>
    <template #content>
      <div class="tiers" data-testid="tiers-dialog">
        <h3>{{ one.name }} in tiers</h3>
        <TierFields :tiers="tiers" :seen="seen" @set="tiers = { ...tiers, ...$event }" @wrong="wrong = $event" />
        <p v-if="told && !refused" data-testid="tiers-told">{{ told }}</p>
        <p v-if="wrong || refused" class="wrong" role="alert">{{ prefs.said(wrong || refused) }}</p>
        <Button type="primary" block data-testid="tiers-make" @click="make">Cut in tiers</Button>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.tiers {
  width: 290px;
}
h3 {
  margin-bottom: 10px;
}
p {
  margin: 8px 0 0;
}
.tiers :deep(.ant-btn) {
  margin-top: 10px;
}
</style>
