<script setup lang="ts">
// All cards onto sheets, and how many of them are cut.
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { NameRow } from '../../api/types'
import { useCard } from '../../store/card'
import { useNames } from '../../store/names'

const card = useCard()
const names = useNames()
const router = useRouter()
const laid = computed(() => !!names.list?.laid)
const next = computed(() => (names.view?.next ? names.called(names.view.next) : ''))

async function layAll() {
  if (!laid.value) await card.change({ do: 'layNames', all: true })
  if (names.list?.laid) void router.push(`/cards/${card.id}/sheets`)
}
const stage = (r: NameRow) => names.stateOf(r.id)?.stage ?? ''
/** Those that are cut need no paper any more. */
function leaveCut() {
  void card.change(...names.cut.map((r) => ({ do: 'setRow' as const, row: r.id, out: true })))
}
</script>

<template>
  <footer class="bar">
    <Button type="primary" size="large" :disabled="!names.made.length" data-testid="lay-all" @click="layAll">
      {{ laid ? 'To the sheets' : 'Lay all on sheets' }}
    </Button>
    <div v-if="laid" class="far" data-testid="cut-so-far">
      <p>
        <b>Cut so far: {{ names.cut.length }} of {{ names.made.length }}</b>
        <button
          v-if="names.cut.length && names.cut.length < names.made.length"
          class="verb"
          data-testid="leave-cut"
          @click="leaveCut"
        >
          Leave out what is cut
        </button>
        <span v-if="next">next: {{ next }}</span>
        <span v-else-if="names.cut.length">all are cut</span>
      </p>
      <div class="steps">
        <i
          v-for="r in names.made"
          :key="r.id"
          :class="stage(r) || (r.id === names.view?.next ? 'next' : '')"
          :title="names.called(r.id)"
        />
      </div>
    </div>
    <p v-else class="hint">
      One card is laid on sheets now, that of {{ names.called(names.list?.shown ?? '') }}: good for a trial.
    </p>
    <button v-if="laid" class="verb" data-testid="lay-one" @click="card.change({ do: 'layNames', all: false })">
      Lay one card only
    </button>
  </footer>
</template>

<style scoped>
.bar {
  flex: none;
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 88px;
  padding: 12px 18px;
  background: var(--paper2);
  border-top: 1px solid var(--paper3);
}
.far {
  flex: 1;
  min-width: 0;
}
p {
  margin: 0;
}
.far p {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 28px;
}
.far b {
  font-weight: 600;
  white-space: nowrap;
}
.bar > .verb,
.far .verb {
  white-space: nowrap;
}
.far span {
  margin-left: auto;
  color: var(--ink7);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.hint {
  color: var(--ink7);
}
.steps {
  display: flex;
  gap: 2px;
  margin-top: 6px;
}
.steps i {
  flex: 1;
  height: 11px;
  border-radius: 2px;
  background: var(--paper3);
}
.steps i.cut {
  background: var(--moss);
}
.steps i.part,
.steps i.cutting {
  background: var(--honey);
}
.steps i.next {
  background: var(--brick);
}
</style>
