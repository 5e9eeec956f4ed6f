<script setup lang="ts">
// Cutting a photo in tiers: seen on the face, and told, before it is done.
import { Button, Popover } from 'ant-design-vue'
import { useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api } from '../../api/client'
import type { Command, Tiers } from '../../api/types'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'
import TierFields from './TierFields.vue'
import { useTrial } from './useTrial'

const card = useCard()
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
const wrong = ref('')
const command = computed<Command | undefined>(
  () => one.value && { do: 'makeTiers', id: one.value.id, tiers: tiers.value },
)
const refused = useTrial(open, () => command.value)
const told = computed(() => {
  const high = Math.max(0, ...(card.trial ?? []).map((it) => it.to))
  return high ? `${tiers.value.count} pieces, ${prefs.lenUnit(high)} high` : ''
})

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
        <TierFields :tiers="tiers" @set="tiers = { ...tiers, ...$event }" @wrong="wrong = $event" />
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
