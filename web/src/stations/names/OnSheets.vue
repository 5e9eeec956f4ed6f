<script setup lang="ts">
// What the cards for all names take.
import { computed } from 'vue'
import { formatTime } from '../../parts/measure'
import { useNames } from '../../store/names'

const names = useNames()
const s = computed(() => names.view?.sheets)
const sheets = (n: number) => (n === 1 ? '1 sheet' : `${n} sheets`)
</script>

<template>
  <section v-if="s" class="sec" data-testid="on-sheets">
    <h3>On sheets</h3>
    <div class="facts">
      <span>{{ s.cards === 1 ? '1 card' : `${s.cards} cards` }}, {{ s.pieces }} pieces</span
      ><b>{{ sheets(s.sheets) }}</b>
      <template v-if="s.apart > s.sheets"
        ><span>Saved by laying together</span><b class="good">{{ sheets(s.apart - s.sheets) }}</b></template
      >
      <template v-if="s.unlaid"
        ><span>Without room</span><b class="bad">{{ s.unlaid === 1 ? '1 piece' : `${s.unlaid} pieces` }}</b></template
      >
      <span>Cutting</span><b>about {{ formatTime(s.seconds) }} min</b>
    </div>
  </section>
</template>

<style scoped>
.good {
  color: #3d5a31;
}
.bad {
  color: var(--stop);
}
</style>
