<script setup lang="ts">
// What the checks have found, in one line where paper is printed or cut; nothing is forbidden by it.
import { computed } from 'vue'
import { useCard } from '../store/card'
import { useCheck } from '../store/check'

const card = useCard()
const check = useCheck()
const says = computed(() => {
  const stops = check.count('stop')
  const cautions = check.count('caution')
  if (stops) return stops === 1 ? 'One thing would spoil paper' : `${stops} things would spoil paper`
  if (cautions)
    return cautions === 1 ? 'One thing is to be looked at again' : `${cautions} things are to be looked at again`
  return ''
})
</script>

<template>
  <p v-if="says" class="stops" :class="{ bad: check.count('stop') }" data-testid="stops-line">
    {{ says }}: <RouterLink :to="`/cards/${card.id}/check`">look in Check</RouterLink>.
  </p>
</template>

<style scoped>
.stops {
  margin: 0 0 8px;
  color: var(--ink7);
}
.bad {
  color: var(--stop);
}
a {
  color: inherit;
  font-weight: 600;
  white-space: nowrap;
}
</style>
