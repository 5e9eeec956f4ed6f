<script setup lang="ts">
// Whether the base folds, and what of that which lies on it would spoil it.
import { computed, watch } from 'vue'
import { useCard } from '../../store/card'
import { useFold } from '../../store/fold'
import { usePrefs } from '../../store/prefs'
import ClosedEdge from './ClosedEdge.vue'

const card = useCard()
const fold = useFold()
const prefs = usePrefs()
// What lies on the base is looked at again whenever something has changed.
watch(
  () => card.view?.revision,
  () => void fold.load(),
  { immediate: true },
)

/** Whether the card folds at all. */
const found = computed(() => fold.view?.findings.filter((f) => !f.left) ?? [])
const folds = computed(() => card.view!.scene.net.lines.length > 0)
const closed = computed(() => card.view!.scene.net.closed)
const thick = computed(() => `${card.view!.scene.thickness.toFixed(1)} mm thick`)
const waiting = computed(() => Object.entries(fold.view?.waiting ?? {}).reduce((n, [, k]) => n + k, 0))

const faceName = (id: string) => card.view?.scene.faces.find((f) => f.id === id)?.name ?? id
</script>

<template>
  <section v-if="fold.view" class="sec" data-testid="verdict">
    <h3>{{ folds ? 'Does it fold?' : 'Is it sound?' }}</h3>
    <ul>
      <li v-for="w in fold.view.verdict.why" :key="w" class="no">{{ prefs.said(w) }}</li>
      <li v-if="folds && fold.view.verdict.folds" class="yes">
        All panels meet at every opening<small>largest gap {{ fold.view.verdict.gap.toFixed(2) }} mm</small>
      </li>
      <li v-if="folds && fold.view.verdict.folds && fold.view.verdict.flat" class="yes">
        Folds flat<small>{{ prefs.size(closed.w, closed.h) }}, {{ thick }}</small>
      </li>
      <li v-if="!found.some((f) => f.weight === 'stop')" class="yes">
        {{ folds ? 'Closes with everything that is on it' : `Nothing sticks out; ${thick}` }}
      </li>
      <li v-for="f in found" :key="f.item + f.why" :class="f.weight === 'stop' ? 'no' : 'note'" data-testid="finding">
        {{ prefs.said(f.why) }}
        <small v-if="f.item">on {{ faceName(f.face) }}</small>
        <button
          v-for="m in f.mends"
          :key="m.says"
          class="mend"
          data-testid="mend"
          @click="card.change(...(m.do ?? []))"
        >
          {{ prefs.said(m.says) }}
        </button>
      </li>
      <li v-if="waiting" class="note">
        {{ waiting === 1 ? '1 item waits' : `${waiting} items wait` }} on faces that this base does not have; they are
        there again with a base that has them.
      </li>
    </ul>
    <ClosedEdge
      v-if="folds && fold.view.verdict.folds"
      :edge="fold.view.edge"
      :panels="fold.view.panels"
      :name="faceName"
      :layers="fold.view.layers"
    />
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  position: relative;
  padding: 3px 0 3px 20px;
}
li::before {
  position: absolute;
  left: 2px;
  font-weight: 700;
}
.yes::before {
  content: '✓';
  color: var(--moss);
}
.no::before {
  content: '×';
  color: var(--stop);
}
.no {
  color: var(--stop);
}
.note::before {
  content: '•';
  color: var(--ink5);
}
</style>
