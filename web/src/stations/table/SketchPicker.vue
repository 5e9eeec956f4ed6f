<script setup lang="ts">
// Starting a card from a sketch: which one, and which photos go into its slots.
import { Button, Input, Modal, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api } from '../../api/client'
import type { Sketch } from '../../api/types'
import { kindName, kindTitle, tradeOf } from '../../parts/names'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'

const open = defineModel<boolean>('open', { required: true })
const router = useRouter()
const catalogue = useCatalogue()
const prefs = usePrefs()
void catalogue.load().then(() => catalogue.loadSketches())

const kind = ref('')
const size = ref('')
const occasion = ref('')
const chosen = ref<Sketch>()
const title = ref('')
const photos = ref<string[]>([])
const wrong = ref('')
const busy = ref(false)

const sizeOf = (s: Sketch) => {
  const t = tradeOf(catalogue.all, s.width, s.height)
  return t ? t.name : prefs.size(s.width, s.height)
}
const whole = computed(() => catalogue.sketches.filter((s) => !s.face))
const options = (of: (s: Sketch) => string) => [...new Set(whole.value.map(of))].filter(Boolean).sort()
const kinds = computed(() => options((s) => s.kind))
const sizes = computed(() => options(sizeOf))
const occasions = computed(() => options((s) => s.occasion ?? ''))
const shown = computed(() =>
  whole.value.filter(
    (s) =>
      (!kind.value || s.kind === kind.value) &&
      (!size.value || sizeOf(s) === size.value) &&
      (!occasion.value || s.occasion === occasion.value),
  ),
)
function choose(s: Sketch) {
  chosen.value = s
  title.value = s.title
  photos.value = []
  wrong.value = ''
}
const toggle = (id: string) =>
  (photos.value = photos.value.includes(id) ? photos.value.filter((p) => p !== id) : [...photos.value, id])
const slots = (s: Sketch) => {
  const parts = []
  if (s.photos) parts.push(s.photos === 1 ? '1 photo' : `${s.photos} photos`)
  if (s.words) parts.push('words')
  return parts.join(' and ') || 'nothing to fill'
}

async function start() {
  if (!chosen.value) return
  busy.value = true
  try {
    const { id } = await api.startFromSketch(chosen.value.id, title.value, photos.value)
    open.value = false
    await router.push(`/cards/${id}/panels`)
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal v-model:open="open" title="Start from a sketch" :footer="null" width="860px">
    <div v-if="!chosen" data-testid="sketches">
      <div class="filters">
        <Select v-model:value="kind" data-testid="sketch-kind">
          <SelectOption value="">Every kind</SelectOption>
          <SelectOption v-for="k in kinds" :key="k" :value="k">{{
            kindTitle(catalogue.all, k as Sketch['kind'])
          }}</SelectOption>
        </Select>
        <Select v-model:value="size" data-testid="sketch-size">
          <SelectOption value="">Every size</SelectOption>
          <SelectOption v-for="s in sizes" :key="s" :value="s">{{ s }}</SelectOption>
        </Select>
        <Select v-model:value="occasion" data-testid="sketch-for">
          <SelectOption value="">Every occasion</SelectOption>
          <SelectOption v-for="o in occasions" :key="o" :value="o">{{ o }}</SelectOption>
        </Select>
      </div>
      <div class="all">
        <button v-for="s in shown" :key="s.id" class="sketch" data-testid="sketch" @click="choose(s)">
          <img :src="api.sketchURL(s.id)" alt="" />
          <b>{{ s.title }}</b>
          <small>{{ sizeOf(s) }} {{ kindName(catalogue.all, s.kind) }} · {{ slots(s) }}</small>
        </button>
      </div>
      <p v-if="!shown.length" class="none">No sketch is like that. Take one of the filters back.</p>
    </div>
    <form v-else class="start" data-testid="sketch-start" @submit.prevent="start">
      <img :src="api.sketchURL(chosen.id)" alt="" />
      <div>
        <label
          >Title of the card <Input v-model:value="title" :maxlength="120" data-testid="sketch-card-title"
        /></label>
        <template v-if="chosen.photos">
          <h3>
            Photos for it
            <small
              >{{ photos.length }} of {{ chosen.photos }} chosen; each is cropped about its most detailed part</small
            >
          </h3>
          <div class="photos">
            <button
              v-for="p in catalogue.pictures"
              :key="p.id"
              type="button"
              :class="{ on: photos.includes(p.id) }"
              :title="p.name"
              :aria-pressed="photos.includes(p.id)"
              data-testid="sketch-photo"
              @click="toggle(p.id)"
            >
              <img :src="api.previewURL(p.id, 256)" :alt="p.name" />
              <i v-if="photos.includes(p.id)">{{ photos.indexOf(p.id) + 1 }}</i>
            </button>
          </div>
          <p v-if="!catalogue.pictures.length" class="none">
            No photos are in the tray yet. Start without; slots can be filled later.
          </p>
        </template>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
        <div class="choices">
          <Button @click="chosen = undefined">Another sketch</Button>
          <Button type="primary" html-type="submit" :loading="busy" data-testid="sketch-go">Start the card</Button>
        </div>
      </div>
    </form>
  </Modal>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
  margin-bottom: 16px;
}
.all {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 18px;
  max-height: 56vh;
  overflow-y: auto;
  padding: 3px;
}
.sketch {
  display: grid;
  justify-items: center;
  align-content: end;
  gap: 3px;
  padding: 12px 8px 10px;
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  background: var(--paper1);
  font: inherit;
  cursor: pointer;
}
.sketch:hover {
  border-color: var(--brick);
}
.sketch img {
  height: 150px;
  max-width: 100%;
  margin-bottom: 6px;
  object-fit: contain;
  filter: drop-shadow(0 1px 2px #0003);
}
.sketch small {
  text-align: center;
}
.start {
  display: grid;
  grid-template-columns: 240px 1fr;
  gap: 24px;
}
.start > img {
  width: 100%;
  filter: drop-shadow(0 1px 3px #0003);
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink7);
  font-size: 12px;
}
h3 {
  margin: 16px 0 8px;
}
h3 small {
  font-family: 'Figtree Variable';
  font-weight: 400;
}
.photos {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  max-height: 300px;
  overflow-y: auto;
  padding: 3px;
}
.photos button {
  position: relative;
  height: 84px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  overflow: hidden;
  cursor: pointer;
}
.photos img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.photos .on {
  box-shadow: 0 0 0 3px var(--honey);
}
.photos i {
  position: absolute;
  right: 5px;
  top: 5px;
  width: 20px;
  height: 20px;
  border-radius: 10px;
  background: var(--honey);
  font: 650 12px/20px 'Figtree Variable';
}
.choices {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 16px;
}
.none {
  color: var(--ink5);
}
</style>
