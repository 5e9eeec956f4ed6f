<script setup lang="ts">
// What is known of a stock. What is changed here is so for all cards.
import { Button, Select, SelectOption, Switch } from 'ant-design-vue'
import { ref } from 'vue'
import type { StockView } from '../api/types'
import Field from '../parts/Field.vue'
import NumberField from '../parts/NumberField.vue'
import OnHandPanel from '../stations/sheets/OnHandPanel.vue'
import CutSettings from '../stations/machine/CutSettings.vue'
import { useCatalogue } from '../store/catalogue'
import { useStocks } from '../store/stocks'
import ColourFromPhoto from './ColourFromPhoto.vue'

defineProps<{ stock: StockView }>()
const stocks = useStocks()
const catalogue = useCatalogue()
const pile = ref({ sheets: 10, together: 0 })
const photo = ref<File>()
const file = ref<HTMLInputElement>()
const text = (e: Event) => (e.target as HTMLInputElement).value
function picked(e: Event) {
  const field = e.target as HTMLInputElement
  photo.value = field.files?.[0]
  field.value = ''
}
function measure(together: number) {
  pile.value.together = together
  void stocks.change({ pile: { ...pile.value } })
}
const say = (why: string) => why && (stocks.wrong = why)
</script>

<template>
  <div class="form">
    <section class="sec">
      <div class="top">
        <div class="sheet" :style="{ background: stock.colour }" />
        <div class="pair">
          <Field label="Name" wide>
            <input
              class="bare name"
              :value="stock.name"
              maxlength="60"
              data-testid="stock-name"
              @change="stocks.change({ name: text($event).trim() })"
            />
          </Field>
          <Field label="Colour">
            <input
              type="color"
              class="colour"
              :value="stock.colour"
              data-testid="stock-colour"
              @change="stocks.change({ colour: text($event) })"
            />
            <button type="button" class="verb small" data-testid="stock-photo" @click.prevent="file?.click()">
              from a photo
            </button>
          </Field>
          <Field label="Pattern">
            <Select
              :value="stock.pattern ?? ''"
              :bordered="false"
              size="small"
              :list-height="260"
              data-testid="stock-pattern"
              @change="(v) => stocks.change({ pattern: String(v ?? '') || undefined })"
            >
              <SelectOption value="">none</SelectOption>
              <SelectOption
                v-for="p in catalogue.offered(catalogue.all.papers, stock.pattern)"
                :key="p.id"
                :value="p.id"
                >{{ p.name }}</SelectOption
              >
            </Select>
          </Field>
          <NumberField
            label="Weight"
            :value="stock.weight"
            :digits="0"
            sign=" g/m²"
            testid="stock-weight"
            @set="stocks.change({ weight: Math.round($event) })"
            @wrong="say"
          />
        </div>
      </div>
      <ColourFromPhoto
        v-if="photo"
        :file="photo"
        @pick="stocks.change({ colour: $event })"
        @wrong="say"
        @done="photo = undefined"
      />
      <input ref="file" type="file" hidden accept="image/*" data-testid="stock-photo-input" @change="picked" />
    </section>
    <section class="sec">
      <h3>Thickness</h3>
      <div class="pair">
        <NumberField
          label="One sheet"
          :value="stock.thickness"
          :digits="3"
          sign=" mm"
          testid="stock-thickness"
          @set="stocks.change({ thickness: $event })"
          @wrong="say"
        />
        <NumberField
          label="Least part"
          :value="stock.least || stock.usual"
          :digits="2"
          sign=" mm"
          testid="stock-least"
          @set="stocks.change({ least: $event === stock.usual ? 0 : $event })"
          @wrong="say"
        />
      </div>
      <div class="pile">
        <span>Measured in a pile:</span>
        <NumberField
          label="Sheets"
          :value="pile.sheets"
          :digits="0"
          testid="pile-sheets"
          @set="pile.sheets = Math.round($event)"
          @wrong="say"
        />
        <span>are</span>
        <NumberField
          label="Together"
          :value="pile.together"
          :digits="2"
          sign=" mm"
          testid="pile-together"
          @set="measure"
          @wrong="say"
        />
      </div>
      <small
        >Parts that are cut narrower than the least one tear.
        {{
          stock.least ? `${stock.usual} mm would follow from its thickness.` : 'It follows from the thickness.'
        }}</small
      >
    </section>
    <section class="sec">
      <h3>In the printer</h3>
      <label class="tick">
        <Switch
          size="small"
          :checked="!stock.noInk"
          data-testid="stock-ink"
          @change="(on) => stocks.change({ noInk: on !== true })"
        />
        Ink holds on it
      </label>
      <label class="tick">
        <Switch
          size="small"
          :checked="!!stock.coated"
          :disabled="stock.noInk"
          data-testid="stock-coated"
          @change="(on) => stocks.change({ coated: on === true })"
        />
        Coated for photos: its colours come out stronger
      </label>
    </section>
    <CutSettings :stock="stock" :settings="stock.cut" :usual="stock.asUsual" @kept="stocks.load()" />
    <OnHandPanel :stock="stock" />
    <section class="sec">
      <div class="pair">
        <NumberField
          label="A sheet costs"
          :value="stock.price ?? 0"
          :digits="2"
          testid="stock-price"
          @set="stocks.change({ price: $event })"
          @wrong="say"
        />
      </div>
      <div class="ends">
        <Button
          size="small"
          :title="stock.hidden ? '' : 'It is not offered any more; what is cut from it stays'"
          data-testid="stock-hide"
          @click="stocks.change({ hidden: !stock.hidden })"
          >{{ stock.hidden ? 'Back on the shelf' : 'Put it away' }}</Button
        >
        <Button v-if="stock.changed" size="small" data-testid="stock-ships" @click="stocks.asShips()"
          >As it came with the program</Button
        >
      </div>
      <p v-if="stocks.wrong" class="wrong" role="alert" data-testid="stock-wrong">{{ stocks.wrong }}</p>
    </section>
  </div>
</template>

<style scoped>
.form {
  overflow: auto;
}
.top {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr);
  gap: 16px;
  align-items: stretch;
}
.sheet {
  border-radius: 4px;
  box-shadow:
    inset 0 0 0 1px #0002,
    0 2px 5px #0002;
}
.name {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
  font-weight: 550;
}
.colour {
  flex: none;
  width: 30px;
  height: 22px;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}
.small {
  font-size: 11.5px;
  padding: 2px 6px;
}
.pile {
  display: grid;
  grid-template-columns: auto 110px auto 150px;
  gap: 8px;
  align-items: center;
  justify-content: start;
  margin: 8px 0 6px;
  color: var(--ink5);
  font-size: 12px;
}
.tick {
  display: flex;
  gap: 9px;
  align-items: center;
  padding: 3px 0;
}
.ends {
  display: flex;
  gap: 8px;
  margin-top: 10px;
}
h3 {
  margin-bottom: 8px;
}
</style>
