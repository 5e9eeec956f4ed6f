<script setup lang="ts">
// The patterned papers as SVG patterns in true millimetres. One hidden drawing
// holds them for the whole page.
import { useCatalogue } from '../store/catalogue'
import { api } from '../api/client'
import type { Paper } from '../api/types'

const catalogue = useCatalogue()
/** Where the picture of a paper lies in what repeats: every other one mirrored, or once. */
const tiles = (p: Paper) =>
  (p.mirrored
    ? [
        [1, 1],
        [-1, 1],
        [1, -1],
        [-1, -1],
      ]
    : [[1, 1]]
  ).map(
    ([x = 1, y = 1]) =>
      `matrix(${x * p.width} 0 0 ${y * p.height} ${x < 0 ? 2 * p.width : 0} ${y < 0 ? 2 * p.height : 0})`,
  )
</script>

<template>
  <svg width="0" height="0" style="position: absolute" aria-hidden="true">
    <defs>
      <pattern
        v-for="p in catalogue.all.papers"
        :id="'paper-' + p.id"
        :key="p.id"
        patternUnits="userSpaceOnUse"
        :width="p.mirrored ? 2 * p.width : p.width"
        :height="p.mirrored ? 2 * p.height : p.height"
      >
        <rect v-if="p.ground && !p.picture" :width="p.width" :height="p.height" :fill="p.ground" />
        <path v-for="(m, i) in p.marks" :key="i" :d="m.path" :fill="m.colour" :fill-opacity="1 - (m.clear ?? 0)" />
        <template v-if="p.picture">
          <image
            v-for="t in tiles(p)"
            :key="t"
            :href="api.previewURL(p.picture, 1600)"
            width="1"
            height="1"
            preserveAspectRatio="none"
            :transform="t"
          />
        </template>
      </pattern>
    </defs>
  </svg>
</template>
