<script setup lang="ts">
// Odd pieces of paper on hand: what is not printed is cut from them first.
import { Button, message } from 'ant-design-vue'
import { computed, onMounted, ref } from 'vue'
import { api } from '../../api/client'
import type { SheetScrap as Scrap } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import StockField from '../../parts/StockField.vue'
import { useCatalogue } from '../../store/catalogue'
import { counted, shortStock } from '../../parts/names'
import { INCH } from '../../parts/measure'
import { usePrefs } from '../../store/prefs'
import { useSheets } from '../../store/sheets'

const props = defineProps<{ stock: string | undefined }>()
const catalogue = useCatalogue()
const prefs = usePrefs()
const sheets = useSheets()
const scraps = ref<Scrap[]>([])
const adding = ref<Scrap>()
onMounted(async () => (scraps.value = await api.scraps().catch(() => [])))

const name = (id: string) => shortStock(catalogue.all.stocks.find((s) => s.id === id)?.name ?? id)
/** What lies on a scrap of that size, as far as is laid. */
const use = (s: Scrap) =>
  counted(
    (sheets.layout?.sheets ?? [])
      .filter((sh) => sh.of < 0 && sh.stock.id === s.stock && sh.size.width === s.width && sh.size.height === s.height)
      .flatMap((sh) => sh.pieces.map((p) => p.name)),
  )
const rows = computed(() => scraps.value.map((s) => ({ ...s, use: use(s) })))

async function keep(list: Scrap[]) {
  try {
    await api.keepScraps(list)
    scraps.value = list
    adding.value = undefined
    await sheets.load()
  } catch (e) {
    void message.warning(e instanceof Error ? e.message : String(e))
  }
}
const begin = () => (adding.value = { stock: props.stock ?? 'cream-216', width: 5 * INCH, height: 3 * INCH })
const wrong = (why: string) => why && void message.warning(why)
</script>

<template>
  <div class="box" data-testid="scraps">
    <b>Scraps on hand</b>
    <ul v-if="rows.length">
      <li v-for="(s, i) in rows" :key="i">
        <span
          >{{ name(s.stock) }} · {{ prefs.size(s.width, s.height)
          }}<small>{{ s.use ? `used for ${s.use}` : 'not used' }}</small></span
        >
        <button
          class="verb"
          :aria-label="`Remove the scrap of ${name(s.stock)}`"
          title="It is used up"
          @click="keep(scraps.filter((_, k) => k !== i))"
        >
          ×
        </button>
      </li>
    </ul>
    <small v-else-if="!adding">Left-over paper that you add here is used first, for what is not printed.</small>
    <template v-if="adding">
      <StockField :value="adding.stock" testid="scrap-stock" @set="adding.stock = $event" />
      <div class="pair">
        <MeasureField label="W" :mm="adding.width" testid="scrap-width" @set="adding.width = $event" @wrong="wrong" />
        <MeasureField
          label="H"
          :mm="adding.height"
          testid="scrap-height"
          @set="adding.height = $event"
          @wrong="wrong"
        />
      </div>
      <div class="buttons">
        <Button type="primary" size="small" data-testid="scrap-keep" @click="keep([...scraps, adding])">Add it</Button>
        <Button size="small" @click="adding = undefined">Cancel</Button>
      </div>
    </template>
    <Button v-else size="small" class="add" data-testid="scrap-add" @click="begin">Add a scrap</Button>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  max-height: 150px;
  overflow: auto;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: start;
}
li small {
  display: block;
}
li .verb {
  padding: 0 6px;
}
.pair {
  margin-top: 6px;
}
.buttons,
.add {
  margin-top: 8px;
}
.buttons {
  display: flex;
  gap: 6px;
}
</style>
