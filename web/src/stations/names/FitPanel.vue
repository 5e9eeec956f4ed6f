<script setup lang="ts">
// How the letters of each name fit where the words stand.
import { Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import Field from '../../parts/Field.vue'
import NumberField from '../../parts/NumberField.vue'
import { useCard } from '../../store/card'
import { useLettering } from './useLettering'

const card = useCard()
const { one } = useLettering()
const wrong = ref('')
const POINT = 25.4 / 72

const words = computed(() => one.value?.words)
const box = computed(() => words.value?.box)
const bent = computed(() => !!(words.value?.path || words.value?.warp))
const how = computed(() => (box.value?.fit ? 'fit' : 'set'))
function choose(v: unknown) {
  if (!one.value || v === how.value) return
  if (v === 'fit') void card.change({ do: 'fitNames', id: one.value.id })
  else if (words.value?.box) setBox({ fit: false })
}
function setBox(part: object) {
  const w = words.value
  if (one.value && w?.box)
    void card.change({ do: 'setWords', id: one.value.id, words: { ...w, box: { ...w.box, ...part } } })
}
</script>

<template>
  <section v-if="words?.fields?.length" class="sec" data-testid="fit">
    <h3>Fit</h3>
    <p v-if="bent" class="note">Words that do not stand in straight lines keep the size that they have.</p>
    <div v-else class="pair">
      <Field label="Size" wide>
        <Select :value="how" :bordered="false" size="small" data-testid="fit-how" @change="choose">
          <SelectOption value="fit">each as large as fits</SelectOption>
          <SelectOption value="set">all as they are set</SelectOption>
        </Select>
      </Field>
      <template v-if="box?.fit">
        <NumberField
          label="At least"
          :value="(box.least ?? 0) / POINT"
          sign=" pt"
          testid="fit-least"
          @set="setBox({ least: $event * POINT })"
          @wrong="wrong = $event"
        />
        <NumberField
          v-if="box.most"
          label="At most"
          :value="box.most / POINT"
          sign=" pt"
          testid="fit-most"
          @set="setBox({ most: $event * POINT })"
          @wrong="wrong = $event"
        />
        <NumberField
          label="Lines"
          :value="box.lines ?? 0"
          :digits="0"
          testid="fit-lines"
          @set="setBox({ lines: Math.round($event) })"
          @wrong="wrong = $event"
        />
      </template>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
.note {
  margin: 0;
  color: var(--ink5);
  font-size: 12px;
}
</style>
