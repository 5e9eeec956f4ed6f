<script setup lang="ts">
// What the card is sent in; of an envelope, the card that it is made for and its liner.
import { message } from 'ant-design-vue'
import { computed } from 'vue'
import { api } from '../../api/client'
import { useEnvelope } from '../../parts/useEnvelope'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useFold } from '../../store/fold'
import { usePrefs } from '../../store/prefs'

const emit = defineEmits<{ size: [width: number, height: number] }>()
const card = useCard()
const catalogue = useCatalogue()
const fold = useFold()
const prefs = usePrefs()
const { envelope, goTo } = useEnvelope()

const base = computed(() => card.view!.card.base)
const tied = computed(() => fold.view?.tied)
const toMeasure = computed(
  () => !tied.value || (tied.value.width === base.value.width && tied.value.height === base.value.height),
)
async function untie() {
  try {
    await api.untie(card.id)
    await fold.again()
  } catch (e) {
    void message.warning(e instanceof Error ? e.message : String(e))
  }
}
</script>

<template>
  <template v-if="base.kind === 'envelope'">
    <section v-if="tied" class="sec" data-testid="envelope-for">
      <h3>Made for</h3>
      <p>
        “{{ tied.title }}”, which needs <span class="whole">{{ prefs.size(tied.width, tied.height) }}</span>.
        {{ toMeasure ? 'It follows that card.' : 'It is another size now.' }}
      </p>
      <button
        v-if="!toMeasure"
        class="verb make"
        data-testid="to-measure"
        @click="emit('size', tied.width, tied.height)"
      >
        Make it to measure
      </button>
      <button class="verb make" data-testid="to-its-card" @click="goTo(tied.id)">Go to the card</button>
      <button class="verb make" data-testid="untie" @click="untie">Let it be on its own</button>
    </section>
    <section class="sec">
      <h3>Liner</h3>
      <p>Patterned paper for the middle and the flap, a little smaller than both.</p>
      <button
        class="verb make"
        data-testid="add-liner"
        @click="card.change({ do: 'addLiner', stock: catalogue.all.first.paper, paper: 'leaf-drift' })"
      >
        Lay a liner in
      </button>
    </section>
  </template>
  <section v-else-if="fold.view" class="sec" data-testid="sending">
    <h3>Envelope</h3>
    <p>
      {{ fold.view.sending.trade ? `${fold.view.sending.trade} fits` : 'No trade envelope fits closely' }}; made to
      measure <span class="whole">{{ prefs.size(fold.view.sending.width, fold.view.sending.height) }}</span>
    </p>
    <button class="verb make" data-testid="make-envelope" @click="envelope">
      {{ tied ? 'Go to its envelope' : 'Make the envelope' }}
    </button>
  </section>
</template>

<style scoped>
.make {
  display: block;
  margin-left: -8px;
  color: var(--brick);
}
.sec p {
  margin: 0 0 4px;
}
.whole {
  white-space: nowrap;
}
</style>
