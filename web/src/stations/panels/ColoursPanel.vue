<script setup lang="ts">
// The ink of what is selected, and all colours of the card to choose from.
import { Select, SelectOption } from 'ant-design-vue'
import { computed } from 'vue'
import Field from '../../parts/Field.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'

const card = useCard()
const catalogue = useCatalogue()

const inkable = computed(() => card.selected.filter((it) => it.kind !== 'photo'))
const fill = computed(() => inkable.value[0]?.fill)
const pieces = computed(() => inkable.value.every((it) => it.piece))
const words = computed(() => inkable.value.some((it) => it.kind === 'lettering'))
const ids = computed(() => inkable.value.map((it) => it.id))

const kind = computed(() => (fill.value?.paper ? fill.value.paper : fill.value?.colour ? 'colour' : 'none'))

/** Inks offered beside those of the card. */
const more = ['#1f2b38', '#a8432a', '#e2a42b', '#587a4a', '#35472c', '#35658c', '#7a4666', '#fffdf9']
const offered = computed(() => more.filter((c) => !card.view?.scene.colours.includes(c)))

function set(v: string) {
  if (v === 'none') void card.change({ do: 'setFill', ids: ids.value, fill: {} })
  else if (v === 'colour') void card.change({ do: 'setFill', ids: ids.value, fill: { colour: '#a8432a' } })
  else void card.change({ do: 'setFill', ids: ids.value, fill: { paper: v } })
}

const colour = (c: string) =>
  inkable.value.length && void card.change({ do: 'setFill', ids: ids.value, fill: { colour: c } })
const picked = (e: Event) => colour((e.target as HTMLInputElement).value)
</script>

<template>
  <section v-if="inkable.length" class="sec" data-testid="ink">
    <h3>Ink</h3>
    <div class="pair">
      <Field label="Fill" wide>
        <Select
          :value="kind"
          :bordered="false"
          size="small"
          :list-height="300"
          data-testid="fill"
          @change="(v) => set(String(v))"
        >
          <SelectOption v-if="pieces || kind === 'none'" value="none" :disabled="!pieces"
            >None, the stock shows</SelectOption
          >
          <SelectOption value="colour">Colour</SelectOption>
          <template v-if="!words">
            <SelectOption v-for="p in catalogue.all.papers" :key="p.id" :value="p.id">
              <span class="line"><img :src="`/api/papers/${p.id}.svg`" alt="" />{{ p.name }}</span>
            </SelectOption>
          </template>
        </Select>
        <input
          v-if="kind === 'colour'"
          type="color"
          :value="fill?.colour"
          aria-label="Colour"
          data-testid="colour"
          @change="picked"
        />
      </Field>
    </div>
  </section>
  <section v-if="card.view" class="sec" data-testid="colours">
    <h3>Colours in this card</h3>
    <div class="swatches">
      <button
        v-for="c in card.view.scene.colours"
        :key="c"
        :style="{ background: c }"
        :title="c"
        :disabled="!inkable.length"
        :aria-label="'Colour ' + c"
        @click="colour(c)"
      />
      <span v-if="!card.view.scene.colours.length" class="none">Nothing is printed in a colour yet.</span>
    </div>
    <template v-if="inkable.length">
      <small class="also">Other inks</small>
      <div class="swatches small">
        <button
          v-for="c in offered"
          :key="c"
          :style="{ background: c }"
          :title="c"
          :aria-label="'Colour ' + c"
          @click="colour(c)"
        />
      </div>
    </template>
    <small v-else-if="card.view.scene.colours.length" class="also">Select something to give it one of these.</small>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 7px;
}
.line img {
  width: 20px;
  height: 20px;
  border-radius: 3px;
  object-fit: cover;
}
input[type='color'] {
  flex: none;
  width: 30px;
  height: 22px;
  margin-right: 5px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background: none;
  cursor: pointer;
}
.swatches {
  display: flex;
  flex-wrap: wrap;
  gap: 7px;
}
.swatches button {
  width: 24px;
  height: 24px;
  border: 0;
  border-radius: 6px;
  box-shadow: inset 0 0 0 1px #0002;
  cursor: pointer;
}
.swatches.small button {
  width: 20px;
  height: 20px;
}
.swatches button:disabled {
  cursor: default;
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
