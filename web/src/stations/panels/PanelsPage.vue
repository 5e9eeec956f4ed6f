<script setup lang="ts">
// The station Panels: the faces of the card, or one of its photos by itself.
import { defineAsyncComponent } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'
import { useEdits } from '../../store/edits'
import PanelsStation from './PanelsStation.vue'

const PhotoRoom = defineAsyncComponent(() => import('../photo/PhotoRoom.vue'))
const edits = useEdits()
onBeforeRouteLeave(() => {
  edits.close()
})
</script>

<template>
  <PhotoRoom v-if="edits.item && edits.photo" />
  <PanelsStation v-else />
</template>
