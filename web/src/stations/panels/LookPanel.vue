<script setup lang="ts">
// What is done to the ink beside its fill: opacity, line, shadow, tint,
// reflection, raised edge; and copying all of it to other things.
import { Switch } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Look } from '../../api/types'
import PanelSection from '../../parts/PanelSection.vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import ShareField from '../../parts/ShareField.vue'
import { useCard } from '../../store/card'
import ColourField from './ColourField.vue'
import { each } from './each'
import { first, parts, type Part } from './looks'

const card = useCard()
const wrong = ref('')
const items = computed(() => card.told.filter((it) => !it.role && !it.slot && !it.joined))
const ids = computed(() => items.value.map((it) => it.id))
const look = computed<Look>(() => (items.value[0] && card.doc(items.value[0].id)?.look) || {})
const printed = computed(() => items.value.every((it) => !it.piece))
const photos = computed(() => items.value.every((it) => it.kind === 'photo'))

const shown = computed(() =>
  (Object.keys(parts) as Part[]).filter(
    (p) => (p !== 'tint' || photos.value) && (printed.value || (p !== 'shadow' && p !== 'reflection')),
  ),
)
const fact = computed(
  () =>
    shown.value
      .filter((p) => look.value[p])
      .map((p) => parts[p].name.toLowerCase())
      .join(', ') || (look.value.clear ? 'seen through' : 'plain'),
)
const docs = computed(() => ids.value.map((id) => card.doc(id)).filter((d) => d !== undefined))
/** Changes what is named, on each of the chosen things; what else they look like stays. */
const set = (to: (own: Look) => Look) => {
  wrong.value = ''
  void card.change(
    ...each(
      docs.value,
      (it) => to(it.look ?? {}),
      (some, l) => ({ do: 'setLook', ids: some, look: l }),
    ),
  )
}
const toggle = (p: Part, on: boolean) => set((own) => ({ ...own, [p]: on ? (own[p] ?? first[p]) : undefined }))
type Value = number | string | boolean
const change = (p: Part, key: string, v: Value) =>
  set((own) => ({ ...own, [p]: { ...first[p], ...look.value[p], ...own[p], [key]: v } }))
const value = (p: Part, key: string) => (look.value[p] as Record<string, Value | undefined> | undefined)?.[key]

const copied = computed(() => card.lookFrom && card.doc(card.lookFrom))
const copy = () => (card.lookFrom = ids.value[0] ?? '')
const paste = () => void card.change({ do: 'pasteLook', from: card.lookFrom, ids: ids.value })
</script>

<template>
  <PanelSection v-if="items.length" id="look" title="Look" :fact="fact">
    <template #verbs>
      <span class="copying">
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
    </template>
    <div class="pair">
      <ShareField
        v-if="printed"
        label="Opacity"
        :value="Math.round((1 - (look.clear ?? 0)) * 100)"
        :min="5"
        testid="opacity"
        @set="set((own) => ({ ...own, clear: 1 - $event / 100 }))"
      />
    </div>
    <div v-for="p in shown" :key="p" class="part">
      <label>
        <Switch size="small" :checked="!!look[p]" :data-testid="'look-' + p" @change="(on) => toggle(p, on === true)" />
        {{ parts[p].name }}
      </label>
      <div v-if="look[p]" class="pair">
        <template v-for="s in parts[p].settings.filter((s) => printed || !s.printed)" :key="s.key">
          <MeasureField
            v-if="s.kind === 'length'"
            :label="s.label"
            :mm="Number(value(p, s.key) ?? 0)"
            :testid="`${p}-${s.key}`"
            @set="change(p, s.key, $event)"
            @wrong="wrong = $event"
          />
          <NumberField
            v-else-if="s.kind === 'angle'"
            :label="s.label"
            :value="Number(value(p, s.key))"
            sign="°"
            :testid="`${p}-${s.key}`"
            @set="change(p, s.key, $event)"
            @wrong="wrong = $event"
          />
          <ColourField
            v-else-if="s.kind === 'colour'"
            :label="s.label"
            :value="String(value(p, s.key))"
            :testid="`${p}-${s.key}`"
            @set="change(p, s.key, $event)"
          />
          <ShareField
            v-else-if="s.kind === 'share'"
            :label="s.label"
            :value="Math.round(Number(value(p, s.key)) * 100)"
            :min="s.least"
            :testid="`${p}-${s.key}`"
            @set="change(p, s.key, $event / 100)"
          />
          <Field v-else :label="s.label">
            <Switch
              size="small"
              :checked="!!value(p, s.key)"
              :data-testid="`${p}-${s.key}`"
              @change="(on) => change(p, s.key, on === true)"
            />
          </Field>
        </template>
      </div>
    </div>
    <small v-if="!printed">A cut piece throws its own shadow and lets nothing through.</small>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
.copying .verb {
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
</style>
