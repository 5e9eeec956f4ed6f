<script setup lang="ts">
// The folded card as solids, drawn anew only when something has moved.
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { FoldView } from '../api/types'
import type { Sheet, Stage } from './solid'
import type { Eye } from './space'

const props = defineProps<{
  width: number
  height: number
  sheet: Sheet
  motions: FoldView['frames'][number]
  eye: Eye
}>()
const emit = defineEmits<{ failed: [] }>()

const canvas = ref<HTMLCanvasElement>()
const frames = ref(0)
let scene: Stage | undefined
let make: typeof import('./solid').stage | undefined

function build() {
  scene?.dispose()
  scene = undefined
  if (!canvas.value || !make) return
  try {
    scene = make(canvas.value, props.sheet, () => frames.value++)
    scene.resize(props.width, props.height)
    scene.show(props.motions, props.eye)
  } catch {
    emit('failed') // no WebGL here
  }
}

onMounted(async () => {
  try {
    make = (await import('./solid')).stage
  } catch {
    emit('failed')
    return
  }
  build()
})
watch(() => props.sheet, build)
watch(
  () => [props.width, props.height],
  () => scene?.resize(props.width, props.height),
)
watch(
  () => [props.motions, props.eye] as const,
  ([m, e]) => scene?.show(m, e),
)
onBeforeUnmount(() => scene?.dispose())
</script>

<template>
  <canvas ref="canvas" :style="{ width: width + 'px', height: height + 'px' }" :data-frames="frames" />
</template>

<style scoped>
canvas {
  display: block;
}
</style>
