<script setup lang="ts">
// Words edited in place, however they lie: the text is that of a field which is not seen, and
// its caret and what is chosen are drawn where Go has set the letters.
import { message } from 'ant-design-vue'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { api } from '../api/client'
import type { SceneItem, Words, WordsAsSet } from '../api/types'
import { chosenPath, letters, nearest, place } from '../parts/carets'
import { apply, matrix, then, type Matrix, type Pt } from '../parts/geom'
import { useCard } from '../store/card'
import { useLetters } from '../store/letters'

const props = defineProps<{
  item: SceneItem
  scale: number
  offset: { x: number; y: number }
  local: (e: { clientX: number; clientY: number }) => Pt
}>()
const emit = defineEmits<{ set: [as: Partial<SceneItem>]; done: [] }>()

const card = useCard()
const chosen = useLetters()
const box = ref<HTMLTextAreaElement>()
const doc = computed(() => card.doc(props.item.id)?.words)
const first = (doc.value as Words).text
const text = ref(first)
chosen.begin(props.item.id, first)
const set = ref<WordsAsSet>()
let asked = 0

watch(
  [text, doc],
  async ([typed, words]) => {
    chosen.text = typed
    if (!words) return
    const mine = ++asked
    try {
      const as = await api.setWords(words, typed)
      if (mine !== asked) return
      set.value = as
      const rest = as.parts.length ? as.rest : undefined
      emit('set', { outline: as.outline, parts: as.parts, rest })
    } catch {
      // The words stay; what is wrong is told when they are kept.
    }
  },
  { immediate: true },
)

const caret = ref(0)
/** Takes over what the field has chosen. */
function look() {
  const el = box.value
  if (!el) return
  const [a, b] = [letters(text.value, el.selectionStart), letters(text.value, el.selectionEnd)]
  chosen.choose(a, b)
  caret.value = el.selectionDirection === 'backward' ? a : b
}
onMounted(async () => {
  await nextTick()
  box.value?.focus()
  box.value?.select()
  look()
})
useEventListener(document, 'selectionchange', look)

const map = computed<Matrix>(() =>
  then(props.item.at, [props.scale, 0, 0, props.scale, props.offset.x, props.offset.y]),
)
/** The field lies over the words, so that what helps with typing appears beside them. */
const style = computed(() => {
  const b = set.value?.block ?? props.item.box
  const at = apply(map.value, { x: b.x, y: b.y })
  return {
    left: at.x + 'px',
    top: at.y + 'px',
    width: Math.max(b.w * props.scale, 20) + 'px',
    height: Math.max(b.h * props.scale, 20) + 'px',
  }
})
const frame = computed(() => set.value?.block ?? props.item.box)
const carets = computed(() => set.value?.carets ?? [])
const selected = computed(() => (chosen.chosen ? chosenPath(carets.value, chosen.from, chosen.to) : ''))
const bar = computed(() => {
  const c = carets.value[Math.min(caret.value, carets.value.length - 1)]
  return c && `M${c.at.x - c.up.x * 0.25} ${c.at.y - c.up.y * 0.25}L${c.at.x + c.up.x} ${c.at.y + c.up.y}`
})

/** The place between letters under the pointer. */
function under(e: PointerEvent | MouseEvent): number {
  const p = props.local(e)
  const [a, b, c, d, x, y] = map.value
  const det = a * d - b * c
  const [u, v] = [p.x - x, p.y - y]
  return place(text.value, nearest(carets.value, { x: (d * u - c * v) / det, y: (a * v - b * u) / det }))
}
let anchor: number | undefined
function down(e: PointerEvent) {
  if (e.button !== 0 || !box.value) return
  // The field keeps the keys.
  e.preventDefault()
  box.value.focus()
  const at = under(e)
  anchor = e.shiftKey ? box.value.selectionStart : at
  box.value.setSelectionRange(Math.min(anchor, at), Math.max(anchor, at), at < anchor ? 'backward' : 'forward')
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  look()
}
function motion(e: PointerEvent) {
  if (anchor === undefined || !box.value) return
  const at = under(e)
  box.value.setSelectionRange(Math.min(anchor, at), Math.max(anchor, at), at < anchor ? 'backward' : 'forward')
  look()
}
/** A double click chooses the word under it. */
function word(e: MouseEvent) {
  const at = under(e)
  const before = /\S*$/.exec(text.value.slice(0, at))![0].length
  const after = /^\S*/.exec(text.value.slice(at))![0].length
  box.value?.setSelectionRange(at - before, at + after)
  look()
}

let ended = false
async function keep() {
  if (ended) return
  ended = true
  const todo = [...chosen.commands]
  chosen.end()
  if (todo.length) {
    const before = doc.value?.fields ?? []
    await card.change(...todo)
    const now = card.doc(props.item.id)?.words?.fields ?? []
    const lost = before.filter((f) => !now.some((k) => k.column === f.column))
    if (lost[0]) void message.info(`“${lost[0].column}” is words again, the same on every card.`)
  }
  emit('done')
}
/** Whoever goes to the panels beside the face changes these letters; elsewhere they are kept. */
function left(e: FocusEvent) {
  const to = e.relatedTarget as HTMLElement | null
  if (to?.closest('[data-testid=words], [data-testid=letters-panel], .ant-select-dropdown')) return
  void keep()
}
useEventListener(window, 'pointerdown', (e: PointerEvent) => {
  const at = e.target as HTMLElement
  if (document.activeElement === box.value) return
  if (!at.closest?.('[data-testid=words], [data-testid=letters-panel], .ant-select-dropdown, .edited')) void keep()
})
// A page that is left or loaded anew keeps what was typed so far.
useEventListener(window, 'pagehide', () => {
  if (!ended && chosen.commands[0]) card.leave(chosen.commands[0])
})
watch(
  () => card.selection,
  (now) => now.includes(props.item.id) || void keep(),
)

/** Enter makes a new line; with Ctrl it keeps the words, as Escape does. */
function key(e: KeyboardEvent) {
  if (e.key === 'Escape' || (e.key === 'Enter' && (e.ctrlKey || e.metaKey))) {
    e.preventDefault()
    void keep()
  }
}
</script>

<template>
  <div class="edited">
    <textarea
      ref="box"
      v-model="text"
      class="words"
      wrap="off"
      spellcheck="false"
      :style="style"
      aria-label="Words"
      data-testid="words-editor"
      @blur="left"
      @keydown.stop="key"
      @pointerdown.stop
    />
    <svg
      width="100%"
      height="100%"
      data-testid="words-carets"
      @pointerdown.stop="down"
      @pointermove="motion"
      @pointerup="anchor = undefined"
      @pointercancel="anchor = undefined"
      @dblclick.stop="word"
    >
      <g :transform="matrix(map)">
        <rect :x="frame.x" :y="frame.y" :width="frame.w" :height="frame.h" class="frame" />
        <path v-if="selected" :d="selected" class="chosen" data-testid="letters-chosen" />
        <path v-if="bar" :d="bar" class="caret" data-testid="caret" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.words {
  position: absolute;
  padding: 0;
  border: 0;
  outline: none;
  background: none;
  color: transparent;
  caret-color: transparent;
  font-size: 8px;
  resize: none;
  overflow: hidden;
  pointer-events: none;
}
.words::selection {
  background: none;
}
svg {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.frame {
  fill: transparent;
  stroke: var(--honey-dark);
  stroke-dasharray: 4 3;
  vector-effect: non-scaling-stroke;
  pointer-events: all;
  cursor: text;
}
.chosen {
  fill: #e2a42b;
  fill-opacity: 0.34;
}
.caret {
  fill: none;
  stroke: var(--ink9);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
  animation: blink 1.1s steps(2, jump-none) infinite;
}
@keyframes blink {
  to {
    opacity: 0;
  }
}
@media (prefers-reduced-motion: reduce) {
  .caret {
    animation: none;
  }
}
</style>
