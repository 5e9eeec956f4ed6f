<script setup lang="ts">
// One ink that a look adds to an item: a shadow, a shaded edge, a line.
import { computed, useId } from 'vue'
import type { SceneWash } from '../api/types'

const props = defineProps<{ wash: SceneWash; outline: string; clear?: number }>()
const uid = useId()
const opacity = computed(() => props.wash.opacity * (1 - (props.clear ?? 0)))
</script>

<template>
  <g pointer-events="none" :clip-path="wash.inside ? `url(#${uid}-in)` : undefined">
    <clipPath v-if="wash.inside" :id="`${uid}-in`"><path :d="outline" /></clipPath>
    <filter
      v-if="wash.blur"
      :id="`${uid}-soft`"
      color-interpolation-filters="sRGB"
      x="-100%"
      y="-100%"
      width="300%"
      height="300%"
    >
      <feGaussianBlur :stdDeviation="wash.blur" />
    </filter>
    <path :d="wash.path" :fill="wash.colour" :opacity="opacity" :filter="wash.blur ? `url(#${uid}-soft)` : undefined" />
  </g>
</template>
