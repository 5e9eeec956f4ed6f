<script setup lang="ts">
// Keeping a face or the whole card as a sketch: photos and words that are ticked
// become slots.
import { Button, Checkbox, Input, Modal, Segmented, message } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'

const card = useCard()
const catalogue = useCatalogue()
const open = ref(false)
const scope = ref<'face' | 'card'>('card')
const title = ref('')
const occasion = ref('')
const tags = ref('')
const off = ref<string[]>([])
const wrong = ref('')
const busy = ref(false)

const could = computed(() =>
  (card.view?.card.faces ?? [])
    .filter((f) => scope.value === 'card' || f.id === card.faceId)
    .flatMap((f) => f.items)
    .filter((it) => it.photo || it.words),
)
function show() {
  title.value = card.view?.card.title ?? ''
  off.value = []
  wrong.value = ''
  open.value = true
}
const tick = (id: string, on: boolean) => (off.value = on ? off.value.filter((i) => i !== id) : [...off.value, id])

async function keep() {
  busy.value = true
  try {
    const k = await api.keepSketch(card.id, {
      title: title.value,
      occasion: occasion.value,
      tags: tags.value.split(','),
      slots: could.value.map((it) => it.id).filter((id) => !off.value.includes(id)),
      ...(scope.value === 'face' ? { face: card.faceId } : {}),
    })
    await catalogue.loadSketches()
    open.value = false
    void message.success(`“${k.title}” waits in the tray, under Sketches.`)
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <button class="verb" data-testid="keep-sketch" @click="show">Keep as a sketch</button>
  <Modal v-model:open="open" title="Keep as a sketch" :footer="null" width="460px">
    <form class="form" data-testid="sketch-dialog" @submit.prevent="keep">
      <Segmented
        v-model:value="scope"
        block
        :options="[
          { value: 'card', label: 'The whole card' },
          { value: 'face', label: `Only ${card.face?.name ?? 'this face'}` },
        ]"
        data-testid="sketch-scope"
      />
      <label>Name <Input v-model:value="title" :maxlength="120" data-testid="sketch-title" /></label>
      <label
        >Occasion <Input v-model:value="occasion" :maxlength="40" placeholder="birthday" data-testid="sketch-occasion"
      /></label>
      <label>Tags, with commas between them <Input v-model:value="tags" data-testid="sketch-tags" /></label>
      <fieldset v-if="could.length">
        <legend>These become slots to fill</legend>
        <Checkbox
          v-for="it in could"
          :key="it.id"
          :checked="!off.includes(it.id)"
          :data-testid="'sketch-slot-' + it.id"
          @change="tick(it.id, $event.target.checked)"
        >
          {{ it.name }} <small>{{ it.photo ? 'photo' : 'words' }}</small>
        </Checkbox>
      </fieldset>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <Button type="primary" html-type="submit" :loading="busy" data-testid="sketch-keep">Keep it</Button>
    </form>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink7);
  font-size: 12px;
}
fieldset {
  display: grid;
  gap: 3px;
  max-height: 190px;
  margin: 0;
  padding: 8px 12px;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  overflow-y: auto;
}
legend {
  padding: 0 4px;
  color: var(--ink7);
  font-size: 12px;
}
fieldset small {
  display: inline;
}
:deep(.ant-checkbox-wrapper) {
  margin: 0;
}
</style>
