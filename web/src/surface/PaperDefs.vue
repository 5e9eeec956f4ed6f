<script setup lang="ts">
// The patterned papers as SVG patterns in true millimetres. One hidden drawing
// holds them for the whole page.
import { useCatalogue } from '../store/catalogue'
const catalogue = useCatalogue()
</script>

<template>
  <svg width="0" height="0" style="position: absolute" aria-hidden="true">
    <defs>
      <pattern
        v-for="p in catalogue.all.papers"
        :id="'paper-' + p.id"
        :key="p.id"
        patternUnits="userSpaceOnUse"
        :width="p.width"
        :height="p.height"
      >
        <rect :width="p.width" :height="p.height" :fill="p.ground" />
        <path v-for="(m, i) in p.marks" :key="i" :d="m.path" :fill="m.colour" />
      </pattern>
    </defs>
  </svg>
</template>
