<script setup lang="ts">
import { Button, ConfigProvider, Result, StyleProvider } from 'ant-design-vue'
import { defineAsyncComponent, onMounted, ref } from 'vue'
import { refDebounced } from '@vueuse/core'
import { connected, useEvents } from './api/events'
import { useCatalogue } from './store/catalogue'
import { useStocks } from './store/stocks'
import { keptStyles } from './styles'
import { theme } from './theme'

const StocksDialog = defineAsyncComponent(() => import('./stocks/StocksDialog.vue'))
const catalogue = useCatalogue()
const stocks = useStocks()
/** A stream that breaks for a moment is taken up again before anyone has to know. */
const answers = refDebounced(connected, 1500)
const why = ref('')
const styles = keptStyles()

async function load() {
  why.value = ''
  try {
    await catalogue.load()
  } catch (e) {
    why.value = e instanceof Error ? e.message : String(e)
  }
}

onMounted(load)
// What was changed while the program was away is taken up when it is there again.
let greeted = false
useEvents((e) => {
  if (e.kind === 'stocks' || (e.kind === 'hello' && greeted)) {
    void catalogue.reload().catch(() => undefined)
    if (stocks.shown) void stocks.load()
  }
  if (e.kind === 'hello') greeted = true
})
</script>

<template>
  <StyleProvider :cache="styles">
    <ConfigProvider :theme="theme" :auto-insert-space-in-button="false">
      <Result v-if="why" status="warning" title="Sectilis cannot be reached" :sub-title="why">
        <template #extra><Button type="primary" @click="load">Try again</Button></template>
      </Result>
      <RouterView v-else />
      <StocksDialog v-if="stocks.shown" />
      <div v-if="!connected && !answers" class="away" role="status">
        The program does not answer; what you change now cannot be saved.
      </div>
    </ConfigProvider>
  </StyleProvider>
</template>

<style scoped>
.away {
  position: fixed;
  inset: auto 0 0;
  padding: 7px 16px;
  background: var(--stop);
  color: #fff;
  text-align: center;
  z-index: 20;
}
</style>
