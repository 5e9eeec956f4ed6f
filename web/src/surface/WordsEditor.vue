<script setup lang="ts">
// Words edited in place: a text box set in the same font lies unseen over the
// outline that Go makes of it, so that only its caret shows.
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { api } from '../api/client'
import type { SceneItem, Words } from '../api/types'
import { then, type Matrix } from '../parts/geom'
import { useCard } from '../store/card'

const props = defineProps<{ item: SceneItem; scale: number; offset: { x: number; y: number } }>()
const emit = defineEmits<{ outline: [d: string]; done: [] }>()

const card = useCard()
const box = ref<HTMLTextAreaElement>()
const doc = computed(() => card.doc(props.item.id))
const start = doc.value?.words as Words
const text = ref(start.text)
const words = computed<Words>(() => ({ ...start, text: text.value }))
const block = ref({ x: 0, y: 0, w: 10, h: 10 })
let asked = 0

watch(
  text,
  async () => {
    const mine = ++asked
    try {
      const set = await api.setWords(words.value)
      if (mine !== asked) return
      block.value = set.block
      emit('outline', set.outline)
    } catch {
      // The words stay; what is wrong is told when they are kept.
    }
  },
  { immediate: true },
)

onMounted(async () => {
  await nextTick()
  box.value?.focus()
  box.value?.select()
})

const style = computed(() => {
  const s = props.scale
  const w = Math.max(block.value.w, start.size) + start.size
  // Over the block, with half an em to spare so that nothing wraps or scrolls.
  const local: Matrix = [1, 0, 0, 1, block.value.x - start.size / 2, block.value.y]
  const m = then(then(local, props.item.at), [s, 0, 0, s, props.offset.x, props.offset.y])
  return {
    transform: `matrix(${m[0] / s},${m[1] / s},${m[2] / s},${m[3] / s},${m[4]},${m[5]})`,
    width: w * s + 'px',
    height: block.value.h * s + 2 + 'px',
    padding: `0 ${(start.size / 2) * s}px`,
    font: `${start.size * s}px 'lettering-${start.font}'`,
    lineHeight: start.leading * start.size * s + 'px',
    letterSpacing: start.spacing * start.size * s + 'px',
    textAlign: start.align === 'centre' ? ('center' as const) : start.align,
  }
})

let ended = false
const changed = () => text.value !== start.text && text.value.trim() !== ''
const command = () => ({ do: 'setWords' as const, id: props.item.id, words: words.value })
async function keep() {
  if (ended) return
  ended = true
  if (changed()) await card.change(command())
  emit('done')
}
// A page that is left or loaded anew keeps what was typed so far.
useEventListener(window, 'pagehide', () => {
  if (!ended && changed()) card.leave(command())
})

/** Enter makes a new line; with Ctrl it keeps the words, as Escape does. */
function key(e: KeyboardEvent) {
  if (e.key === 'Escape' || (e.key === 'Enter' && (e.ctrlKey || e.metaKey))) {
    e.preventDefault()
    void keep()
  }
}
</script>

<template>
  <textarea
    ref="box"
    v-model="text"
    class="words"
    wrap="off"
    spellcheck="false"
    :style="style"
    aria-label="Words"
    data-testid="words-editor"
    @blur="keep"
    @keydown.stop="key"
    @pointerdown.stop
  />
</template>

<style scoped>
.words {
  position: absolute;
  left: 0;
  top: 0;
  transform-origin: 0 0;
  border: 0;
  outline: 1px dashed var(--honey-dark);
  outline-offset: 6px;
  background: none;
  color: transparent;
  caret-color: var(--ink9);
  resize: none;
  overflow: hidden;
  font-kerning: normal;
}
.words::selection {
  background: #e2a42b55;
  color: transparent;
}
</style>
