<script setup lang="ts">
// What a person changes of the guide: a step in other words, left out, done together with the one before,
// earlier or later, or one of her own.
import { Button, Popover } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { AssemblyStep, StepChange } from '../../api/types'
import { usePopover } from '../../parts/usePopover'
import { useAssembly } from '../../store/assembly'
import { useCard } from '../../store/card'

const props = defineProps<{ step: AssemblyStep; at: number }>()
const emit = defineEmits<{ chosen: [id: string] }>()
const card = useCard()
const assembly = useAssembly()

/** What was changed of the step before. */
const was = computed<StepChange>(
  () => card.view?.card.steps?.find((k) => k.id === props.step.id) ?? { id: props.step.id },
)
const own = computed(() => !!was.value.own)
const change = (part: Partial<StepChange>) => card.change({ do: 'changeStep', step: { ...was.value, ...part } })

const wording = ref(false)
const title = ref('')
const does = ref('')
usePopover(wording, '[data-testid=reword-form]')
watch(wording, (now) => {
  if (now) [title.value, does.value] = [props.step.title, props.step.does]
})
async function reword() {
  wording.value = false
  await change({ title: title.value.trim(), does: does.value.trim() })
}

const adding = ref(false)
const what = ref('')
const how = ref('')
usePopover(adding, '[data-testid=add-form]')
async function add() {
  if (!what.value.trim()) return
  adding.value = false
  const before = new Set(card.view?.card.steps?.map((k) => k.id))
  const v = await card.change({
    do: 'changeStep',
    step: { id: '', own: true, title: what.value.trim(), does: how.value.trim(), after: props.step.id },
  })
  what.value = how.value = ''
  const made = v?.card.steps?.find((k) => !before.has(k.id))
  if (made) emit('chosen', made.id)
}

const steps = computed(() => assembly.steps)
const before = computed(() => steps.value[props.at - 1])
const after = computed(() => steps.value[props.at + 1])
/** Whether the step may change places with the one before or after it. */
const earlier = computed(() => !!before.value && !props.step.needs.includes(before.value.id))
const later = computed(() => !!after.value && !after.value.needs.includes(props.step.id))
const move = (to: number) => change({ after: to < 0 ? 'start' : steps.value[to]!.id, into: undefined })
</script>

<template>
  <Popover v-model:open="wording" trigger="click" placement="leftTop">
    <button class="verb" data-testid="step-reword">Reword</button>
    <template #content>
      <form class="form" data-testid="reword-form" @submit.prevent="reword">
        <input v-model="title" maxlength="120" aria-label="What is done" data-testid="step-new-title" />
        <textarea v-model="does" rows="4" maxlength="1000" aria-label="How it is done" data-testid="step-new-does" />
        <Button type="primary" html-type="submit" block data-testid="reword-do">Keep these words</Button>
        <button
          v-if="was.title || was.does"
          type="button"
          class="verb"
          @click="((wording = false), change({ title: own ? was.title : undefined, does: undefined }))"
        >
          As the guide has it
        </button>
      </form>
    </template>
  </Popover>
  <Popover v-model:open="adding" trigger="click" placement="leftTop">
    <button class="verb" data-testid="step-add">Add a step</button>
    <template #content>
      <form class="form" data-testid="add-form" @submit.prevent="add">
        <input
          v-model="what"
          maxlength="120"
          placeholder="What is done after this step"
          aria-label="What is done"
          data-testid="step-own-title"
        />
        <textarea v-model="how" rows="3" maxlength="1000" placeholder="How" aria-label="How it is done" />
        <Button type="primary" html-type="submit" block :disabled="!what.trim()" data-testid="add-do">Add it</Button>
      </form>
    </template>
  </Popover>
  <button class="verb" data-testid="step-out" @click="change({ out: true })">
    {{ own ? 'Take it away' : 'Leave out' }}
  </button>
  <button v-if="before" class="verb" data-testid="step-together" @click="change({ into: before.id, after: undefined })">
    With the one before
  </button>
  <button v-if="earlier" class="verb" data-testid="step-earlier" @click="move(at - 2)">Earlier</button>
  <button v-if="later" class="verb" data-testid="step-later" @click="move(at + 1)">Later</button>
</template>

<style scoped>
.form {
  width: 290px;
  display: grid;
  gap: 8px;
}
input,
textarea {
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  padding: 6px 8px;
  font: inherit;
  resize: vertical;
}
</style>
