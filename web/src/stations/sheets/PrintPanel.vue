<script setup lang="ts">
// How the sheets are printed: where the inside goes, what a PDF has, how true it is.
import { Checkbox } from 'ant-design-vue'
import InsertFields from './InsertFields.vue'
import PrinterTest from './PrinterTest.vue'
import { usePrefs } from '../../store/prefs'

const prefs = usePrefs()
</script>

<template>
  <section class="sec">
    <h3>Print</h3>
    <div class="facts"><span>Printer</span><b>Desk printer · stand-in</b></div>
    <InsertFields />
    <div class="ticks">
      <span>PDF</span>
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
    <PrinterTest />
  </section>
</template>

<style scoped>
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  margin-top: 10px;
  align-items: center;
  font-size: 12.5px;
}
.ticks span:first-child {
  flex: 1;
}
</style>
