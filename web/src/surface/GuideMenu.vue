<script setup lang="ts">
// Guides and size templates: they are seen and caught on, and never print or cut.
import { Popover } from 'ant-design-vue'
import { ref } from 'vue'
import type { Item } from '../api/types'
import { INCH } from '../parts/measure'
import { usePopover } from '../parts/usePopover'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const open = ref(false)
usePopover(open)

interface Size {
  name: string
  w: number
  h: number
}
const inches = (name: string, w: number, h: number): Size => ({ name, w: w * INCH, h: h * INCH })
const photos = [
  inches('2 × 3', 2, 3),
  inches('3 × 4', 3, 4),
  inches('4 × 4', 4, 4),
  inches('4 × 6', 4, 6),
  inches('5 × 7', 5, 7),
  inches('12 × 12', 12, 12),
]

async function place(name: string, path: string, w: number, h: number) {
  const f = card.face
  if (!f) return
  open.value = false
  const item: Item = {
    id: 'new',
    name,
    kind: 'drawing',
    place: { x: f.width / 2, y: f.height / 2, turn: 0 },
    made: { as: 'line' },
    fill: {},
    lines: { role: 'guide', path, width: w, height: h },
  }
  await card.selectMade(card.change({ do: 'placeItems', face: f.id, items: [item] }))
}
const upright = () => card.face && place('Upright guide', `M0 0V${card.face.height}`, 0, card.face.height)
const level = () => card.face && place('Level guide', `M0 0H${card.face.width}`, card.face.width, 0)
const sized = (s: Size) => place(`${s.name} guide`, `M0 0H${s.w}V${s.h}H0z`, s.w, s.h)
const envelopes = () => catalogue.all.envelopes.map((e): Size => ({ name: e.name, w: e.width, h: e.height }))
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="topLeft">
    <button title="Lines and sizes that never print or cut" data-testid="guides">Guides</button>
    <template #content>
      <div class="guides" data-testid="guide-menu">
        <h3>Lines</h3>
        <div class="choices">
          <button class="verb" data-testid="guide-upright" @click="upright">Upright</button>
          <button class="verb" data-testid="guide-level" @click="level">Level</button>
        </div>
        <h3>Photos and papers, in inches</h3>
        <div class="choices">
          <button v-for="s in photos" :key="s.name" class="verb" :title="prefs.size(s.w, s.h)" @click="sized(s)">
            {{ s.name }}
          </button>
        </div>
        <h3>Envelopes</h3>
        <div class="choices">
          <button v-for="s in envelopes()" :key="s.name" class="verb" :title="prefs.size(s.w, s.h)" @click="sized(s)">
            {{ s.name.replace(' envelope', '') }}
          </button>
        </div>
        <small>Guides catch what is dragged. They are never printed or cut.</small>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.guides {
  width: 330px;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  margin: 2px -8px 8px;
}
</style>
