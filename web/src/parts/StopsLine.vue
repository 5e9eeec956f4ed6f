<script setup lang="ts">
// That the checks have found what would spoil paper, in one line; nothing is forbidden by it.
import { useCard } from '../store/card'
import { useCheck } from '../store/check'

const card = useCard()
const check = useCheck()
</script>

<template>
  <p v-if="check.count('stop')" class="stops" data-testid="stops-line">
    {{ check.count('stop') === 1 ? 'One thing would spoil paper' : `${check.count('stop')} things would spoil paper` }}:
    <RouterLink :to="`/cards/${card.id}/check`">look at them in Check</RouterLink>.
  </p>
</template>

<style scoped>
.stops {
  margin: 0 0 8px;
  color: var(--stop);
}
a {
  color: inherit;
  font-weight: 600;
}
</style>
