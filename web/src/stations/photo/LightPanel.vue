<script setup lang="ts">
// Light, colours and detail of a photo; setting it right by itself, and shades of one colour.
import { Button, Checkbox, Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api, Fault } from '../../api/client'
import type { Edit, Light, PhotoLook } from '../../api/types'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useEdits } from '../../store/edits'
import { usePart, type Part } from '../../store/part'
import BrushChoice from './BrushChoice.vue'
import EditSlider from './EditSlider.vue'
import { lightNames, ofKinds } from './edits'

const card = useCard()
const edits = useEdits()
const part = usePart()
const told = ref('')
const catalogue = useCatalogue()
/** Edits that are about no place in the photo. */
const forAny = (all: Edit[]) => ofKinds(all, catalogue.all.editsForAny)

const groups: { title: string; of: (keyof Light)[] }[] = [
  { title: 'Light', of: ['brightness', 'contrast', 'highlights', 'shadows'] },
  { title: 'Colour', of: ['saturation', 'lively', 'warmth', 'tint'] },
  { title: 'Detail', of: ['sharpness', 'softness', 'smooth'] },
]
const detail = (k: keyof Light) => k === 'sharpness' || k === 'softness' || k === 'smooth'

async function right() {
  told.value = ''
  try {
    // What set it right before is found anew.
    const others = edits.edits.filter((e) => !e.right)
    const r = await api.setRight(edits.photo!.picture, [])
    if (r) await edits.set([{ right: r }, ...others])
    else told.value = 'It is right as it came: its light reaches from black to white, and it has no cast.'
  } catch (e) {
    told.value = e instanceof Fault ? e.message : String(e)
  }
}

const tone = computed(() => edits.edits.find((e) => e.tone)?.tone)
function setTone(colour: string, amount = tone.value?.amount ?? 100, keep = true) {
  const all = edits.edits.filter((e) => !e.tone).concat(amount ? [{ tone: { colour, amount } }] : [])
  if (keep) void edits.set(all)
  else edits.slide(all)
}

const looks = ref<PhotoLook[]>([])
const naming = ref('')
const wrong = ref('')
const load = async () => (looks.value = await api.photoLooks().catch(() => []))
void load()
async function keep(name: string, of: Edit[]) {
  wrong.value = ''
  try {
    await api.keepPhotoLook({ name, edits: of })
    naming.value = ''
    await load()
  } catch (e) {
    wrong.value = e instanceof Fault ? e.message : String(e)
  }
}
/** The look comes in place of what else is about no place in the photo. */
const give = (l: PhotoLook) => void edits.set([...edits.edits.filter((e) => !forAny([e]).length), ...l.edits])

/** The other photos of the card, which can have what is about no place in this one. */
const others = computed(() =>
  (card.view?.scene.faces ?? []).flatMap((f) =>
    f.items.filter((it) => it.picture && it.id !== edits.item).map((it) => ({ it, face: f.id })),
  ),
)
const shared = computed(() => forAny(edits.edits))
const same = (id: string) => JSON.stringify(forAny(card.doc(id)?.photo?.edits ?? [])) === JSON.stringify(shared.value)
function share(id: string) {
  const own = (card.doc(id)?.photo?.edits ?? []).filter((e) => !forAny([e]).length)
  void card.change({ do: 'editPhoto', ids: [id], edits: [...own, ...shared.value] })
}
</script>

<template>
  <div class="lead">
    <Button block data-testid="set-right" @click="right">Set right by itself</Button>
    <small v-if="told" data-testid="right-told">{{ told }}</small>
  </div>
  <section class="sec">
    <h3>Where</h3>
    <Segmented
      block
      :value="part.by"
      :options="[
        { value: 'whole', label: 'All of it' },
        { value: 'painted', label: 'Painted' },
        { value: 'found', label: 'Found' },
      ]"
      aria-label="Where light and colours are changed"
      data-testid="part-by"
      @change="part.take($event as Part)"
    />
    <template v-if="part.by !== 'whole'">
      <p class="says">
        {{ part.by === 'painted' ? 'Paint over the part.' : 'Draw on the part, then on what is not of it.' }}
      </p>
      <BrushChoice
        label="What the brush says"
        :chosen="part.brush"
        :of="[
          { id: 'in', name: 'Of it', stays: true },
          { id: 'out', name: 'Not of it', stays: false },
        ]"
        @choose="part.brush = $event"
      />
      <EditSlider
        label="Brush"
        :min="0.5"
        :max="25"
        :step="0.1"
        :digits="1"
        sign=" %"
        :value="part.size * 100"
        testid="part-size"
        @slide="part.size = $event / 100"
        @set="part.size = Math.max($event, 0.5) / 100"
      />
      <Checkbox
        v-if="part.of"
        :checked="part.of.rest"
        data-testid="part-rest"
        @change="part.rest($event.target.checked)"
        >All but that</Checkbox
      >
    </template>
  </section>
  <section v-for="g in groups" :key="g.title" class="sec">
    <h3>{{ g.title }}</h3>
    <EditSlider
      v-for="k in g.of"
      :key="k"
      :label="lightNames[k]"
      :value="edits.light[k] ?? 0"
      :min="detail(k) ? 0 : -100"
      :testid="'light-' + k"
      @slide="edits.slideLight({ [k]: $event })"
      @set="edits.setLight({ [k]: $event })"
    />
  </section>
  <section class="sec">
    <h3>One colour</h3>
    <div class="tones">
      <button
        v-for="t in [
          { colour: '#808080', name: 'Greys' },
          { colour: '#704214', name: 'Brown' },
          { colour: '#3c4a5b', name: 'Blue' },
        ]"
        :key="t.colour"
        class="tone"
        :aria-pressed="tone?.colour === t.colour"
        :data-testid="'tone-' + t.colour.slice(1)"
        @click="setTone(t.colour, tone?.colour === t.colour ? 0 : 100)"
      >
        <i :style="{ background: `linear-gradient(90deg, #111, ${t.colour}, #fff)` }" />{{ t.name }}
      </button>
      <label class="tone"
        ><input
          type="color"
          :value="tone?.colour ?? '#704214'"
          aria-label="Another colour"
          data-testid="tone-own"
          @change="setTone(($event.target as HTMLInputElement).value)"
        />Another</label
      >
    </div>
    <EditSlider
      v-if="tone"
      label="How much"
      :min="0"
      :value="tone.amount"
      testid="tone-amount"
      @slide="setTone(tone.colour, $event, false)"
      @set="setTone(tone.colour, $event)"
    />
  </section>
  <section v-if="looks.length || shared.length" class="sec">
    <h3>Looks of your own</h3>
    <div class="looks">
      <span v-for="l in looks" :key="l.name">
        <button class="tone" :data-testid="'look-' + l.name" @click="give(l)">{{ l.name }}</button>
        <button
          class="verb"
          :aria-label="'Take the look ' + l.name + ' away'"
          title="Take it away"
          @click="keep(l.name, [])"
        >
          ×
        </button>
      </span>
    </div>
    <form v-if="shared.length" class="keep" @submit.prevent="keep(naming, shared)">
      <input v-model="naming" placeholder="Name" aria-label="Name of the look" maxlength="40" data-testid="look-name" />
      <button class="verb" :disabled="!naming.trim()" data-testid="keep-look">Keep this as one</button>
    </form>
    <small v-if="wrong" class="wrong" role="alert">{{ wrong }}</small>
  </section>
  <section v-if="others.length && shared.length" class="sec">
    <h3>The same to</h3>
    <div class="others">
      <button
        v-for="{ it } in others"
        :key="it.id"
        :title="it.name"
        :aria-label="'The same to ' + it.name"
        :aria-pressed="same(it.id)"
        :data-testid="'same-' + it.id"
        @click="share(it.id)"
      >
        <img :src="api.previewURL(it.picture!.id, 256)" alt="" />
      </button>
    </div>
  </section>
</template>

<style scoped>
.lead {
  padding: 12px 16px;
  border-bottom: 1px solid var(--paper2);
}
.lead small {
  margin-top: 6px;
}
h3 {
  margin-bottom: 4px;
}
.says {
  margin: 8px 0;
  color: var(--ink5);
  font-size: 12px;
}
.tones {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.tone {
  display: flex;
  align-items: center;
  gap: 7px;
  height: 28px;
  padding: 0 8px;
  border: 1px solid var(--paper3);
  border-radius: 6px;
  background: none;
  font-size: 12px;
  cursor: pointer;
}
.tone[aria-pressed='true'] {
  border-color: var(--ink9);
  background: var(--brick-soft);
}
.tone i {
  width: 22px;
  height: 12px;
  border-radius: 3px;
}
.tone input {
  width: 22px;
  height: 16px;
  padding: 0;
  border: 0;
  background: none;
}
.looks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
}
.looks span {
  display: flex;
}
.keep {
  display: flex;
  gap: 4px;
  margin-top: 6px;
}
.keep input {
  flex: 1;
  min-width: 0;
  height: 28px;
  padding: 0 8px;
  border: 1px solid var(--paper3);
  border-radius: 6px;
  background: none;
}
.others {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.others button {
  width: 56px;
  height: 44px;
  padding: 0;
  border: 2px solid transparent;
  border-radius: 5px;
  overflow: hidden;
  background: var(--paper2);
  cursor: pointer;
}
.others button[aria-pressed='true'] {
  border-color: var(--honey-dark);
}
.others img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
</style>
