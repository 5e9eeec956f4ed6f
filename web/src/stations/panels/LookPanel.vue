<script setup lang="ts">
// What is done to the ink beside its fill: opacity, line, shadow, tint,
// reflection, raised edge; and copying all of it to other things.
import { Switch } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Look } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import ShareField from '../../parts/ShareField.vue'
import { useCard } from '../../store/card'
import ColourField from './ColourField.vue'

const card = useCard()
const wrong = ref('')
const items = computed(() => card.selected.filter((it) => !it.role && !it.slot))
const ids = computed(() => items.value.map((it) => it.id))
const look = computed<Look>(() => (items.value[0] && card.doc(items.value[0].id)?.look) || {})
const printed = computed(() => items.value.every((it) => !it.piece))
const photos = computed(() => items.value.every((it) => it.kind === 'photo'))

/** What each part is when it is first turned on. */
const first: Required<Omit<Look, 'clear'>> = {
  line: { colour: '#1f2b38', width: 0.5 },
  shadow: { distance: 1.2, angle: 60, blur: 0.9, opacity: 0.35, colour: '#3a2a18' },
  tint: { colour: '#b9770e', strength: 0.4 },
  reflection: { gap: 0.5, length: 0.5, opacity: 0.4 },
  raised: { width: 1.6, strength: 0.5 },
}
type Part = keyof typeof first
const names: Record<Part, string> = {
  line: 'Line',
  shadow: 'Shadow',
  tint: 'Tint',
  reflection: 'Reflection',
  raised: 'Raised edge',
}
const parts = computed(() =>
  (Object.keys(first) as Part[]).filter(
    (p) => (p !== 'tint' || photos.value) && (printed.value || (p !== 'shadow' && p !== 'reflection')),
  ),
)
const set = (l: Look) => {
  wrong.value = ''
  void card.change({ do: 'setLook', ids: ids.value, look: l })
}
const toggle = (p: Part, on: boolean) => set({ ...look.value, [p]: on ? first[p] : undefined })
const part = <P extends Part>(p: P, change: Partial<Look[P]>) =>
  set({ ...look.value, [p]: { ...first[p], ...look.value[p], ...change } })

const copied = computed(() => card.lookFrom && card.doc(card.lookFrom))
const copy = () => (card.lookFrom = ids.value[0] ?? '')
const paste = () => void card.change({ do: 'pasteLook', from: card.lookFrom, ids: ids.value })
</script>

<template>
  <section v-if="items.length" class="sec" data-testid="look">
    <header>
      <h3>Look</h3>
      <span>
        <button class="verb" title="Copy fill and look" data-testid="copy-look" @click="copy">Copy</button>
        <button
          class="verb"
          :disabled="!copied"
          :title="copied ? 'As ' + copied.name + ' looks' : 'Copy a look first'"
          data-testid="paste-look"
          @click="paste"
        >
          Paste
        </button>
      </span>
    </header>
    <div class="pair">
      <ShareField
        v-if="printed"
        label="Opacity"
        :value="Math.round((1 - (look.clear ?? 0)) * 100)"
        :min="5"
        testid="opacity"
        @set="set({ ...look, clear: 1 - $event / 100 })"
      />
    </div>
    <div v-for="p in parts" :key="p" class="part">
      <label>
        <Switch size="small" :checked="!!look[p]" :data-testid="'look-' + p" @change="(on) => toggle(p, on === true)" />
        {{ names[p] }}
      </label>
      <div v-if="look[p]" class="pair">
        <template v-if="p === 'line' && look.line">
          <MeasureField
            label="Wide"
            :mm="look.line.width"
            testid="line-width"
            @set="part('line', { width: $event })"
            @wrong="wrong = $event"
          />
          <ColourField
            label="Ink"
            :value="look.line.colour"
            testid="line-colour"
            @set="part('line', { colour: $event })"
          />
          <label class="dashed"
            ><Switch
              size="small"
              :checked="!!look.line.dashed"
              data-testid="line-dashed"
              @change="(on) => part('line', { dashed: on === true })"
            />
            dashed</label
          >
        </template>
        <template v-else-if="p === 'shadow' && look.shadow">
          <MeasureField
            label="Away"
            :mm="look.shadow.distance"
            testid="shadow-distance"
            @set="part('shadow', { distance: $event })"
            @wrong="wrong = $event"
          />
          <NumberField
            label="Angle"
            :value="look.shadow.angle"
            sign="°"
            testid="shadow-angle"
            @set="part('shadow', { angle: $event })"
            @wrong="wrong = $event"
          />
          <MeasureField
            label="Soft"
            :mm="look.shadow.blur"
            testid="shadow-blur"
            @set="part('shadow', { blur: $event })"
            @wrong="wrong = $event"
          />
          <ColourField
            label="Ink"
            :value="look.shadow.colour"
            testid="shadow-colour"
            @set="part('shadow', { colour: $event })"
          />
          <ShareField
            label="Strength"
            :value="Math.round(look.shadow.opacity * 100)"
            testid="shadow-opacity"
            @set="part('shadow', { opacity: $event / 100 })"
          />
        </template>
        <template v-else-if="p === 'tint' && look.tint">
          <ColourField
            label="Toward"
            wide
            :value="look.tint.colour"
            testid="tint-colour"
            @set="part('tint', { colour: $event })"
          />
          <ShareField
            label="Strength"
            :value="Math.round(look.tint.strength * 100)"
            testid="tint-strength"
            @set="part('tint', { strength: $event / 100 })"
          />
        </template>
        <template v-else-if="p === 'reflection' && look.reflection">
          <MeasureField
            label="Below by"
            wide
            :mm="look.reflection.gap"
            testid="reflection-gap"
            @set="part('reflection', { gap: $event })"
            @wrong="wrong = $event"
          />
          <ShareField
            label="Seen"
            :value="Math.round(look.reflection.length * 100)"
            :min="5"
            testid="reflection-length"
            @set="part('reflection', { length: $event / 100 })"
          />
          <ShareField
            label="Strength"
            :value="Math.round(look.reflection.opacity * 100)"
            :min="2"
            testid="reflection-opacity"
            @set="part('reflection', { opacity: $event / 100 })"
          />
        </template>
        <template v-else-if="p === 'raised' && look.raised">
          <MeasureField
            label="Wide"
            wide
            :mm="look.raised.width"
            testid="raised-width"
            @set="part('raised', { width: $event })"
            @wrong="wrong = $event"
          />
          <ShareField
            label="Strength"
            :value="Math.round(look.raised.strength * 100)"
            testid="raised-strength"
            @set="part('raised', { strength: $event / 100 })"
          />
        </template>
      </div>
    </div>
    <small v-if="!printed">A cut piece throws its own shadow and lets nothing through.</small>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
header .verb {
  padding: 2px 6px;
}
.part label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 26px;
}
.part .pair {
  margin: 3px 0 8px;
}
.part .dashed {
  grid-column: 1 / 3;
}
</style>
