<script setup lang="ts">
// The colour of a stock, picked from a photo or scan of it: the mean about where it is clicked.
import { onMounted, ref } from 'vue'
import { hex } from '../parts/colour'

const props = defineProps<{ file: File }>()
const emit = defineEmits<{ pick: [colour: string]; wrong: [why: string]; done: [] }>()
const canvas = ref<HTMLCanvasElement>()
const SIDE = 340
/** How far about a click the mean is taken, in pixels. */
const ABOUT = 6

onMounted(async () => {
  try {
    const img = await createImageBitmap(props.file)
    const k = Math.min(1, SIDE / Math.max(img.width, img.height))
    const c = canvas.value!
    c.width = Math.max(1, Math.round(img.width * k))
    c.height = Math.max(1, Math.round(img.height * k))
    c.getContext('2d', { willReadFrequently: true })!.drawImage(img, 0, 0, c.width, c.height)
  } catch {
    emit('wrong', `“${props.file.name}” is no picture that can be read here. Take a JPEG, PNG or WebP.`)
    emit('done')
  }
})

function pick(e: MouseEvent) {
  const c = canvas.value!
  const r = c.getBoundingClientRect()
  const x = ((e.clientX - r.left) / r.width) * c.width
  const y = ((e.clientY - r.top) / r.height) * c.height
  const [left, top] = [Math.max(0, Math.round(x) - ABOUT), Math.max(0, Math.round(y) - ABOUT)]
  const px = c.getContext('2d')!.getImageData(left, top, 2 * ABOUT + 1, 2 * ABOUT + 1).data
  const sum = [0, 0, 0]
  let n = 0
  for (let i = 0; i < px.length; i += 4) {
    if (!px[i + 3]) continue
    n++
    for (let k = 0; k < 3; k++) sum[k]! += px[i + k]!
  }
  if (n) emit('pick', hex(sum[0]! / n, sum[1]! / n, sum[2]! / n))
}
</script>

<template>
  <div class="from">
    <canvas ref="canvas" data-testid="stock-canvas" @click="pick" />
    <div>
      <small>Click where the paper is evenly lit.</small>
      <button class="verb" data-testid="stock-photo-done" @click="$emit('done')">Done</button>
    </div>
  </div>
</template>

<style scoped>
.from {
  display: flex;
  gap: 14px;
  margin-top: 12px;
}
canvas {
  max-height: 220px;
  border-radius: 4px;
  cursor: crosshair;
}
</style>
