<script setup lang="ts">
import { Button, Dropdown, Menu, MenuDivider, MenuItem, MenuItemGroup, Segmented, Tooltip } from 'ant-design-vue'
import { useNow } from '@vueuse/core'
import { computed, ref } from 'vue'
import { api } from '../api/client'
import { stations, type Place, type Station } from '../router'
import { useCard } from '../store/card'
import { useAssembly } from '../store/assembly'
import { useCheck } from '../store/check'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'
import { kindName } from './names'
import { ago } from './measure'
import { useLater } from './useLater'
import { useOut } from './useOut'
import StationStrip from './StationStrip.vue'
import Wordmark from './Wordmark.vue'
import NameInput from './NameInput.vue'

const props = defineProps<{ here: Place; sheets: number | undefined; waiting?: number; machine: string }>()
defineEmits<{ go: [station: Station] }>()

const card = useCard()
const catalogue = useCatalogue()
const check = useCheck()
const assembly = useAssembly()
const prefs = usePrefs()
const now = useNow({ interval: 15000 })
const renaming = ref(false)
const ready = useLater()
const out = useOut()

const list = computed(() => {
  const v = card.view
  if (!v) return []
  const used = v.card.faces.filter((f) => f.items.length).length
  const facts: Record<Station, string> = {
    base: kindName(catalogue.all, v.card.base.kind),
    panels: used === 0 ? 'empty' : used === 1 ? '1 face' : `${used} faces`,
    sheets:
      props.sheets === undefined
        ? '…'
        : (props.sheets === 1 ? '1 sheet' : `${props.sheets} sheets`) +
          (props.waiting ? `, ${props.waiting} not laid` : ''),
    check: check.fact,
    machine: props.machine,
    assembly: assembly.fact,
  }
  const names: Record<Station, string> = {
    base: 'Base',
    panels: 'Panels',
    check: 'Check',
    sheets: 'Sheets',
    machine: 'Machine',
    assembly: 'Assembly',
  }
  return stations.map((id) => ({ id, name: names[id], fact: facts[id] }))
})

const outlinesOf = computed(() => {
  const n = card.selected.length
  return n === 0
    ? `Outlines of ${card.face?.name}`
    : n === 1
      ? `Outline of ${card.selected[0]!.name}`
      : `Outlines of ${n} items`
})

const about = computed(() => {
  const b = card.view?.card.base
  return b ? `${prefs.size(b.width, b.height)} ${kindName(catalogue.all, b.kind)}` : ''
})
const saved = computed(() => {
  const v = card.view
  if (!v || card.saving) return 'saving…'
  return 'saved ' + ago(v.saved, Math.max(now.value.getTime(), Date.parse(v.saved)))
})
/** Whom it is made for. */
const forWhom = computed(() => {
  const n = card.view?.card.names?.rows.length ?? 0
  return n ? (n === 1 ? 'for 1 name' : `for ${n} names`) : 'for names …'
})

function rename(title: string | undefined) {
  renaming.value = false
  if (title) void card.change({ do: 'renameCard', title })
}
</script>

<template>
  <header v-if="card.view" class="top">
    <Wordmark class="brand" />
    <div class="title">
      <NameInput
        v-if="renaming"
        :value="card.view.card.title"
        label="Title of the card"
        data-testid="title-input"
        @done="rename"
      />
      <button
        v-else
        class="bare name"
        :title="card.view.card.title + ' — click to rename'"
        data-testid="title"
        @click="renaming = true"
      >
        {{ card.view.card.title }}
      </button>
      <span v-if="card.stop" role="status">
        Working on it…
        <button class="stop" data-testid="stop-change" @click="card.stop()">Stop</button>
      </span>
      <span v-else data-testid="about">
        {{ about }} ·
        <RouterLink
          :to="`/cards/${card.id}/names`"
          class="for"
          :class="{ here: here === 'names' }"
          :title="card.view.card.names ? 'The list, and the cards by name' : 'Make this card for a list of names'"
          data-testid="for-names"
          >{{ forWhom }}</RouterLink
        >
        <br />{{ saved }}
      </span>
    </div>
    <StationStrip :here="here === 'names' ? 'panels' : here" :list="list" @go="$emit('go', $event)" />
    <div class="acts">
      <template v-if="ready">
        <Segmented
          v-model:value="prefs.unit"
          :options="['in', 'mm']"
          size="small"
          aria-label="Unit"
          data-testid="unit"
        />
        <Tooltip :title="card.view.undo ? 'Undo: ' + card.view.undo : 'Nothing to undo'">
          <Button :disabled="!card.view.undo" aria-label="Undo" data-testid="undo" @click="card.undo()">
            <svg
              width="14"
              height="14"
              viewBox="0 0 14 14"
              fill="none"
              stroke="currentColor"
              stroke-width="1.6"
              stroke-linecap="round"
            >
              <path d="M2 5.5h6.2a3.3 3.3 0 0 1 0 6.6H5.5M4.8 2.4 1.8 5.5l3 3.1" />
            </svg>
          </Button>
        </Tooltip>
        <Tooltip :title="card.view.redo ? 'Redo: ' + card.view.redo : 'Nothing to redo'">
          <Button :disabled="!card.view.redo" aria-label="Redo" data-testid="redo" @click="card.redo()">
            <svg
              width="14"
              height="14"
              viewBox="0 0 14 14"
              fill="none"
              stroke="currentColor"
              stroke-width="1.6"
              stroke-linecap="round"
            >
              <path d="M12 5.5H5.8a3.3 3.3 0 0 0 0 6.6h2.7M9.2 2.4l3 3.1-3 3.1" />
            </svg>
          </Button>
        </Tooltip>
        <Dropdown :trigger="['click']">
          <Button data-testid="files-out">Files out</Button>
          <template #overlay>
            <Menu>
              <template v-if="here === 'panels' && card.face">
                <MenuItemGroup :title="outlinesOf">
                  <MenuItem v-for="f in catalogue.all.formats" :key="f.id">
                    <a
                      :href="api.outlinesURL(card.id, card.face.id, f.id, card.selection)"
                      download
                      :data-testid="'out-' + f.id"
                      >{{ f.name }}</a
                    >
                  </MenuItem>
                </MenuItemGroup>
                <MenuDivider />
              </template>
              <MenuItem key="card">
                <a :href="api.cardFileURL(card.id)" download data-testid="out-card">The whole card, to hand on</a>
              </MenuItem>
              <MenuDivider />
              <MenuItem key="pdf">
                <a :href="api.pdfURL(card.id, false, false)" download data-testid="out-pdf" @click="out.ask"
                  >What is printed, as PDF</a
                >
              </MenuItem>
              <MenuItem key="lines">
                <a :href="api.pdfURL(card.id, true, prefs.spot)" download @click="out.ask">Print and lines, as PDF</a>
              </MenuItem>
              <MenuItem key="all">
                <a :href="api.zipURL(card.id, prefs.unit)" download data-testid="out-all" @click="out.ask"
                  >All sheets with their lines and runs, as ZIP</a
                >
              </MenuItem>
            </Menu>
          </template>
        </Dropdown>
      </template>
    </div>
  </header>
</template>

<style scoped>
.top {
  display: flex;
  align-items: stretch;
  height: 56px;
  background: var(--paper0);
  border-bottom: 1px solid var(--paper3);
}
.brand {
  width: 204px;
  flex: none;
  padding-left: 16px;
}
.title {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  justify-content: center;
  padding-left: 4px;
}
.title span {
  color: var(--ink5);
  font-size: 11.5px;
  line-height: 14px;
  max-height: 28px;
  overflow: hidden;
}
.for {
  color: inherit;
  white-space: nowrap;
  text-decoration: underline dotted var(--ink3);
  text-underline-offset: 2px;
}
.for:hover,
.for.here {
  color: var(--brick);
}
.stop {
  border: 0;
  padding: 0 2px;
  background: none;
  font: inherit;
  font-weight: 600;
  color: var(--rust);
  cursor: pointer;
}
.name,
.title input {
  font: 650 14px 'Figtree Variable';
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 100%;
}
.title input {
  border: 1px solid var(--blue);
  border-radius: 4px;
  outline: 0;
  padding: 0 4px;
  margin-left: -5px;
  background: #fff;
}
.acts {
  min-width: 238px;
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 8px;
  padding-right: 14px;
}
.acts :deep(.ant-btn:has(svg)) {
  width: 35px;
  padding: 0;
  display: grid;
  place-items: center;
}
@media (max-width: 1200px) {
  .brand {
    width: 52px;
    overflow: hidden;
    font-size: 0;
  }
}
</style>
