<script setup lang="ts">
// The sizes that would fit where the item lies: its face, the piece under it, the gap.
import { Dropdown, Menu, MenuItem } from 'ant-design-vue'
import { ref } from 'vue'
import { api } from '../../api/client'
import type { Fit } from '../../api/types'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'

const props = defineProps<{ item: string }>()
const card = useCard()
const prefs = usePrefs()

const fits = ref<Fit[]>()
const wrong = ref('')
async function opened(open: boolean) {
  if (!open) return
  fits.value = undefined
  wrong.value = ''
  try {
    await card.idle()
    fits.value = await api.fits(card.id, props.item)
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
const area = (f: Fit) => (f.area === 'gap' ? 'The gap about it' : f.name)
const less = (f: Fit) => (f.less ? ` less ${prefs.lenUnit(f.less)}` : '')
const take = (f: Fit) => void card.change({ do: 'fitTo', id: props.item, area: f.area, less: f.less })
</script>

<template>
  <Dropdown :trigger="['click']" placement="bottomRight" @open-change="opened">
    <button class="verb" data-testid="fits">Sizes that fit</button>
    <template #overlay>
      <Menu data-testid="fit-menu">
        <MenuItem v-for="(f, i) in fits" :key="i" :data-testid="`fit-${f.area}-${i}`" @click="take(f)">
          <span class="fit"
            >{{ area(f) }}{{ less(f) }}<em>{{ prefs.size(f.box.w, f.box.h) }}</em></span
          >
        </MenuItem>
        <MenuItem v-if="wrong || fits?.length === 0" key="none" disabled>{{
          wrong || 'Nothing: it is turned aslant.'
        }}</MenuItem>
      </Menu>
    </template>
  </Dropdown>
</template>

<style scoped>
.verb {
  margin: -4px -8px -4px 0;
}
.fit {
  display: flex;
  justify-content: space-between;
  gap: 24px;
  line-height: 18px;
  min-width: 220px;
}
em {
  font-style: normal;
  font-variant-numeric: tabular-nums;
  color: var(--ink5);
}
</style>
