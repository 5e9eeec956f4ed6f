<script setup lang="ts">
// What is selected and what can be done with it, in words.
import { computed, ref } from 'vue'
import NameInput from '../../parts/NameInput.vue'
import { roleLook, roleNames } from '../../parts/lines'
import { useCard } from '../../store/card'
import { usePoints } from '../../store/points'
import { usePrefs } from '../../store/prefs'
import ArrangeDialog from './ArrangeDialog.vue'
import CombineVerbs from './CombineVerbs.vue'
import MatDialog from './MatDialog.vue'
import OutlineDialog from './OutlineDialog.vue'
import RepeatDialog from './RepeatDialog.vue'
import SketchDialog from './SketchDialog.vue'
import TiersDialog from './TiersDialog.vue'

defineEmits<{
  rename: [id: string]
  edit: [id: string]
  duplicate: []
  remove: []
  step: [up: boolean]
  group: []
}>()
const card = useCard()
const prefs = usePrefs()
const points = usePoints()

const one = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const title = computed(() => (card.told.length ? `${card.told.length} items` : (card.face?.name ?? '')))
const naming = ref(false)
function nameGroup(name: string | undefined) {
  naming.value = false
  if (name && card.group) void card.change({ do: 'nameGroup', face: card.faceId, id: card.group.id, name })
}
/** Words, and the one other thing that is chosen with them. */
const along = computed(() => {
  const words = card.told.find((it) => it.kind === 'lettering')
  const to = card.told.find((it) => it !== words)
  return words && to && card.told.length === 2 ? { words, to } : undefined
})
const how = computed(() => {
  const it = one.value
  if (!it) return undefined
  if (it.role) return { text: roleNames[it.role].toLowerCase(), colour: it.fill.colour ?? roleLook[it.role].stroke }
  const whole = card.items.get(it.on ?? '')
  if (it.joined === 'trims') return { text: 'trims', colour: undefined }
  if (it.joined && whole) {
    return { text: it.joined === 'carved' ? 'carved out' : 'welded on', colour: whole.ground }
  }
  const text = it.kind === 'mat' ? 'mat' : it.piece ? 'cut piece' : 'printed'
  return { text, colour: it.piece ? it.ground : (it.fill.colour ?? it.fill.gradient?.stops[0]?.colour) }
})
</script>

<template>
  <div class="verbs" :class="{ full: one?.kind === 'lettering', one }">
    <button
      class="verb fold"
      :aria-pressed="!prefs.leftOpen"
      :aria-label="prefs.leftOpen ? 'Fold the left column away' : 'Unfold the left column'"
      @click="prefs.leftOpen = !prefs.leftOpen"
    >
      <svg width="8" height="12" viewBox="0 0 8 12">
        <path
          :d="prefs.leftOpen ? 'M6.5 1l-5 5 5 5' : 'M1.5 1l5 5-5 5'"
          fill="none"
          stroke="currentColor"
          stroke-width="1.6"
        />
      </svg>
    </button>
    <NameInput
      v-if="naming && card.group"
      class="naming"
      :value="card.group.name"
      label="Name of the group"
      data-testid="group-name"
      @done="nameGroup"
    />
    <button
      v-else-if="card.group"
      class="bare name"
      title="Give it another name"
      data-testid="selected-name"
      @click="naming = true"
    >
      {{ card.group.name }}
    </button>
    <b v-else-if="!one" data-testid="selected-name">{{ title }}</b>
    <button
      v-else
      class="bare name"
      title="Give it another name"
      data-testid="selected-name"
      @click="$emit('rename', one.id)"
    >
      {{ one.name }}
    </button>
    <span v-if="how" class="chip"><i :style="{ background: how.colour }" />{{ how.text }}</span>
    <template v-if="card.told.length">
      <span class="sep" />
      <ArrangeDialog />
      <RepeatDialog />
      <CombineVerbs v-if="card.told.length > 1" />
      <button
        v-if="along"
        class="verb"
        :title="`Lay the words along the outline of ${along.to.name}`"
        data-testid="lay-along"
        @click="card.change({ do: 'layWords', id: along.words.id, lie: 'line', along: along.to.id })"
      >
        Lay along
      </button>
      <OutlineDialog v-if="one?.kind !== 'photo'" />
      <MatDialog />
      <TiersDialog />
      <button v-if="card.told.length > 1" class="verb" data-testid="group" @click="$emit('group')">
        {{ card.group ? 'Ungroup' : 'Group' }}
      </button>
      <button v-if="one?.kind === 'lettering'" class="verb" @click="$emit('edit', one.id)">Edit words</button>
      <button
        v-if="one && (one.kind === 'shape' || one.kind === 'paper' || one.kind === 'drawing' || one.kind === 'photo')"
        class="verb"
        :disabled="one.locked"
        title="Change single points of its outline (Enter)"
        data-testid="points-verb"
        @click="points.open(one.id)"
      >
        Points
      </button>
      <button
        v-if="one?.kind === 'lettering' && !one.piece && !one.joined && one.on"
        class="verb"
        :title="`Carve the words out of ${card.items.get(one.on)?.name}, for as long as they lie there`"
        data-testid="carve-words"
        @click="card.change({ do: 'setMade', ids: [one.id], made: { as: 'carved' } })"
      >
        Carve out
      </button>
      <button class="verb" data-testid="duplicate" @click="$emit('duplicate')">Duplicate</button>
      <button class="verb" data-testid="remove" @click="$emit('remove')">Remove</button>
      <template v-if="one">
        <span class="sep steps" />
        <button
          class="verb steps"
          title="One step up in the stack ( ] )"
          data-testid="step-up"
          @click="$emit('step', true)"
        >
          Step up
        </button>
        <button
          class="verb steps"
          title="One step down in the stack ( [ )"
          data-testid="step-down"
          @click="$emit('step', false)"
        >
          Step down
        </button>
      </template>
    </template>
    <template v-else>
      <span class="hint">Choose something to change it, or drag something up from the tray</span>
      <span class="space" />
      <SketchDialog />
    </template>
  </div>
</template>

<style scoped>
.chip i {
  width: 12px;
  height: 12px;
  border-radius: 6px;
  box-shadow: inset 0 0 0 1px #0003;
}
.fold {
  padding: 5px 6px;
  margin-left: -6px;
}
.fold[aria-pressed='true'] {
  background: none;
}
.naming {
  width: 180px;
  height: 26px;
  padding: 0 8px;
  border: 1px solid var(--blue);
  border-radius: 4px;
  font: 600 13px 'Figtree Variable';
}
.name {
  padding: 0 8px;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
}
.hint {
  color: var(--ink5);
  font-size: 12px;
  padding-left: 8px;
  overflow: hidden;
  text-overflow: ellipsis;
}
/* The name comes before the steps, which keys and the stack have too. */
@media (max-width: 1340px) {
  .one .steps {
    display: none;
  }
}
@media (max-width: 1150px) {
  .steps {
    display: none;
  }
  .verbs {
    gap: 0;
    padding: 0 6px 0 12px;
  }
  .verbs :deep(.verb) {
    padding: 5px;
    font-size: 12px;
  }
  .verbs b {
    flex: none;
    padding: 0 4px;
  }
  .sep {
    margin: 0 3px;
  }
  .full .chip,
  .full .sep {
    display: none;
  }
}
</style>
