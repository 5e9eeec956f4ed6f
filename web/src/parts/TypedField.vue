<script setup lang="ts">
// A value that is typed into a field. It is read when it is left by Enter or
// by going elsewhere; what cannot be read is told and changes nothing.
import { Dropdown, Menu, MenuItem } from 'ant-design-vue'
import { nextTick, ref, watch } from 'vue'
import Field from './Field.vue'
import { reading } from './reading'

const props = defineProps<{
  label: string
  /** What the value looks like while nobody types. */
  shown: string
  /** Takes what was typed; throws a sentence for what cannot be read. */
  read: (text: string) => void | Promise<void>
  /** What was typed into such fields lately. */
  recent?: string[]
  wide?: boolean
  disabled?: boolean
  testid?: string
}>()
const emit = defineEmits<{ wrong: [why: string] }>()

const text = ref('')
const typing = ref(false)
const bad = ref(false)

watch(
  () => props.shown,
  (s) => {
    if (!typing.value) text.value = s
  },
  { immediate: true },
)

function settle(why: string) {
  bad.value = why !== ''
  emit('wrong', why)
  if (!why) text.value = props.shown
}

async function take() {
  try {
    await props.read(text.value)
    settle('')
  } catch (e) {
    settle(e instanceof Error ? e.message : String(e))
  }
}
async function accept() {
  if (!typing.value) return
  typing.value = false
  if (text.value === props.shown) return settle('')
  await reading(take())
}

/** The list of what was typed lately: whether it is open, and what an Enter would take of it. */
const open = ref(false)
const at = ref(-1)
const input = ref<HTMLInputElement>()
watch(open, () => (at.value = -1))
function go(e: KeyboardEvent, by: 1 | -1) {
  const n = props.recent?.length ?? 0
  if (!n || typing.value || (!open.value && by < 0)) return
  e.preventDefault()
  if (open.value) at.value = (at.value + by + n) % n
  else {
    open.value = true
    void nextTick(() => (at.value = 0))
  }
}
async function pick(v: string) {
  open.value = false
  text.value = v
  typing.value = v !== props.shown
  input.value?.focus()
  await accept()
}
function enter(e: KeyboardEvent) {
  const v = open.value ? props.recent?.[at.value] : undefined
  if (v === undefined) return accept()
  e.stopPropagation() // The field is not left yet.
  return pick(v)
}

function giveUp(e: KeyboardEvent) {
  if (open.value) {
    open.value = false
    e.stopPropagation()
    return
  }
  // Only what was being typed is given up; the next Esc leaves the field.
  if (typing.value) e.stopPropagation()
  typing.value = false
  settle('')
}
</script>

<template>
  <Field :label="label" :bad="bad" :wide="wide">
    <input
      ref="input"
      v-model="text"
      :disabled="disabled"
      :data-testid="testid"
      :aria-invalid="bad"
      :data-resting="typing ? undefined : ''"
      spellcheck="false"
      autocomplete="off"
      :style="{ '--chars': Math.max(text.length, 3) }"
      @focus="($event.target as HTMLInputElement).select()"
      @input="((typing = true), (open = false))"
      @blur="accept"
      @keydown.enter="enter"
      @keydown.esc="giveUp"
      @keydown.down="go($event, 1)"
      @keydown.up="go($event, -1)"
    />
    <Dropdown
      v-if="recent?.length && !disabled"
      v-model:open="open"
      :trigger="['click']"
      placement="bottomRight"
      overlay-class-name="recent-measures"
    >
      <button
        class="caret"
        tabindex="-1"
        title="What was typed lately (↓)"
        aria-label="What was typed lately"
        :data-testid="testid && testid + '-recent'"
      >
        <svg width="8" height="6" viewBox="0 0 8 6">
          <path d="M1 1l3 3.500L7 1" fill="none" stroke="currentColor" />
        </svg>
      </button>
      <template #overlay>
        <Menu :selected-keys="[recent[at] ?? '']">
          <MenuItem v-for="v in recent" :key="v" :data-testid="'recent-' + v" @click="pick(v)">{{ v }}</MenuItem>
        </Menu>
      </template>
    </Dropdown>
  </Field>
</template>

<style scoped>
input {
  /* The name gives way before the number does. */
  flex: 1 0 calc(var(--chars) * 0.46em + 2px);
  min-width: 0;
  width: 0;
  height: 100%;
  border: 0;
  outline: 0;
  background: none;
  padding: 0;
  font: 550 13px 'Figtree Variable';
  font-variant-numeric: tabular-nums;
  color: var(--ink9);
}
.field {
  position: relative;
}
/* It lies over the end of the field while that is typed into, and takes no room of the number. */
.caret {
  position: absolute;
  inset: 1px 1px 1px auto;
  display: none;
  width: 18px;
  padding: 0;
  border: 0;
  background: #fff;
  color: var(--ink5);
  cursor: pointer;
}
.caret:hover {
  color: var(--ink9);
}
.field:focus-within .caret,
.caret.ant-dropdown-open {
  display: block;
}
input:disabled {
  color: var(--ink7);
}
</style>
