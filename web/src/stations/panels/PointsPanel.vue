<script setup lang="ts">
// What can be done with the points that are chosen, and with the whole outline.
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'
import MeasureField from '../../parts/MeasureField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { INCH } from '../../parts/measure'
import { usePoints } from '../../store/points'
import { useTool } from '../../store/tool'

const points = usePoints()
const tool = useTool()
const wrong = ref('')
const radius = ref(INCH / 8)
const tolerance = ref(0.2)

const some = computed(() => points.chosen.length > 0)
const which = computed(() => {
  const n = points.chosen.length
  if (!n) return `${points.count} points: choose one, or several in a frame.`
  const one = points.node(points.chosen[0]!)
  if (n === 1) return `${one?.smooth ? 'A smooth point' : 'A corner'} of ${points.count} points`
  return `${n} of ${points.count} points`
})
</script>

<template>
  <PanelSection v-if="tool.tool === 'points'" id="points" title="Points" :fact="`${points.count} points`">
    <template #verbs>
      <button class="verb" data-testid="points-done" @click="points.close">Done</button>
    </template>
    <p class="which" data-testid="points-which">{{ which }}</p>
    <div class="pair">
      <Button :disabled="!some" data-testid="points-smooth" title="(S)" @click="points.bend('smooth')">Smooth</Button>
      <Button :disabled="!some" data-testid="points-corner" title="(S)" @click="points.bend('corner')">Corner</Button>
      <Button
        :disabled="!some"
        data-testid="points-straight"
        title="The part after each point"
        @click="points.bend('straight')"
        >Straighten</Button
      >
      <Button
        :disabled="!some"
        data-testid="points-curved"
        title="The part after each point"
        @click="points.bend('curved')"
        >Bend</Button
      >
      <Button :disabled="!some" data-testid="points-add" title="After it (+)" @click="points.add()">Add one</Button>
      <Button :disabled="!some" data-testid="points-remove" title="(Delete)" @click="points.remove()">Remove</Button>
      <template v-if="points.lines">
        <Button :disabled="points.chosen.length !== 2" data-testid="points-join" @click="points.join">Join ends</Button>
        <Button :disabled="points.chosen.length !== 1" data-testid="points-split" @click="points.split">Split</Button>
      </template>
      <MeasureField
        label="Radius"
        :mm="radius"
        testid="points-radius"
        @set="((radius = $event), (wrong = ''))"
        @wrong="wrong = $event"
      />
      <Button :disabled="!some" data-testid="points-round" @click="points.round(radius)">Round it</Button>
      <MeasureField
        label="Within"
        :mm="tolerance"
        testid="points-tolerance"
        @set="((tolerance = $event), (wrong = ''))"
        @wrong="wrong = $event"
      />
      <Button data-testid="points-simplify" title="Fewer points, none farther off" @click="points.simplify(tolerance)"
        >Simplify</Button
      >
    </div>
    <p v-if="points.crosses" class="hint" data-testid="points-cross">
      It crosses itself: that is cleaned when you are done.
    </p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.which {
  margin: 0 0 8px;
  color: var(--ink5);
}
.hint {
  margin: 8px 0 0;
  font-size: 12px;
}
</style>
