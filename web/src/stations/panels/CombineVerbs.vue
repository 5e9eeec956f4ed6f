<script setup lang="ts">
// The four ways to combine outlines. Pointing at one shows what it would make.
import { Popover } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { Command } from '../../api/types'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { useTrial } from './useTrial'

type Verb = 'weld' | 'carve' | 'keepOverlap' | 'divide'
const verbs: { do: Verb; name: string; title: string }[] = [
  { do: 'weld', name: 'Weld', title: 'One outline of all that overlap' },
  { do: 'carve', name: 'Carve', title: 'The lowest loses the form of those above it' },
  { do: 'keepOverlap', name: 'Keep overlap', title: 'Only what all of them cover' },
  { do: 'divide', name: 'Divide', title: 'All parts, cut along each other’s outlines' },
]

const card = useCard()
const open = ref(false)
usePopover(open, '[data-testid=combine-dialog]')
const can = computed(() => card.told.length > 1 && card.told.every((it) => it.kind !== 'photo' && !it.role))
const aimed = ref<Verb>()
const pointing = computed(() => open.value && aimed.value !== undefined && can.value)
const command = (verb: Verb): Command => ({ do: verb, ids: card.told.map((it) => it.id) })
const refused = useTrial(pointing, () => aimed.value && command(aimed.value))
watch(open, () => (aimed.value = undefined))

async function combine(verb: Verb) {
  aimed.value = undefined
  open.value = false
  await card.selectMade(card.change(command(verb)))
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft">
    <button class="verb" :disabled="!can" title="Make one outline of several" data-testid="combine">Combine</button>
    <template #content>
      <div class="combine" data-testid="combine-dialog">
        <button
          v-for="v in verbs"
          :key="v.do"
          class="verb"
          :data-testid="v.do"
          @pointerenter="aimed = v.do"
          @pointerleave="aimed = undefined"
          @focus="aimed = v.do"
          @blur="aimed = undefined"
          @click="combine(v.do)"
        >
          <b>{{ v.name }}</b>
          <small>{{ v.title }}</small>
        </button>
        <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.combine {
  display: grid;
  width: 270px;
  margin: -4px -6px;
}
.verb {
  text-align: left;
}
.verb b {
  padding: 0;
}
p {
  margin: 4px 8px;
}
</style>
