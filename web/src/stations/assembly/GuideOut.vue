<script setup lang="ts">
// What the whole card takes, and what goes out of it: its guide as PDF, and pictures of it as it opens.
import { Button, Select, SelectOption } from 'ant-design-vue'
import { useStorage } from '@vueuse/core'
import { computed } from 'vue'
import { api } from '../../api/client'
import { useAssembly } from '../../store/assembly'
import { useCard } from '../../store/card'
import { useCheck } from '../../store/check'
import { usePrefs } from '../../store/prefs'

const card = useCard()
const assembly = useAssembly()
const check = useCheck()
const prefs = usePrefs()

const size = useStorage('sectilis.folding.size', 600)
const folds = computed(() => !!card.view?.scene.net.lines.length)
const per = useStorage('sectilis.guide.per', 2)
const takes = computed(() => [
  ...(assembly.view?.takes ?? []),
  ...(check.view ? [`${Math.round(check.view.letter.weight)} g`] : []),
])
</script>

<template>
  <section v-if="takes.length" class="sec">
    <h3>The whole card takes</h3>
    <p>{{ takes.join(' · ') }}</p>
    <div class="guide">
      <Button type="primary" :href="api.guideURL(card.id, prefs.unit, per)" download data-testid="print-guide"
        >The guide as PDF</Button
      >
      <Select v-model:value="per" size="small" aria-label="Steps on a page" data-testid="guide-per">
        <SelectOption :value="1">1 step a page</SelectOption>
        <SelectOption :value="2">2 steps a page</SelectOption>
        <SelectOption :value="4">4 steps a page</SelectOption>
      </Select>
    </div>
  </section>
  <section v-if="folds" class="sec">
    <h3>To show it</h3>
    <p>The card as it opens, for a message or a shop page.</p>
    <div class="guide">
      <Button size="small" :href="api.foldingURL(card.id, size)" download data-testid="folding">Moving picture</Button>
      <Button size="small" :href="api.stillsURL(card.id, size)" download data-testid="stills">Five stills</Button>
      <Select v-model:value="size" size="small" aria-label="Pixels" data-testid="folding-size">
        <SelectOption :value="360">360 pixels</SelectOption>
        <SelectOption :value="600">600 pixels</SelectOption>
        <SelectOption :value="1000">1000 pixels</SelectOption>
      </Select>
    </div>
  </section>
</template>

<style scoped>
h3 {
  margin: 0 0 6px;
}
.guide {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.sec p {
  margin: 0 0 8px;
}
</style>
