<script setup lang="ts">
// The tool in the hand, over the face, and the choice of tools below it.
import { computed } from 'vue'
import type { SceneItem } from '../api/types'
import type { Matrix, Pt } from '../parts/geom'
import { useTool } from '../store/tool'
import CropTool from './CropTool.vue'
import DrawTool from './DrawTool.vue'
import GapTool from './GapTool.vue'
import PlaceTool from './PlaceTool.vue'
import PickTool from './PickTool.vue'
import PointsTool from './PointsTool.vue'
import RulerTool from './RulerTool.vue'
import ToolBar from './ToolBar.vue'
import type { Overlay } from './overlay'

defineProps<{
  overlay: Overlay
  /** The one item that is selected, and where it is shown. */
  one: SceneItem | undefined
  at: Matrix | undefined
  itemUnder: (p: Pt) => string | undefined
}>()
const tool = useTool()
const over = computed(
  () =>
    ({
      ruler: RulerTool,
      gap: GapTool,
      draw: DrawTool,
      rub: DrawTool,
      pick: PickTool,
      place: PlaceTool,
      points: PointsTool,
      crop: undefined,
      choose: undefined,
    })[tool.tool],
)
</script>

<template>
  <component :is="over" v-if="over" v-bind="overlay" />
  <CropTool
    v-else-if="tool.tool === 'crop' && one?.picture && at"
    :key="one.id"
    :item="one"
    :at="at"
    :local="overlay.local"
    :item-at="itemUnder"
  />
  <ToolBar />
</template>
