<script setup lang="ts">
// Printing: how many pages, to the printer or as a PDF, and what came out.
import { Button, Checkbox, Progress } from 'ant-design-vue'
import { computed } from 'vue'
import { api } from '../../api/client'
import type { SheetView } from '../../api/types'
import InsertFields from './InsertFields.vue'
import TrueSize from './TrueSize.vue'
import { useCard } from '../../store/card'
import { useMachine } from '../../store/machine'
import { usePrefs } from '../../store/prefs'

const props = defineProps<{ sheets: SheetView[] }>()
const card = useCard()
const machine = useMachine()
const prefs = usePrefs()

const pages = computed(() => props.sheets.reduce((n, s) => n + (s.printed ? 1 : 0) + (s.twoSided ? 1 : 0), 0))
const pdf = computed(() =>
  pages.value || prefs.lines ? api.pdfURL(card.id, prefs.paper, prefs.lines, prefs.spot) : undefined,
)
const job = computed(() => (machine.print && [card.id, ''].includes(machine.print.card) ? machine.print : undefined))
const running = computed(() => job.value?.state === 'running')
</script>

<template>
  <section class="sec">
    <h3>Print</h3>
    <div class="facts">
      <span>Printer</span><b>Desk printer · stand-in</b> <span>Pages</span><b>{{ pages }}</b>
    </div>
    <InsertFields />
    <div class="buttons">
      <Button type="primary" :disabled="!pages || running" data-testid="print" @click="machine.start('print')">
        {{ pages === 1 ? 'Print 1 page' : `Print ${pages} pages` }}
      </Button>
      <Button :href="pdf" :disabled="!pdf" download data-testid="pdf">PDF</Button>
      <Checkbox v-model:checked="prefs.lines" title="The lines too, for cutting by hand" data-testid="lines"
        >with lines</Checkbox
      >
      <Checkbox
        v-if="prefs.lines"
        v-model:checked="prefs.spot"
        title="Each role in an ink of its own name, as cutting tables know them"
        data-testid="spot"
        >in spot colours</Checkbox
      >
    </div>
    <TrueSize />
    <p v-if="!pages && sheets.length" class="note">
      Nothing on these sheets is printed. Tick “with lines” for a PDF of their outlines.
    </p>
    <template v-if="job">
      <Progress v-if="running" :percent="Math.round(job.progress * 100)" :show-info="false" stroke-color="#a8432a" />
      <p :class="{ wrong: job.state === 'failed' }" class="note" data-testid="print-note">
        {{ job.state === 'stopped' ? 'Stopped.' : job.note }}
      </p>
      <Button v-if="running" size="small" data-testid="stop-print" @click="machine.stop(job)">Stop</Button>
      <div v-if="job.pictures?.length" class="prints">
        <a v-for="p in job.pictures" :key="p" :href="'/api/' + p" target="_blank"
          ><img :src="'/api/' + p + '?small=1'" alt="A printed page"
        /></a>
      </div>
    </template>
  </section>
</template>

<style scoped>
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
  align-items: center;
}
.note {
  margin: 8px 0 0;
  color: var(--ink5);
  font-size: 11.5px;
}
.note.wrong {
  color: var(--stop);
}
.prints {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
.prints img {
  width: 46px;
  box-shadow: 0 1px 3px #0004;
}
</style>
