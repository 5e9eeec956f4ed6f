<script setup lang="ts">
// What one draws and rubs out with.
import { Segmented, Switch } from 'ant-design-vue'
import { ref } from 'vue'
import PanelSection from '../../parts/PanelSection.vue'
import MeasureField from '../../parts/MeasureField.vue'
import ShareField from '../../parts/ShareField.vue'
import { useTool } from '../../store/tool'
import ColourField from './ColourField.vue'

const tool = useTool()
const wrong = ref('')
const within = (v: number, set: (v: number) => void) => {
  if (v < 0.1 || v > 40) wrong.value = 'A tip is between 0.1 and 40 mm (1 ½ in) wide.'
  else {
    wrong.value = ''
    set(v)
  }
}
</script>

<template>
  <PanelSection v-if="tool.tool === 'draw'" id="draw-panel" title="Draw by hand">
    <div class="pair">
      <Segmented
        v-model:value="tool.pen.tip"
        class="wide"
        block
        :disabled="tool.pen.machine"
        :options="[
          { value: 'pen', label: 'Pen' },
          { value: 'marker', label: 'Marker' },
          { value: 'chisel', label: 'Chisel' },
        ]"
        data-testid="draw-tip"
      />
      <MeasureField
        label="Weight"
        :mm="tool.pen.weight"
        :disabled="tool.pen.machine"
        testid="draw-weight"
        @set="within($event, (v) => (tool.pen.weight = v))"
        @wrong="wrong = $event"
      />
      <ColourField label="Ink" :value="tool.pen.colour" testid="draw-colour" @set="tool.pen.colour = $event" />
      <ShareField
        v-if="!tool.pen.machine"
        label="Opacity"
        :value="Math.round(tool.pen.opacity * 100)"
        :min="5"
        testid="draw-opacity"
        @set="tool.pen.opacity = $event / 100"
      />
    </div>
    <label class="choices"
      ><Switch v-model:checked="tool.pen.machine" size="small" data-testid="draw-machine" /> Drawn by the machine’s
      pen</label
    >
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <small>A stylus draws heavier where it is pressed. Esc puts the pen down.</small>
  </PanelSection>
  <PanelSection v-if="tool.tool === 'rub'" id="rub-panel" title="Rub out">
    <div class="pair">
      <MeasureField
        label="Rubber"
        :mm="tool.pen.rubber"
        testid="rubber-width"
        @set="within($event, (v) => (tool.pen.rubber = v))"
        @wrong="wrong = $event"
      />
    </div>
    <label class="choices"
      ><Switch v-model:checked="tool.pen.whole" size="small" data-testid="rub-whole" /> Whole strokes</label
    >
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <small>Only what was drawn by hand is rubbed out.</small>
  </PanelSection>
</template>

<style scoped>
.wide {
  grid-column: 1 / 3;
}
.choices {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 8px 0 6px;
}
</style>
