<script setup lang="ts">
// The plain forms that a ragged outline was meant to be, how far each is off, and taking one.
import { Button } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Fault } from '../../api/client'
import type { Command, PlainForm } from '../../api/types'
import PanelSection from '../../parts/PanelSection.vue'
import { useCard } from '../../store/card'
import { usePrefs } from '../../store/prefs'
import { useTrial } from './useTrial'

const card = useCard()
const prefs = usePrefs()
const wrong = ref('')
const looking = ref(false)
const found = shallowRef<PlainForm[]>()

const one = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const doc = computed(() => (one.value ? card.doc(one.value.id) : undefined))
const drawn = computed(
  () => !doc.value?.byHand && (doc.value?.form?.outline === 'free' || doc.value?.photo?.opening?.outline === 'free'),
)
watch(
  () => [one.value?.id, one.value?.outline],
  () => {
    found.value = undefined
    wrong.value = ''
    hovered.value = undefined
  },
)

const counted: Record<number, string> = { 3: 'Triangle', 5: 'Pentagon', 6: 'Hexagon', 7: 'Heptagon', 8: 'Octagon' }
const names = { rectangle: 'Rectangle', rounded: 'Rounded rectangle', circle: 'Circle', ellipse: 'Ellipse' }
const name = (f: PlainForm) => {
  if (f.kind === 'star') return `Star of ${f.points} tips`
  return f.kind === 'polygon' ? (counted[f.points ?? 0] ?? '') : names[f.kind]
}

async function look() {
  const id = one.value!.id
  looking.value = true
  try {
    const forms = await api.plainForms(card.view!.id, id)
    if (one.value?.id === id) found.value = forms.slice(0, 4)
  } catch (e) {
    wrong.value = e instanceof Fault ? e.message : String(e)
  }
  looking.value = false
}

/** The form that is pointed at is seen on the face. */
const hovered = ref<PlainForm>()
const trying = computed(() => !!hovered.value)
const take = (f: PlainForm): Command => ({ do: 'takeForm', id: one.value?.id ?? '', kind: f.kind })
const refused = useTrial(trying, () => (hovered.value && one.value ? take(hovered.value) : undefined))
async function choose(f: PlainForm) {
  hovered.value = undefined
  await card.change(take(f))
}
</script>

<template>
  <PanelSection v-if="one && drawn" id="plain-form" title="Plain form" fact="instead of what is ragged">
    <Button v-if="!found" block :loading="looking" data-testid="find-forms" @click="look">Find the plain form</Button>
    <ul v-else data-testid="plain-forms">
      <li v-for="f in found" :key="f.kind">
        <button
          :data-testid="'form-' + f.kind"
          @pointerenter="hovered = f"
          @pointerleave="hovered = undefined"
          @focus="hovered = f"
          @blur="hovered = undefined"
          @click="choose(f)"
        >
          <b>{{ name(f) }}</b>
          <span>{{ prefs.lenUnit(f.worst) }} off at most</span>
        </button>
      </li>
    </ul>
    <p v-if="wrong || refused" class="wrong" role="alert">{{ wrong || refused }}</p>
  </PanelSection>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li button {
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 5px 8px;
  border: 0;
  border-radius: 4px;
  background: none;
  font: inherit;
  cursor: pointer;
}
li button:hover,
li button:focus-visible {
  background: var(--paper2);
}
li b {
  font-weight: 550;
}
li span {
  color: var(--ink5);
}
</style>
