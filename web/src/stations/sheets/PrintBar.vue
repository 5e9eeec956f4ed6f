<script setup lang="ts">
// What the sheets are made for, always within reach: print them, or take the files.
import { Button, Progress } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import StopsLine from '../../parts/StopsLine.vue'
import { api } from '../../api/client'
import type { SheetView } from '../../api/types'
import { useCard } from '../../store/card'
import { useMachine } from '../../store/machine'
import { usePrefs } from '../../store/prefs'
import { useOut } from '../../parts/useOut'

const props = defineProps<{ sheets: SheetView[] }>()
const card = useCard()
const machine = useMachine()
const prefs = usePrefs()
const out = useOut()

const pages = computed(() => props.sheets.reduce((n, s) => n + (s.printed ? 1 : 0) + (s.twoSided ? 1 : 0), 0))
const pdf = computed(() => (pages.value || prefs.lines ? api.pdfURL(card.id, prefs.lines, prefs.spot) : undefined))
const job = computed(() => (machine.print && [card.id, ''].includes(machine.print.card) ? machine.print : undefined))
/** What was printed is told until the card is another. */
const stale = ref(false)
watch(
  () => card.view?.revision,
  () => (stale.value = !running.value),
)
watch(
  () => machine.print?.id,
  () => (stale.value = false),
)
const running = computed(() => job.value?.state === 'running')
</script>

<template>
  <footer>
    <StopsLine />
    <div class="buttons">
      <Button type="primary" :disabled="!pages || running" data-testid="print" @click="out.print">
        {{ pages === 1 ? 'Print 1 page' : `Print ${pages} pages` }}
      </Button>
      <Button
        :href="pdf"
        :disabled="!pdf"
        title="The printed pages as one PDF"
        download
        data-testid="pdf"
        @click="out.ask"
        >PDF</Button
      >
      <Button
        :href="sheets.length ? api.zipURL(card.id, prefs.unit) : undefined"
        :disabled="!sheets.length"
        title="Every file of every sheet and a list of what is on each, as one ZIP"
        download
        data-testid="all-files"
        @click="out.ask"
        >All files</Button
      >
    </div>
    <p v-if="!pages && sheets.length" class="note">
      Nothing on these sheets is printed. Tick “with lines” for a PDF of their outlines.
    </p>
    <template v-if="job && (running || !stale)">
      <div class="told">
        <p :class="{ wrong: job.state === 'failed' }" class="note" data-testid="print-note">
          {{ job.state === 'stopped' ? 'Stopped.' : prefs.said(job.note ?? '') }}
        </p>
        <Button v-if="running" size="small" data-testid="stop-print" @click="machine.stop(job)">Stop</Button>
      </div>
      <Progress v-if="running" :percent="Math.round(job.progress * 100)" :show-info="false" stroke-color="#a8432a" />
      <div v-if="job.pictures?.length" class="prints">
        <a v-for="p in job.pictures" :key="p" :href="'/api/' + p" target="_blank"
          ><img :src="'/api/' + p + '?small=1'" alt="A printed page"
        /></a>
      </div>
    </template>
  </footer>
</template>

<style scoped>
footer {
  flex: none;
  padding: 12px 16px;
  border-top: 1px solid var(--paper3);
  background: var(--paper0);
}
.buttons,
.told {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.told {
  justify-content: space-between;
  margin-top: 8px;
}
.note {
  margin: 0;
  color: var(--ink5);
  font-size: 11.5px;
}
.buttons + .note {
  margin-top: 8px;
}
.note.wrong {
  color: var(--stop);
}
.prints {
  display: flex;
  gap: 6px;
  margin-top: 8px;
  overflow-x: auto;
}
.prints img {
  height: 48px;
  box-shadow: 0 1px 3px #0004;
}
</style>
