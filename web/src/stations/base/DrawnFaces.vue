<script setup lang="ts">
// The faces of a base from a drawing: of each panel that has faces, what both of its sides are called and
// how they are turned.
import { Input } from 'ant-design-vue'
import type { DrawingLeaf } from '../../api/types'

const { leaves } = defineProps<{ leaves: DrawingLeaf[] }>()
const emit = defineEmits<{ change: [leaves: DrawingLeaf[]] }>()

const sides = [
  { name: 'outside', turn: 'outsideTurn', label: 'Outside' },
  { name: 'inside', turn: 'insideTurn', label: 'Inside' },
] as const
const put = (i: number, part: Partial<DrawingLeaf>) =>
  emit(
    'change',
    leaves.map((l, k) => (k === i ? { ...l, ...part } : l)),
  )
const first = (i: number) => emit('change', [leaves[i]!, ...leaves.filter((_, k) => k !== i)])
</script>

<template>
  <div v-for="(l, i) in leaves" :key="i" class="leaf">
    <b>{{ i + 1 }}</b>
    <template v-for="s in sides" :key="s.name">
      <Input
        :value="l[s.name]"
        size="small"
        :maxlength="120"
        :aria-label="`${s.label} of panel ${i + 1}`"
        :data-testid="`drawn-${s.name}-${i}`"
        @change="(e) => put(i, { [s.name]: e.target.value ?? '' })"
      />
      <button class="verb" :title="`Turned ${l[s.turn]}°`" @click="put(i, { [s.turn]: (l[s.turn] + 90) % 360 })">
        {{ l[s.turn] }}°
      </button>
    </template>
    <button v-if="i" class="verb" @click="first(i)">Make it 1</button>
  </div>
</template>

<style scoped>
.leaf {
  display: grid;
  grid-template-columns: 14px 1fr 40px 1fr 40px 66px;
  gap: 3px;
  align-items: center;
  margin-bottom: 5px;
}
.verb {
  padding: 2px 4px;
}
</style>
