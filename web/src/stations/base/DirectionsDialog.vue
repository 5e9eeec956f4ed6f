<script setup lang="ts">
// The directions for cutting, scoring and folding the base by hand.
import { Button, Modal, Segmented } from 'ant-design-vue'
import { ref, watch } from 'vue'
import { api } from '../../api/client'
import type { NetDirections } from '../../api/types'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import NetDrawing from './NetDrawing.vue'

const open = defineModel<boolean>({ required: true })
const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const directions = ref<NetDirections>()
const wrong = ref('')

watch(
  () => [open.value, prefs.unit, prefs.parts, card.view?.revision],
  async () => {
    if (!open.value) return
    try {
      directions.value = await api.directions(card.id, prefs.unit, prefs.parts)
      wrong.value = ''
    } catch (e) {
      wrong.value = e instanceof Error ? e.message : String(e)
    }
  },
)
</script>

<template>
  <Modal v-model:open="open" title="Directions for hand cutting" :width="920" :footer="null" centered>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <div v-else-if="directions" class="two" data-testid="directions">
      <NetDrawing
        :net="directions.net"
        :colour="catalogue.stock(card.view!.card.base.stock)?.colour ?? '#fff'"
        :width="440"
        :height="520"
      />
      <ol>
        <li>{{ directions.sheet }}</li>
        <li v-for="w in directions.works" :key="w.lay">
          {{ w.lay }}
          <ul>
            <li v-for="l in w.lines" :key="l">{{ l }}</li>
          </ul>
        </li>
        <li v-for="f in directions.folds" :key="f">{{ f }}</li>
      </ol>
    </div>
    <footer>
      <label v-if="prefs.unit === 'in'" class="to">
        Measured to
        <Segmented
          v-model:value="prefs.parts"
          size="small"
          :options="[
            { value: 32, label: '1/32 in' },
            { value: 64, label: '1/64 in' },
          ]"
          data-testid="directions-parts"
        />
      </label>
      <Button :href="api.directionsURL(card.id, prefs.unit, prefs.parts)" download data-testid="directions-pdf"
        >As PDF</Button
      >
      <Button type="primary" @click="open = false">Done</Button>
    </footer>
  </Modal>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 450px 1fr;
  gap: 12px;
  max-height: 66vh;
}
ol {
  overflow: auto;
  margin: 0;
  padding-left: 22px;
}
ol > li {
  padding: 3px 0;
  font-weight: 600;
}
ul {
  margin: 3px 0 4px;
  padding-left: 14px;
  font-weight: 400;
}
.to {
  margin-right: auto;
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--ink7);
}
footer {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 14px;
}
</style>
