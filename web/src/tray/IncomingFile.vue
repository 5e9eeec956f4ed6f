<script setup lang="ts">
// A file on its way in, or why it was not taken.
import { Button, Progress } from 'ant-design-vue'
import { useCatalogue, type Incoming } from '../store/catalogue'

defineProps<{ file: Incoming }>()
const catalogue = useCatalogue()
</script>

<template>
  <div class="coming" :class="{ bad: file.why }" :data-testid="file.why ? 'refused' : 'coming'">
    <template v-if="file.why">
      <span class="why" role="alert">{{ file.why }}</span>
      <Button size="small" @click="catalogue.dismiss(file.key)">Dismiss</Button>
    </template>
    <template v-else>
      <span class="file">{{ file.name }}</span>
      <Progress :percent="Math.round(file.share * 100)" :show-info="false" size="small" stroke-color="#587a4a" />
      <span>{{ file.share < 1 ? Math.round(file.share * 100) + ' %' : 'preparing…' }}</span>
      <button class="verb" @click="catalogue.dismiss(file.key)">Stop</button>
    </template>
  </div>
</template>

<style scoped>
.coming {
  flex: none;
  height: 74px;
  width: 150px;
  padding: 5px 8px;
  border-radius: 4px;
  background: var(--paper0);
  border: 1px solid var(--paper3);
  font-size: 11px;
}
.bad {
  width: 300px;
  border-color: var(--stop);
  display: flex;
  align-items: center;
  gap: 8px;
}
.why {
  flex: 1;
  color: var(--stop);
  max-height: 62px;
  overflow: auto;
}
.file {
  display: block;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.verb {
  float: right;
  padding: 0 4px;
  font-size: 11px;
}
</style>
