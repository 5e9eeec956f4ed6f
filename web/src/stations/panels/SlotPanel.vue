<script setup lang="ts">
// A slot that waits for words.
import PanelSection from '../../parts/PanelSection.vue'
import { Button, Textarea } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useCard } from '../../store/card'

const card = useCard()
const text = ref('')
const one = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const slot = computed(() => (one.value ? card.doc(one.value.id)?.slot : undefined))
watch(
  () => one.value?.id,
  () => (text.value = ''),
)
async function fill() {
  const id = one.value?.id
  if (id && text.value.trim()) {
    const v = await card.change({ do: 'fillWords', id, text: text.value })
    if (v) card.select([id])
  }
}
</script>

<template>
  <PanelSection v-if="slot?.takes === 'words'" id="slot" title="Words for this slot">
    <Textarea v-model:value="text" :rows="3" :placeholder="slot.words?.text" data-testid="slot-text" @keydown.stop />
    <Button block type="primary" class="put" :disabled="!text.trim()" data-testid="slot-fill" @click="fill">
      Set them, as large as fits
    </Button>
  </PanelSection>
</template>

<style scoped>
.put {
  margin-top: 8px;
}
</style>
