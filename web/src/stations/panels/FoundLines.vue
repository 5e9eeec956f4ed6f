<script setup lang="ts">
// What is found about a thing, each with what would mend it.
import { computed } from 'vue'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'

const props = defineProps<{
  id: string
  /** A check whose findings are told elsewhere. */
  but?: string
}>()
const card = useCard()
const prefs = usePrefs()
const found = computed(() => card.findings(props.id).filter((f) => f.check !== props.but))
</script>

<template>
  <p v-for="f in found" :key="f.check" :class="{ wrong: f.weight !== 'note' }" data-testid="finding">
    {{ prefs.said(f.why) }}
    <button v-for="m in f.mends" :key="m.says" class="mend" data-testid="mend" @click="card.change(...(m.do ?? []))">
      {{ prefs.said(m.says) }}
    </button>
  </p>
</template>

<style scoped>
p {
  margin-bottom: 0;
}
</style>
