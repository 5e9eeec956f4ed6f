<script setup lang="ts">
// One card on the table, as a small folded card standing ajar.
import { Button, Dropdown, Menu, MenuItem } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import type { Summary } from '../../api/types'
import { ago } from '../../parts/measure'
import { kindName } from '../../parts/names'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import NameInput from '../../parts/NameInput.vue'

const props = defineProps<{ card: Summary; now: number }>()
const emit = defineEmits<{ rename: [title: string]; copy: []; remove: [] }>()

const prefs = usePrefs()
const catalogue = useCatalogue()
const renaming = ref(false)

const stock = computed(() => catalogue.stock(props.card.stock)?.colour ?? '#fff6e0')
/** The card as it stands: the front slopes, and its other leaf shows behind it. */
const drawn = computed(() => {
  const c = props.card
  const k = 150 / Math.max(c.width, c.height)
  const w = c.width * k
  const h = c.height * k
  if (c.kind === 'topFold') {
    return { w, h, front: `matrix(1 0 ${-0.07} .97 10 6)`, back: `M10 6H${w + 10}L${w + 24} ${h + 2}H26z` }
  }
  if (c.kind === 'flat') return { w, h, front: 'matrix(1 0 0 1 8 4)', back: '' }
  return {
    w,
    h,
    front: `matrix(.92 ${(5 / w).toFixed(4)} 0 .985 0 2)`,
    back: `M0 2L${w * 0.22} 9L${w * 1.07} 3V${h * 0.98}L${w * 0.22} ${h + 6}L0 ${h}z`,
  }
})
const about = computed(
  () =>
    `${prefs.size(props.card.width, props.card.height)} ${kindName(props.card.kind)} · ${ago(props.card.changed, props.now)}`,
)

function renamed(title: string | undefined) {
  renaming.value = false
  if (title) emit('rename', title)
}
</script>

<template>
  <article class="tile" data-testid="card">
    <RouterLink class="pic" :to="`/cards/${card.id}/panels`" :aria-label="card.title">
      <svg
        :width="drawn.w + 44"
        :height="drawn.h + 24"
        :viewBox="`-8 -6 ${drawn.w + 44} ${drawn.h + 26}`"
        aria-hidden="true"
      >
        <ellipse :cx="drawn.w / 2 + 10" :cy="drawn.h + 8" :rx="drawn.w / 2 + 14" ry="7" fill="#00000010" />
        <path :d="drawn.back" :fill="stock" stroke="#d8c9af" stroke-linejoin="round" />
        <path :d="drawn.back" fill="#5b4526" opacity=".14" />
        <g :transform="drawn.front">
          <rect :width="drawn.w" :height="drawn.h" :fill="stock" />
          <image
            :href="api.frontURL(card.id, card.revision)"
            :width="drawn.w"
            :height="drawn.h"
            preserveAspectRatio="none"
          />
          <rect :width="drawn.w" :height="drawn.h" fill="none" stroke="#cdbb9b" stroke-width=".8" />
        </g>
      </svg>
    </RouterLink>
    <div class="text">
      <NameInput
        v-if="renaming"
        :value="card.title"
        label="Title of the card"
        data-testid="tile-title"
        @done="renamed"
      />
      <b v-else :title="card.title">{{ card.title }}</b>
      <small>{{ about }}</small>
    </div>
    <Dropdown :trigger="['click']" placement="bottomRight">
      <Button
        class="more"
        size="small"
        type="text"
        :aria-label="'What to do with ' + card.title"
        data-testid="tile-more"
      >
        <svg width="14" height="4" viewBox="0 0 14 4" fill="currentColor">
          <circle cx="2" cy="2" r="1.6" />
          <circle cx="7" cy="2" r="1.6" />
          <circle cx="12" cy="2" r="1.6" />
        </svg>
      </Button>
      <template #overlay>
        <Menu>
          <MenuItem key="rename" data-testid="tile-rename" @click="renaming = true">Rename</MenuItem>
          <MenuItem key="copy" data-testid="tile-copy" @click="emit('copy')">Duplicate</MenuItem>
          <MenuItem key="remove" data-testid="tile-remove" @click="emit('remove')">Delete</MenuItem>
        </Menu>
      </template>
    </Dropdown>
  </article>
</template>

<style scoped>
.tile {
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 10px;
  min-width: 0;
}
.pic {
  height: 196px;
  width: 100%;
  display: flex;
  align-items: flex-end;
  justify-content: center;
  border-radius: 8px;
}
.pic svg {
  transition: transform 0.15s;
}
.pic:hover svg {
  transform: translateY(-3px);
}
.text {
  text-align: center;
  max-width: 100%;
}
b {
  display: block;
  font-weight: 620;
  font-size: 13.5px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
input {
  width: 100%;
  text-align: center;
  font: 620 13.5px 'Figtree Variable';
  border: 1px solid var(--blue);
  border-radius: 4px;
  outline: 0;
}
.more {
  position: absolute;
  right: 6px;
  top: 6px;
  opacity: 0;
}
.tile:hover .more,
.tile:focus-within .more,
.more.ant-dropdown-open {
  opacity: 1;
}
@media (hover: none) {
  .more {
    opacity: 1;
  }
}
</style>
