<script setup lang="ts">
// Laying out what is selected: by each other, by the face, and on other faces.
import { Popover, Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Command, LineUp } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import { INCH } from '../../parts/measure'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'

const card = useCard()
const open = ref(false)
usePopover(open, '[data-testid=arrange-dialog]')
const to = ref<LineUp['to']>('eachOther')
const gap = ref(INCH / 8)
const wrong = ref('')

const ids = computed(() => card.selected.map((it) => it.id))
const several = computed(() => ids.value.length > 1)
const target = computed(() => (several.value ? to.value : 'face'))
const targets = [
  { value: 'eachOther', label: 'Each other' },
  { value: 'face', label: 'The face' },
  { value: 'first', label: 'The first' },
]
const rows: [LineUp['edges'][number], string][][] = [
  [
    ['left', 'Left'],
    ['centre', 'Centre'],
    ['right', 'Right'],
  ],
  [
    ['top', 'Top'],
    ['middle', 'Middle'],
    ['bottom', 'Bottom'],
  ],
]
const otherFaces = computed(() => card.view?.scene.faces.filter((f) => f.id !== card.faceId) ?? [])

const act = (c: Command) => card.change(c)
const lineUp = (edges: LineUp['edges'], by = target.value) => act({ do: 'lineUp', ids: ids.value, edges, to: by })
const space = (down: boolean, by?: number) =>
  act({ do: 'spaceOut', ids: ids.value, down, ...(by === undefined ? {} : { gap: by }) })
const match = (width: boolean, height: boolean) => act({ do: 'matchSize', ids: ids.value, width, height })
const stretch = (width: boolean, height: boolean) => act({ do: 'stretch', ids: ids.value, width, height })
async function mirror(level: boolean, face: boolean, copy: boolean) {
  await card.selectMade(act({ do: 'mirrorItems', ids: ids.value, level, face, copy }), (v) =>
    copy ? (v.made ?? []) : [],
  )
}
/** Copies what is selected to all other faces, in its size or with its margins. */
async function copyAll(fit: boolean) {
  const faces = otherFaces.value.map((f) => f.id)
  if (await act({ do: 'copyToFaces', ids: ids.value, faces, fit })) open.value = false
}
async function put(face: string, copy: boolean) {
  const f = card.view?.scene.faces.find((o) => o.id === face)
  const asked = act({ do: 'putOnFace', ids: ids.value, face, copy })
  const v = await asked
  if (!v || !f) return
  open.value = false
  card.work(f.id)
  await card.selectMade(asked)
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft">
    <button class="verb" data-testid="arrange">Arrange</button>
    <template #content>
      <div class="arrange" data-testid="arrange-dialog">
        <h3>Line up to</h3>
        <Segmented v-if="several" v-model:value="to" block :options="targets" data-testid="line-up-to" />
        <small v-else>the face</small>
        <div v-for="(row, i) in rows" :key="i" class="choices">
          <button v-for="[e, name] in row" :key="e" class="verb" :data-testid="'line-up-' + e" @click="lineUp([e])">
            {{ name }}
          </button>
        </div>
        <button class="verb whole" data-testid="centre-on-face" @click="lineUp(['centre', 'middle'], 'face')">
          Centre on the face
        </button>

        <template v-if="several">
          <h3>Space out</h3>
          <div class="choices">
            <button class="verb" data-testid="space-across" :disabled="ids.length < 3" @click="space(false)">
              Across, evenly
            </button>
            <button class="verb" data-testid="space-down" :disabled="ids.length < 3" @click="space(true)">
              Down, evenly
            </button>
          </div>
          <div class="choices gap">
            <MeasureField
              label="Gap"
              :mm="gap"
              testid="space-gap"
              @set="((gap = $event), (wrong = ''))"
              @wrong="wrong = $event"
            />
            <button class="verb" data-testid="gap-across" @click="space(false, gap)">across</button>
            <button class="verb" data-testid="gap-down" @click="space(true, gap)">down</button>
          </div>
          <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
          <h3>As large as the first</h3>
          <div class="choices">
            <button class="verb" data-testid="match-width" @click="match(true, false)">Width</button>
            <button class="verb" data-testid="match-height" @click="match(false, true)">Height</button>
            <button class="verb" data-testid="match-both" @click="match(true, true)">Both</button>
          </div>
        </template>
        <h3>Stretch to the face</h3>
        <div class="choices">
          <button class="verb" data-testid="stretch-width" @click="stretch(true, false)">Width</button>
          <button class="verb" data-testid="stretch-height" @click="stretch(false, true)">Height</button>
          <button class="verb" data-testid="stretch-both" @click="stretch(true, true)">Both</button>
        </div>
        <h3>Mirror</h3>
        <div class="choices">
          <button class="verb" data-testid="mirror-across" @click="mirror(false, false, false)">Left to right</button>
          <button class="verb" data-testid="mirror-down" @click="mirror(true, false, false)">Top to bottom</button>
        </div>
        <small>Mirrored copy on the other half of the face</small>
        <div class="choices">
          <button class="verb" data-testid="mirror-copy-across" @click="mirror(false, true, true)">
            Left to right
          </button>
          <button class="verb" data-testid="mirror-copy-down" @click="mirror(true, true, true)">Top to bottom</button>
        </div>
        <template v-if="otherFaces.length">
          <h3>Same place on another face</h3>
          <div v-if="otherFaces.length > 1" class="choices face">
            <span>All others</span>
            <button class="verb" data-testid="copy-to-all" @click="copyAll(false)">Copy</button>
            <button
              class="verb"
              title="As large as each face leaves between the margins that it has here"
              data-testid="fit-to-all"
              @click="copyAll(true)"
            >
              Copy, fitted
            </button>
          </div>
          <div v-for="f in otherFaces" :key="f.id" class="choices face">
            <span>{{ f.name }}</span>
            <button class="verb" :data-testid="'move-to-' + f.id" @click="put(f.id, false)">Move</button>
            <button class="verb" :data-testid="'copy-to-' + f.id" @click="put(f.id, true)">Copy</button>
          </div>
        </template>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.arrange {
  width: 272px;
  max-height: calc(100vh - 190px);
  margin: -4px -6px;
  padding: 0 6px;
  overflow-y: auto;
}
h3 {
  margin: 10px 0 4px;
}
h3:first-child {
  margin-top: 0;
}
.choices {
  display: flex;
  align-items: center;
  margin: 2px -8px 0;
}
.choices .verb {
  flex: 1;
  text-align: left;
}
.whole {
  margin-left: -8px;
}
.gap {
  margin-left: 0;
}
.gap :deep(.field) {
  flex: 1;
}
.gap .verb {
  flex: none;
}
.face span {
  flex: 2;
  padding-left: 8px;
}
.face .verb {
  flex: none;
}
</style>
