<script setup lang="ts">
// While the machine cuts, what it cuts and the way to hold it up, wherever a person is.
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import type { Place } from '../router'
import { useCard } from '../store/card'
import { useMachine } from '../store/machine'

const props = defineProps<{ here: Place }>()
defineEmits<{ go: [] }>()
const card = useCard()
const machine = useMachine()

const run = computed(() => {
  const r = machine.run
  if (r?.state !== 'running' || r.kind !== 'run') return undefined
  return props.here === 'machine' && r.card === card.id ? undefined : r
})
const text = computed(() => {
  const r = run.value
  if (!r) return ''
  const what = `Sheet ${r.sheet}${r.card === card.id ? '' : ' of another card'}`
  if (r.needs) return `${what} waits for a tool.`
  if (r.paused) return `${what} is paused; the tool is up.`
  return `${what} is being cut, ${Math.round(r.progress * 100)} %.`
})
</script>

<template>
  <div v-if="run" class="strip" role="status" data-testid="run-strip">
    <span>{{ text }}</span>
    <span class="space" />
    <Button v-if="run.paused" size="small" type="primary" data-testid="strip-on" @click="machine.hold(run, 'resume')"
      >Go on</Button
    >
    <Button v-else-if="!run.needs" size="small" data-testid="strip-pause" @click="machine.hold(run, 'pause')"
      >Pause</Button
    >
    <Button size="small" data-testid="strip-stop" @click="machine.stop(run)">Stop</Button>
    <Button v-if="run.card === card.id" size="small" type="link" @click="$emit('go')">To the machine</Button>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 5px 16px;
  background: var(--brick-soft);
  border-bottom: 1px solid var(--paper3);
}
.space {
  flex: 1;
}
</style>
