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

const about = computed(
  () =>
    `${prefs.size(props.card.width, props.card.height)} ${kindName(catalogue.all, props.card.kind)} · ${ago(props.card.changed, props.now)}`,
)

function renamed(title: string | undefined) {
  renaming.value = false
  if (title) emit('rename', title)
}
</script>

<template>
  <article class="tile" data-testid="card">
    <RouterLink class="pic" :to="`/cards/${card.id}/panels`" :aria-label="card.title">
      <img :src="api.standingURL(card, catalogue.all.stocksAre)" alt="" />
      <i class="shade" />
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
.pic {
  position: relative;
}
.pic img {
  position: relative;
  max-width: 196px;
  max-height: 166px;
  margin-bottom: 10px;
  transition: transform 0.15s;
  z-index: 1;
}
.pic:hover img {
  transform: translateY(-3px);
}
.shade {
  position: absolute;
  bottom: 4px;
  width: 150px;
  height: 14px;
  border-radius: 50%;
  background: #00000010;
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
