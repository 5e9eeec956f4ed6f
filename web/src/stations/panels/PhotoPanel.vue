<script setup lang="ts">
// A photo in its opening: how much of it is seen and how sharp it prints; cropping it to
// another thing that is selected with it, and swapping two.
import { Button, Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'
import PanelSection from '../../parts/PanelSection.vue'
import ShareField from '../../parts/ShareField.vue'
import { useCard } from '../../store/card'
import { useEdits } from '../../store/edits'
import { useTool } from '../../store/tool'
import FoundLines from './FoundLines.vue'
import TraceDialog from './TraceDialog.vue'

const card = useCard()
const tool = useTool()
const edits = useEdits()

/** The photo whose outlines are being found. */
const tracing = ref('')
const one = computed(() => (card.told.length === 1 ? card.told[0] : undefined))
const photo = computed(() => (one.value?.kind === 'photo' ? card.doc(one.value.id)?.photo : undefined))
const two = computed(() => {
  if (card.told.length !== 2) return undefined
  const photos = card.told.filter((it) => it.kind === 'photo')
  const other = card.told.find((it) => it.kind !== 'photo')
  return { photos, other: other && !other.role ? other : undefined }
})

const ppi = computed(() => one.value?.picture?.ppi ?? 0)
/** What is found about its pixels; nothing where it prints sharp. */
const found = computed(() => one.value && card.findings(one.value.id).find((f) => f.check === 'resolution'))
const prints = computed(() => one.value?.picture?.prints ?? 'sharp')

interface Crop {
  fit?: boolean
  zoom?: number
  shiftX?: number
  shiftY?: number
}
function crop(c: Crop) {
  const p = photo.value
  if (!p || !one.value) return
  const now = { fit: !!p.fit, zoom: p.zoom || 1, shiftX: p.shiftX ?? 0, shiftY: p.shiftY ?? 0 }
  void card.change({ do: 'cropPhoto', id: one.value.id, ...now, ...c })
}

async function cropTo() {
  const t = two.value
  if (!t?.other || !t.photos[0]) return
  const id = t.photos[0].id
  await card.selectMade(card.change({ do: 'cropToOutline', photo: id, by: t.other.id }), () => [id])
}
const swap = () => {
  const [a, b] = card.told
  if (a && b) void card.change({ do: 'swapPictures', a: a.id, b: b.id })
}
</script>

<template>
  <PanelSection v-if="photo && one" id="photo" title="Photo" :fact="ppi + ' pixels to the inch'">
    <template #verbs>
      <button
        class="verb"
        title="Light and colours, straightening, mending"
        data-testid="photo-edit"
        @click="edits.open(one.id)"
      >
        Work on it{{ photo.edits?.length ? ' · ' + photo.edits.length : '' }}
      </button>
    </template>
    <p class="ppi" :class="prints" data-testid="ppi">
      {{ found ? found.why.replace(/^“[^”]*” /, 'It ') : `${ppi} pixels to the inch: prints sharp` }}
    </p>
    <div class="pair">
      <Segmented
        class="wide"
        block
        :value="photo.fit ? 'fit' : 'fill'"
        :options="[
          { value: 'fill', label: 'Fill' },
          { value: 'fit', label: 'Fit' },
        ]"
        data-testid="photo-fit"
        @change="(v) => crop({ fit: v === 'fit', zoom: 1, shiftX: 0, shiftY: 0 })"
      />
      <ShareField
        label="Zoom"
        :value="Math.round((photo.zoom || 1) * 100)"
        :min="100"
        :max="500"
        testid="photo-zoom"
        @set="crop({ zoom: $event / 100 })"
      />
      <div class="wide choices">
        <button class="verb" data-testid="photo-slide" :aria-pressed="tool.tool === 'crop'" @click="tool.take('crop')">
          Slide it
        </button>
        <button class="verb" data-testid="photo-centre" @click="crop({ shiftX: 0, shiftY: 0 })">Centre</button>
        <button class="verb" data-testid="photo-replace" @click="card.awaiting = one.id">Replace</button>
        <button class="verb" title="Outlines of what the picture shows" data-testid="trace" @click="tracing = one.id">
          Trace
        </button>
      </div>
    </div>
    <FoundLines :id="one.id" but="resolution" />
  </PanelSection>
  <TraceDialog v-if="tracing && tracing === one?.id" :id="tracing" @close="tracing = ''" />
  <PanelSection
    v-if="two && (two.photos.length === 2 || (two.photos.length && two.other))"
    id="photo-two"
    title="Photo"
  >
    <Button v-if="two.photos.length === 2 || two.other?.slot" block data-testid="swap-pictures" @click="swap"
      >Swap the pictures</Button
    >
    <Button v-else block data-testid="crop-to" @click="cropTo">Crop the photo to {{ two.other!.name }}</Button>
  </PanelSection>
</template>

<style scoped>
.wide {
  grid-column: 1 / 3;
}
.choices {
  display: flex;
  margin: 0 -8px;
}
.ppi {
  margin: 2px 0 8px;
  font-size: 12px;
}
.sharp {
  color: var(--moss);
}
.soft {
  color: #8a5a0a;
}
.coarse {
  color: var(--stop);
}
</style>
