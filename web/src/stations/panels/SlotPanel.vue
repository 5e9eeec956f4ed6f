<script setup lang="ts">
// A slot that waits for words, and making slots of photos and words.
import { Button, Textarea } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useCard } from '../../store/card'

const card = useCard()
const text = ref('')
const one = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const slot = computed(() => (one.value ? card.doc(one.value.id)?.slot : undefined))
const could = computed(
  () => card.told.length > 0 && card.told.every((it) => it.kind === 'photo' || it.kind === 'lettering'),
)
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
const make = () => void card.change({ do: 'makeSlots', ids: card.told.map((it) => it.id) })
</script>

<template>
  <section v-if="slot?.takes === 'words'" class="sec" data-testid="slot">
    <h3>Words for this slot</h3>
    <Textarea v-model:value="text" :rows="3" :placeholder="slot.words?.text" data-testid="slot-text" @keydown.stop />
    <Button block type="primary" class="put" :disabled="!text.trim()" data-testid="slot-fill" @click="fill">
      Set them, as large as fits
    </Button>
  </section>
  <section v-if="could" class="sec">
    <button class="verb" title="It waits for another in its place" data-testid="make-slot" @click="make">
      Make {{ card.told.length > 1 ? 'slots of them' : 'it a slot' }}
    </button>
  </section>
</template>

<style scoped>
.put {
  margin-top: 8px;
}
section .verb {
  margin-left: -8px;
}
</style>
