<script setup lang="ts">
// Straightening a photo: by degrees or by a line that is drawn along what is to be level or
// upright, and by the four corners of what is to be a rectangle.
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { useEdits } from '../../store/edits'
import EditSlider from './EditSlider.vue'

const props = defineProps<{ corners: boolean }>()
const emit = defineEmits<{ corners: [on: boolean]; square: [] }>()
const edits = useEdits()

/** The lean that the slider is of: the last edit, if it is one. */
const lean = computed(() => edits.edits.at(-1)?.lean?.degrees ?? 0)
const others = computed(() => (edits.edits.at(-1)?.lean ? edits.edits.slice(0, -1) : edits.edits))
const withLean = (degrees: number) => (degrees ? [...others.value, { lean: { degrees } }] : others.value)
</script>

<template>
  <section class="sec">
    <h3>Straighten</h3>
    <p>Draw a line in the photo along what is level or upright, or turn it here.</p>
    <EditSlider
      label="Turned by"
      :min="-45"
      :max="45"
      :step="0.1"
      :digits="1"
      sign="°"
      :value="lean"
      testid="lean"
      @slide="edits.slide(withLean($event))"
      @set="edits.set(withLean($event))"
    />
  </section>
  <section class="sec">
    <h3>Square up</h3>
    <p>Put the four corners on what is a rectangle: a page, a window, a picture on a wall.</p>
    <div class="two">
      <Button data-testid="corners" @click="emit('corners', !props.corners)">
        {{ props.corners ? 'Leave it' : 'Set the corners' }}
      </Button>
      <Button v-if="props.corners" type="primary" data-testid="square-up" @click="emit('square')">Square it up</Button>
    </div>
  </section>
</template>

<style scoped>
p {
  margin: 2px 0 8px;
  color: var(--ink5);
  font-size: 12px;
}
.two {
  display: flex;
  gap: 8px;
}
</style>
