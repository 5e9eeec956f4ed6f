<script setup lang="ts">
// How words lie: in straight lines, in a box, along a line or bent.
import { Select, SelectOption } from 'ant-design-vue'
import { computed } from 'vue'
import type { LayWords, SceneItem, Words } from '../../api/types'
import Field from '../../parts/Field.vue'
import { lieNames } from '../../parts/names'
import { useCard } from '../../store/card'

const props = defineProps<{ item: SceneItem; words: Words }>()
const card = useCard()

const lie = computed<LayWords['lie']>(() => {
  const { box, path, warp } = props.words
  if (box) return 'box'
  if (warp) return warp.form
  if (!path) return 'straight'
  return path.line ? 'line' : path.bend ? 'arc' : 'circle'
})
/** Along a line they are laid by a verb, for which the line is chosen too. */
const lies = computed(() =>
  (Object.keys(lieNames) as LayWords['lie'][]).filter((l) => l !== 'line' || lie.value === 'line'),
)
const lay = (l: LayWords['lie']) => l !== lie.value && void card.change({ do: 'layWords', id: props.item.id, lie: l })
</script>

<template>
  <Field label="Lies">
    <Select
      :value="lie"
      :bordered="false"
      size="small"
      :list-height="320"
      :dropdown-match-select-width="false"
      data-testid="lie"
      @change="(v) => lay(v as LayWords['lie'])"
    >
      <SelectOption v-for="l in lies" :key="l" :value="l">{{ lieNames[l] }}</SelectOption>
    </Select>
  </Field>
</template>
