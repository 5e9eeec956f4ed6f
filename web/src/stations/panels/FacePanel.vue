<script setup lang="ts">
// What belongs to the face itself: its background, and the maker's mark.
import { Button, Select, SelectOption, Switch, message } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import type { Fill } from '../../api/types'
import Field from '../../parts/Field.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useTool } from '../../store/tool'
import { laid } from '../../tray/supplies'
import ColourField from './ColourField.vue'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const tool = useTool()
const everywhere = ref(false)

const doc = computed(() => card.view?.card.faces.find((f) => f.id === card.faceId))
const fill = computed<Fill>(() => doc.value?.items.find((it) => it.background)?.fill ?? {})
const kind = computed(() => fill.value.paper ?? (fill.value.colour ? 'colour' : 'none'))
function set(f: Fill) {
  const faces = everywhere.value ? (card.view?.scene.faces.map((o) => o.id) ?? []) : [card.faceId]
  void card.change({ do: 'setBackground', faces, fill: f })
}
const choose = (v: string) => set(v === 'none' ? {} : v === 'colour' ? { colour: '#f6e3da' } : { paper: v })

const mark = computed(() => catalogue.sketches.find((s) => s.id === prefs.mark))
async function keepMark() {
  try {
    const k = await api.keepSketch(card.id, {
      title: 'Maker’s mark',
      face: card.faceId,
      slots: [],
      tags: ['maker’s mark'],
    })
    await catalogue.loadSketches()
    prefs.mark = k.id
    void message.success('The maker’s mark is kept with the sketches, and goes on the back of each new card.')
  } catch (e) {
    void message.warning(e instanceof Error ? e.message : String(e))
  }
}
async function putMark() {
  const f = card.face
  if (!f || !mark.value) return
  const v = await card.change({
    do: 'placeItems',
    face: f.id,
    items: laid(mark.value, f),
    groups: mark.value.groups ?? [],
  })
  if (v?.made) card.select(v.made)
}
</script>

<template>
  <section v-if="!card.told.length && tool.tool === 'choose'" class="sec" data-testid="face-panel">
    <h3>{{ card.face?.name }}</h3>
    <div class="pair">
      <Field label="Background" wide>
        <Select
          :value="kind"
          :bordered="false"
          size="small"
          :list-height="300"
          data-testid="background"
          @change="(v) => choose(String(v))"
        >
          <SelectOption value="none">None, the stock shows</SelectOption>
          <SelectOption value="colour">Colour</SelectOption>
          <SelectOption v-for="p in catalogue.all.papers" :key="p.id" :value="p.id">{{ p.name }}</SelectOption>
        </Select>
      </Field>
      <ColourField
        v-if="fill.colour"
        label="Colour"
        wide
        :value="fill.colour"
        testid="background-colour"
        @set="set({ colour: $event })"
      />
    </div>
    <label class="choices"
      ><Switch v-model:checked="everywhere" size="small" data-testid="background-all" /> On all faces at once</label
    >
    <div class="marks">
      <small>Maker’s mark</small>
      <Button v-if="mark" size="small" data-testid="put-mark" @click="putMark">Put it here</Button>
      <Button v-if="doc?.items.length" size="small" data-testid="keep-mark" @click="keepMark">
        Keep this face as {{ mark ? 'a new one' : 'one' }}
      </Button>
      <label v-if="mark" class="choices"
        ><Switch v-model:checked="prefs.marks" size="small" data-testid="mark-new" /> On the back of each new
        card</label
      >
    </div>
  </section>
</template>

<style scoped>
.choices {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 8px 0 0;
}
.marks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 7px;
  margin-top: 12px;
}
.marks .choices {
  width: 100%;
  margin: 0;
}
</style>
