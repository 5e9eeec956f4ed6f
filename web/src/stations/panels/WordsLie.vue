<script setup lang="ts">
// The measures of how words lie: of their box, of their line, or how far they are bent.
import { Checkbox, Select, SelectOption } from 'ant-design-vue'
import { computed } from 'vue'
import type { SceneItem, TextBox, TextPath, Words } from '../../api/types'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import ShareField from '../../parts/ShareField.vue'

const props = defineProps<{ item: SceneItem; words: Words }>()
const emit = defineEmits<{ set: [part: (now: Words) => Partial<Words>]; wrong: [why: string] }>()

const box = computed(() => props.words.box)
const path = computed(() => props.words.path)
const setBox = (part: Partial<TextBox>) => emit('set', (now) => (now.box ? { box: { ...now.box, ...part } } : {}))
const setWarp = (amount: number) => emit('set', (now) => (now.warp ? { warp: { ...now.warp, amount } } : {}))
const setPath = (part: Partial<TextPath>) => emit('set', (now) => (now.path ? { path: { ...now.path, ...part } } : {}))
</script>

<template>
  <template v-if="box">
    <MeasureField
      label="Box wide"
      :mm="box.width"
      testid="box-width"
      @set="setBox({ width: $event })"
      @wrong="emit('wrong', $event)"
    />
    <MeasureField
      v-if="box.height"
      label="High"
      :mm="box.height"
      testid="box-height"
      @set="setBox({ height: $event })"
      @wrong="emit('wrong', $event)"
    />
    <button v-else class="verb" data-testid="box-limit" @click="setBox({ height: item.box.h })">Set a height</button>
    <Checkbox
      class="wide"
      :checked="box.fit"
      data-testid="box-fit"
      @change="setBox({ fit: $event.target.checked, height: box.height || item.box.h })"
      >Letters as large as fits</Checkbox
    >
    <Checkbox
      class="wide"
      :checked="!box.unwrapped"
      data-testid="box-wrap"
      @change="setBox({ unwrapped: !$event.target.checked })"
      >Lines break at its edge</Checkbox
    >
    <Checkbox
      v-if="!box.unwrapped"
      class="wide"
      :checked="box.hyphenate"
      data-testid="box-hyphens"
      @change="setBox({ hyphenate: $event.target.checked })"
      >Words are parted with hyphens</Checkbox
    >
  </template>
  <template v-else-if="path">
    <NumberField
      v-if="path.bend"
      label="Bends by"
      :value="path.bend"
      sign="°"
      testid="bend"
      @set="setPath({ bend: $event })"
      @wrong="emit('wrong', $event)"
    />
    <MeasureField
      v-else-if="path.radius"
      label="Radius"
      :mm="path.radius"
      testid="path-radius"
      @set="setPath({ radius: $event })"
      @wrong="emit('wrong', $event)"
    />
    <MeasureField
      label="Off it by"
      :mm="path.away ?? 0"
      :wide="!path.bend && !path.radius"
      testid="path-away"
      @set="setPath({ away: $event })"
      @wrong="emit('wrong', $event)"
    />
    <ShareField
      label="Shifted"
      :min="-50"
      :max="50"
      :value="(path.start ?? 0) * 100"
      testid="path-start"
      @set="setPath({ start: $event / 100 })"
    />
    <Field label="Letters" wide>
      <Select
        :value="path.letters ?? ''"
        :bordered="false"
        size="small"
        data-testid="path-letters"
        @change="(v) => setPath({ letters: v as TextPath['letters'] })"
      >
        <SelectOption value="">turn with the line</SelectOption>
        <SelectOption value="upright">stay upright</SelectOption>
        <SelectOption value="sheared">are sheared</SelectOption>
      </Select>
    </Field>
    <Checkbox
      v-if="!path.line"
      :checked="path.under"
      data-testid="path-under"
      @change="setPath({ under: $event.target.checked, turned: $event.target.checked })"
      >Below</Checkbox
    >
    <Checkbox :checked="path.turned" data-testid="path-turned" @change="setPath({ turned: $event.target.checked })"
      >Other side</Checkbox
    >
    <Checkbox
      v-if="!path.bend"
      class="wide"
      :checked="path.even"
      data-testid="path-even"
      @change="setPath({ even: $event.target.checked })"
      >Spread over the whole line</Checkbox
    >
  </template>
  <ShareField
    v-else-if="words.warp"
    label="Bent by"
    :min="-100"
    :max="100"
    :value="words.warp.amount * 100"
    testid="warp-amount"
    @set="$event && setWarp($event / 100)"
  />
</template>

<style scoped>
.wide {
  grid-column: 1 / 3;
}
</style>
