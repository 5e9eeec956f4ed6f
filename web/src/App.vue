<script setup lang="ts">
import { Button, ConfigProvider, Result, StyleProvider } from 'ant-design-vue'
import { onMounted, ref } from 'vue'
import { refDebounced } from '@vueuse/core'
import { connected } from './api/events'
import { useCatalogue } from './store/catalogue'
import { keptStyles } from './styles'
import { theme } from './theme'

const catalogue = useCatalogue()
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
</script>

<template>
  <StyleProvider :cache="styles">
    <ConfigProvider :theme="theme" :auto-insert-space-in-button="false">
      <Result v-if="why" status="warning" title="Sectilis cannot be reached" :sub-title="why">
        <template #extra><Button type="primary" @click="load">Try again</Button></template>
      </Result>
      <RouterView v-else />
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
