<script setup lang="ts">
// What was done to the photo, step by step, each to be taken off.
import { onScopeDispose, shallowRef, watch } from 'vue'
import { api } from '../../api/client'
import { useEdits } from '../../store/edits'
import { editName } from './edits'

const edits = useEdits()

/** How it looks after each of its edits, as it came first. */
const pictures = shallowRef<string[]>([])
let asked = 0
watch(
  () => [edits.photo?.picture, JSON.stringify(edits.photo?.edits ?? [])],
  async () => {
    const [n, photo] = [++asked, edits.photo]
    if (!photo) return
    const all = photo.edits ?? []
    const made: string[] = []
    for (let i = 1; i <= all.length; i++) {
      const blob = await api.edited(photo.picture, all.slice(0, i), 180).catch(() => undefined)
      if (n !== asked) {
        made.forEach(URL.revokeObjectURL)
        return
      }
      made.push(blob ? URL.createObjectURL(blob) : '')
    }
    pictures.value.forEach(URL.revokeObjectURL)
    pictures.value = made
  },
  { immediate: true },
)
onScopeDispose(() => pictures.value.forEach(URL.revokeObjectURL))
</script>

<template>
  <footer class="strip" data-testid="edit-strip">
    <header>
      <b>What was done to it</b>
      <span>the photo itself is never changed; take any step off</span>
    </header>
    <ol>
      <li v-if="edits.photo">
        <figure>
          <img :src="api.previewURL(edits.photo.picture, 256)" alt="" />
          <figcaption>As it came</figcaption>
        </figure>
      </li>
      <li v-for="(e, i) in edits.photo?.edits ?? []" :key="i" :data-testid="'edit-' + i">
        <figure
          :class="{ chosen: edits.chosen === i, open: e.light }"
          @click="e.light && ((edits.chosen = i), (edits.way = 'light'))"
        >
          <img v-if="pictures[i]" :src="pictures[i]" alt="" />
          <figcaption>{{ editName(e) }}</figcaption>
        </figure>
        <button
          :aria-label="'Take off: ' + editName(e)"
          title="Take it off"
          :data-testid="'take-off-' + i"
          @click="edits.takeOff(i)"
        >
          <svg width="10" height="10" viewBox="0 0 10 10"><path d="M1.5 1.5l7 7M8.5 1.5l-7 7" /></svg>
        </button>
      </li>
    </ol>
  </footer>
</template>

<style scoped>
.strip {
  padding: 8px 16px 10px;
  background: var(--paper2);
  border-top: 1px solid var(--paper3);
  overflow: hidden;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 8px;
}
header span {
  color: var(--ink5);
  font-size: 11.5px;
}
ol {
  display: flex;
  gap: 8px;
  margin: 0;
  padding: 2px;
  list-style: none;
  overflow: auto hidden;
  scrollbar-width: thin;
}
li {
  position: relative;
  flex: none;
}
figure {
  width: 112px;
  height: 88px;
  margin: 0;
  display: flex;
  flex-direction: column;
  border: 1px solid var(--paper3);
  border-radius: 6px;
  background: var(--paper0);
  overflow: hidden;
}
figure.open {
  cursor: pointer;
}
figure.chosen {
  border-color: var(--brick);
  box-shadow: 0 0 0 1px var(--brick);
}
img {
  flex: 1;
  min-height: 0;
  width: 100%;
  object-fit: cover;
}
figcaption {
  padding: 2px 6px 3px;
  font-size: 11px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
li button {
  position: absolute;
  top: 4px;
  right: 4px;
  display: grid;
  place-items: center;
  width: 20px;
  height: 20px;
  padding: 0;
  border: 0;
  border-radius: 10px;
  background: #fffdf9e6;
  cursor: pointer;
}
path {
  stroke: var(--ink9);
  stroke-width: 1.5;
}
</style>
