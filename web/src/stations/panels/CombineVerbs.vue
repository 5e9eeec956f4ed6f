<script setup lang="ts">
// The four ways to combine outlines. Pointing at one shows what it would make.
import { computed, ref } from 'vue'
import type { Command } from '../../api/types'
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
const can = computed(() => card.selected.length > 1 && card.selected.every((it) => it.kind !== 'photo' && !it.role))
const aimed = ref<Verb>()
const pointing = computed(() => aimed.value !== undefined && can.value)
const command = (verb: Verb): Command => ({ do: verb, ids: card.selected.map((it) => it.id) })
useTrial(pointing, () => aimed.value && command(aimed.value))

async function combine(verb: Verb) {
  aimed.value = undefined
  const next = await card.change(command(verb))
  if (next?.made?.length) card.select(next.made)
}
</script>

<template>
  <button
    v-for="v in verbs"
    :key="v.do"
    class="verb"
    :disabled="!can"
    :title="v.title"
    :data-testid="v.do"
    @pointerenter="aimed = v.do"
    @pointerleave="aimed = undefined"
    @focus="aimed = v.do"
    @blur="aimed = undefined"
    @click="combine(v.do)"
  >
    {{ v.name }}
  </button>
</template>
