<script setup lang="ts">
// How far a run has come, pass by pass, and the buttons that start it, hold it up and
// stop it.
import { Button } from 'ant-design-vue'
import StopsLine from '../../parts/StopsLine.vue'
import type { PassView } from './passes'

defineProps<{
  headline: string
  left: string
  failed: boolean
  /** Nothing, or what a job at the cutter is doing. */
  state: 'idle' | 'busy' | 'cutting' | 'paused' | 'needs'
  ready: boolean
  again: boolean
  /** It was broken off and can go on from there. */
  broken: boolean
  /** Where to go on has to be pointed at first. */
  mustPoint?: boolean
  passes: PassView[]
}>()
defineEmits<{ cut: []; goOn: []; stop: []; pause: []; on: [] }>()
</script>

<template>
  <footer class="bar" :class="{ asks: state === 'needs' }">
    <template v-if="state === 'idle'">
      <Button
        v-if="broken"
        type="primary"
        size="large"
        :disabled="!ready || mustPoint"
        :title="mustPoint ? 'Point at the first path on the sheet that is not cut' : 'The sheet must lie as it did'"
        data-testid="go-on"
        @click="$emit('goOn')"
      >
        Go on from there
      </Button>
      <Button
        :type="broken ? 'default' : 'primary'"
        size="large"
        :disabled="!ready"
        data-testid="cut"
        @click="$emit('cut')"
      >
        {{ broken ? 'From the start' : again ? 'Cut it again' : 'Cut this sheet' }}
      </Button>
    </template>
    <template v-else>
      <Button v-if="state === 'cutting'" size="large" data-testid="pause" @click="$emit('pause')">Pause</Button>
      <Button v-if="state === 'paused'" type="primary" size="large" data-testid="on" @click="$emit('on')">Go on</Button>
      <Button v-if="state === 'needs'" type="primary" size="large" data-testid="tool-in" @click="$emit('on')"
        >It is in</Button
      >
      <Button size="large" data-testid="stop" @click="$emit('stop')">Stop</Button>
    </template>
    <div class="progress">
      <StopsLine v-if="state === 'idle'" />
      <div class="line">
        <b :class="{ bad: failed }" data-testid="headline">{{ headline }}</b>
        <span>{{ left }}</span>
      </div>
      <div class="bars">
        <div v-for="p in passes" :key="p.name" :style="{ flex: p.weight }">
          <div class="track"><i :class="{ whole: p.share >= 1 }" :style="{ width: p.share * 100 + '%' }" /></div>
          <small>{{ p.name.toLowerCase() }}</small>
        </div>
      </div>
    </div>
  </footer>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 18px;
  background: var(--paper2);
  border-top: 1px solid var(--paper3);
}
.asks {
  background: var(--brick-soft);
}
.progress {
  flex: 1;
  min-width: 0;
  margin-left: 4px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  margin-bottom: 6px;
}
.line b {
  font-weight: 600;
}
.line span {
  color: var(--ink7);
  white-space: nowrap;
}
.bad {
  color: var(--stop);
}
.bars {
  display: flex;
  gap: 3px;
}
.bars > div {
  min-width: 54px;
}
.track {
  height: 14px;
  border-radius: 3px;
  background: var(--paper3);
  overflow: hidden;
}
.track i {
  display: block;
  height: 100%;
  background: var(--brick);
}
.track .whole {
  background: var(--moss);
}
small {
  margin-top: 4px;
  white-space: nowrap;
}
</style>
