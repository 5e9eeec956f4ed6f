<script setup lang="ts">
// All colours of the card: given to what is selected, or changed everywhere.
import { Popover, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { SceneColourUse } from '../../api/types'
import PanelSection from '../../parts/PanelSection.vue'
import Field from '../../parts/Field.vue'
import { usePopover } from '../../parts/usePopover'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePhotoColours } from '../../store/photoColours'
import { useTool } from '../../store/tool'

const card = useCard()
const catalogue = useCatalogue()
const photos = usePhotoColours()
const tool = useTool()
const open = ref('')
const isOpen = computed({ get: () => !!open.value, set: (on) => on || (open.value = '') })
usePopover(isOpen)

const uses = computed<SceneColourUse[]>(() => card.view?.scene.colours ?? [])
const twins = computed(() => uses.value.filter((u) => u.twin))
const inkable = computed(() =>
  card.told.filter((it) => it.kind !== 'photo' && !it.slot && (!it.role || it.role === 'pen')),
)
const ids = computed(() => inkable.value.map((it) => it.id))
/** The inks of several things that are selected, such as the parts of a graphic. */
const own = computed(() => {
  const all = new Set(inkable.value.map((it) => it.fill.colour).filter((c) => c !== undefined))
  return inkable.value.length > 1 && all.size > 1 ? [...all] : []
})

/** Inks offered beside those of the card. */
const more = ['#1f2b38', '#a8432a', '#e2a42b', '#587a4a', '#35472c', '#35658c', '#7a4666', '#fffdf9']
const offered = computed(() => more.filter((c) => !uses.value.some((u) => u.colour === c)))

const give = (c: string) => void card.change({ do: 'setFill', ids: ids.value, fill: { colour: c } })
async function change(from: string[], to: string, some?: string[]) {
  open.value = ''
  await card.change({ do: 'recolour', from, to, ...(some ? { ids: some } : {}) })
}
const chosen = (from: string, e: Event, some?: string[]) =>
  void change([from], (e.target as HTMLInputElement).value, some)
/** The papers of the card, each with how many things have it. */
const papers = computed(() => {
  const uses = new Map<string, number>()
  for (const f of card.view?.card.faces ?? [])
    for (const it of f.items) if (it.fill.paper) uses.set(it.fill.paper, (uses.get(it.fill.paper) ?? 0) + 1)
  return [...uses].map(([id, n]) => ({ id, n, name: catalogue.all.papers.find((p) => p.id === id)?.name ?? id }))
})
const repaper = (from: string, to: string) => void card.change({ do: 'repaper', from, to })
/** Makes one of all colours that are nearly the same. */
const joinAll = () =>
  void card.change(...twins.value.map((u) => ({ do: 'recolour' as const, from: [u.colour], to: u.twin! })))
const count = (n: number) => (n === 1 ? 'one thing' : `${n} things`)
</script>

<template>
  <PanelSection v-if="card.view" id="colours" title="Colours in this card">
    <template #fact
      ><i v-for="u in uses.slice(0, 6)" :key="u.colour" class="dot" :style="{ background: u.colour }"
    /></template>
    <div class="swatches">
      <Popover
        v-for="u in uses"
        :key="u.colour"
        :open="open === u.colour"
        trigger="click"
        placement="left"
        @update:open="open = $event ? u.colour : ''"
      >
        <button
          class="swatch"
          :class="{ twin: u.twin }"
          :style="{
            background: u.seen ? `linear-gradient(135deg, ${u.colour} 60%, ${u.seen} 60%)` : u.colour,
          }"
          :title="`${u.colour}, on ${count(u.count)}` + (u.seen ? `; on its stock it comes out about ${u.seen}` : '')"
          :aria-label="`Colour ${u.colour}, on ${count(u.count)}`"
          :data-testid="'colour-' + u.colour.slice(1)"
        />
        <template #content>
          <div class="one" data-testid="colour-menu">
            <b>{{ u.colour }}</b>
            <small>on {{ count(u.count) }}</small>
            <p v-if="u.seen" class="dull" data-testid="colour-dull">
              <i :style="{ background: u.seen }" /> is how it prints.
              <button
                v-if="u.prints"
                class="verb"
                title="Take the nearest colour that prints on its stock"
                data-testid="colour-prints"
                @click="change([u.colour], u.prints)"
              >
                Take that
              </button>
            </p>
            <button v-if="inkable.length" class="verb" data-testid="colour-give" @click="((open = ''), give(u.colour))">
              Give it to what is selected
            </button>
            <label class="verb">
              Change it everywhere
              <input
                type="color"
                :value="u.colour"
                data-testid="colour-everywhere"
                @change="chosen(u.colour, $event)"
              />
            </label>
            <button class="verb" @click="((open = ''), tool.pick((c) => change([u.colour], c)))">
              Change it everywhere to one on the face
            </button>
          </div>
        </template>
      </Popover>
      <span v-if="!uses.length" class="none">Nothing is printed in a colour yet.</span>
    </div>
    <div v-for="u in twins" :key="u.colour" class="near" data-testid="twins">
      <i :style="{ background: u.colour }" /><i :style="{ background: u.twin }" />
      <span>are nearly the same</span>
      <button class="verb" data-testid="join-twins" @click="change([u.colour], u.twin!)">Join them</button>
    </div>
    <button v-if="twins.length > 1" class="verb" data-testid="join-all" @click="joinAll">Join all of these</button>
    <template v-if="papers.length">
      <small class="also">Papers in this card</small>
      <Field v-for="p in papers" :key="p.id" :label="p.n === 1 ? 'On 1' : 'On ' + p.n" wide class="paper">
        <Select
          :value="p.id"
          :bordered="false"
          size="small"
          :list-height="300"
          :data-testid="'repaper-' + p.id"
          @change="(v) => repaper(p.id, String(v))"
        >
          <SelectOption v-for="o in catalogue.papers" :key="o.id" :value="o.id">{{ o.name }}</SelectOption>
        </Select>
      </Field>
    </template>
    <template v-if="own.length">
      <small class="also">In what is selected</small>
      <div class="swatches">
        <label v-for="c in own" :key="c" class="swatch" :style="{ background: c }" :title="'Change ' + c + ' here'">
          <input type="color" :value="c" :aria-label="'Change ' + c + ' here'" @change="chosen(c, $event, ids)" />
        </label>
      </div>
    </template>
    <template v-for="(p, i) in photos.all" :key="p.id">
      <small class="also">Of {{ p.name }}</small>
      <div class="swatches small" :data-testid="'palette-' + i">
        <button
          v-for="c in p.colours"
          :key="c"
          class="swatch"
          :style="{ background: c }"
          :title="c"
          :aria-label="'Colour ' + c"
          :disabled="!inkable.length"
          @click="give(c)"
        />
      </div>
    </template>
    <template v-if="inkable.length">
      <small class="also">Other inks</small>
      <div class="swatches small">
        <button
          v-for="c in offered"
          :key="c"
          class="swatch"
          :style="{ background: c }"
          :title="c"
          :aria-label="'Colour ' + c"
          @click="give(c)"
        />
        <button class="verb" data-testid="pick-colour" @click="tool.pick(give)">Pick from the face</button>
      </div>
    </template>
  </PanelSection>
</template>

<style scoped>
.dot {
  width: 16px;
  height: 16px;
  border-radius: 50%;
  box-shadow: inset 0 0 0 1px #0002;
}
.swatches {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 7px;
}
.swatch {
  width: 24px;
  height: 24px;
  padding: 0;
  border: 0;
  border-radius: 6px;
  box-shadow: inset 0 0 0 1px #0002;
  cursor: pointer;
}
.dull {
  display: flex;
  align-items: center;
  gap: 6px;
  margin: 4px 0;
  font-size: 12px;
}
.dull i {
  width: 16px;
  height: 16px;
  border-radius: 4px;
}
.swatch.twin {
  box-shadow:
    inset 0 0 0 1px #0002,
    0 0 0 2px var(--paper0),
    0 0 0 3.5px var(--caution);
}
.swatch input {
  opacity: 0;
  width: 100%;
  height: 100%;
  cursor: pointer;
}
.small .swatch {
  width: 20px;
  height: 20px;
}
.one {
  display: grid;
  width: 250px;
  margin: -4px -6px;
}
.one b,
.one small {
  padding: 0 8px;
}
.one .verb {
  display: flex;
  justify-content: space-between;
  align-items: center;
  text-align: left;
}

.paper {
  margin-bottom: 6px;
}
.near {
  display: flex;
  align-items: center;
  gap: 5px;
  margin-top: 8px;
}
.near i {
  width: 16px;
  height: 16px;
  border-radius: 4px;
  box-shadow: inset 0 0 0 1px #0002;
}
.none,
.also {
  color: var(--ink5);
  font-size: 11.5px;
}
.also {
  margin: 8px 0 5px;
}
</style>
