<script setup lang="ts">
// A picture that is cut round what it shows, and the paper that is left round it.
import { Button, Checkbox } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api, Fault } from '../../api/client'
import type { Command, Rim } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import PanelSection from '../../parts/PanelSection.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const wrong = ref('')

const one = computed(() => (card.told.length === 1 && card.told[0]?.kind === 'photo' ? card.told[0] : undefined))
const photo = computed(() => (one.value ? card.doc(one.value.id)?.photo : undefined))
/** Parts of it are transparent. */
const clear = computed(
  () =>
    catalogue.pictures.some((p) => p.id === photo.value?.picture && p.clear) ||
    !!photo.value?.edits?.some((e) => e.cutOut),
)
/** Its opening follows what it shows. */
const round = computed(() => photo.value?.opening?.outline === 'free')
const rim = computed(() => photo.value?.rim)
const first = computed(() => catalogue.all.first.rim)

const set = (r: Partial<Rim> | undefined) => {
  wrong.value = ''
  const ids = [one.value!.id]
  void card.change(r ? { do: 'setRim', ids, rim: { ...(rim.value ?? first.value), ...r } } : { do: 'setRim', ids })
}
/** Changes the photo by the outline of what there is of its picture. */
async function byEdge(change: (id: string, edge: string) => Command) {
  const it = one.value
  if (!it?.picture) return
  try {
    const t = await api.trace(it.picture.id, { by: 'transparency', usual: true })
    wrong.value = t.says ?? ''
    const edge = t.outlines[0]?.path
    if (edge) await card.change(change(it.id, edge))
  } catch (e) {
    wrong.value = e instanceof Fault ? e.message : String(e)
  }
}
const cutRound = () => byEdge((id, edge) => ({ do: 'cutRound', id, edge, rim: rim.value ?? first.value }))
const tuck = ref(0.4)
const openings = () => byEdge((id, edge) => ({ do: 'frameOpenings', id, edge, tuck: tuck.value }))
</script>

<template>
  <PanelSection
    v-if="photo && one && (rim || round || clear)"
    id="rim"
    title="Rim of paper"
    :fact="rim && one.piece ? prefs.lenUnit(rim.width) : 'none'"
  >
    <template v-if="rim && one.piece">
      <div class="pair">
        <MeasureField
          label="Shows by"
          :mm="rim.width"
          testid="rim-width"
          @set="set({ width: $event })"
          @wrong="wrong = $event"
        />
        <MeasureField
          label="Bays below"
          :mm="rim.bays ?? 0"
          testid="rim-bays"
          @set="set({ bays: $event })"
          @wrong="wrong = $event"
        />
      </div>
      <small>Bays narrower than this are filled with paper.</small>
      <div class="also">
        <Checkbox :checked="!!rim.solid" data-testid="rim-solid" @change="set({ solid: !rim.solid })">
          Holes are filled
        </Checkbox>
        <button class="verb" data-testid="rim-none" @click="set(undefined)">No rim</button>
      </div>
    </template>
    <Button v-if="clear && !round" block data-testid="cut-round" @click="cutRound">Cut round what it shows</Button>
    <Button v-else-if="!rim || !one.piece" block data-testid="rim-add" @click="set({})">
      Leave {{ prefs.lenUnit(first.width) }} of paper round it
    </Button>
    <div v-if="clear" class="pair frame">
      <MeasureField label="Tucked by" :mm="tuck" testid="frame-tuck" @set="tuck = $event" @wrong="wrong = $event" />
      <Button
        data-testid="frame-openings"
        title="Each hole becomes an opening for a photo, under the frame"
        @click="openings"
        >Openings in it</Button
      >
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
small {
  display: block;
  margin-top: 5px;
}
.frame {
  margin-top: 8px;
}
.also {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin-top: 6px;
}
.also .verb {
  margin-right: -8px;
}
</style>
