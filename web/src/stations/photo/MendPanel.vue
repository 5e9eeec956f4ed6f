<script setup lang="ts">
// Mending a photo: what is drawn over is filled in or copied over, red eyes are clicked, and the
// picture is made wider.
import { Button, Checkbox, Segmented } from 'ant-design-vue'
import { useMend, type Mend } from '../../store/mend'
import EditSlider from './EditSlider.vue'

const mend = useMend()
const says: Record<Mend, string> = {
  fill: 'Draw over what is to go. It is filled from what is about it.',
  copy: 'Click on what is to be copied, then draw where it is to be.',
  eyes: 'Click on each red pupil. The disc is as large as the eye.',
  wider: 'More picture at its sides, filled from what is there.',
}
const sides = [
  { id: 'left', name: 'Left' },
  { id: 'right', name: 'Right' },
  { id: 'top', name: 'Top' },
  { id: 'bottom', name: 'Bottom' },
] as const
</script>

<template>
  <section class="sec">
    <h3>Mend</h3>
    <Segmented
      block
      :value="mend.by"
      :options="[
        { value: 'fill', label: 'Fill in' },
        { value: 'copy', label: 'Copy' },
        { value: 'eyes', label: 'Eyes' },
        { value: 'wider', label: 'Wider' },
      ]"
      aria-label="How it is mended"
      data-testid="mend-by"
      @change="((mend.by = $event as Mend), (mend.from = undefined))"
    />
    <p>{{ says[mend.by] }}</p>
    <template v-if="mend.by === 'wider'">
      <EditSlider
        v-for="s in sides"
        :key="s.id"
        :label="s.name"
        :min="0"
        :max="100"
        sign=" %"
        :value="(mend.wider[s.id] ?? 0) * 100"
        :testid="'wider-' + s.id"
        @set="mend.widen({ [s.id]: $event / 100 || undefined })"
      />
      <Button
        size="small"
        class="again"
        title="It stays where and as large as it is; where it does not reach, it is filled"
        data-testid="widen-face"
        @click="mend.toFace()"
        >As large as its face</Button
      >
    </template>
    <EditSlider
      v-else
      label="Brush"
      :min="0.3"
      :max="15"
      :step="0.1"
      :digits="1"
      sign=" %"
      :value="mend.size * 100"
      testid="mend-size"
      @slide="mend.size = $event / 100"
      @set="mend.size = Math.max($event, 0.3) / 100"
    />
    <template v-if="mend.by === 'copy'">
      <Checkbox v-model:checked="mend.soft" data-testid="mend-soft">Soft edge</Checkbox>
      <button v-if="mend.from" class="verb from" data-testid="mend-from" @click="mend.from = undefined">
        Copy from another place
      </button>
    </template>
    <Button v-if="mend.again >= 0" size="small" class="again" data-testid="fill-again" @click="mend.otherwise()"
      >Fill it otherwise</Button
    >
  </section>
</template>

<style scoped>
h3 {
  margin-bottom: 6px;
}
p {
  margin: 8px 0;
  color: var(--ink5);
  font-size: 12px;
}
.from {
  display: block;
  margin-left: -8px;
}
.again {
  margin-top: 8px;
}
</style>
