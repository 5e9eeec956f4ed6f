<script setup lang="ts">
// What a sheet is, and its files.
import { Select, SelectOption } from 'ant-design-vue'
import { api } from '../../api/client'
import type { SheetView } from '../../api/types'
import Field from '../../parts/Field.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useOut } from '../../parts/useOut'

defineProps<{ sheet: SheetView }>()
const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const out = useOut()
</script>

<template>
  <section class="sec">
    <h3>{{ sheet.of < 0 ? 'Scrap' : 'Sheet' }} {{ sheet.number }}</h3>
    <div class="facts">
      <span>Stock</span><b>{{ sheet.stock.name }}</b>
      <template v-if="sheet.of < 0"
        ><span>Size</span><b>{{ prefs.size(sheet.size.width, sheet.size.height) }}</b></template
      >
      <span>Printed</span><b>{{ sheet.twoSided ? 'on both sides' : sheet.printed ? 'on one side' : 'not' }}</b>
      <span>Pieces</span><b>{{ sheet.pieces.length }}</b> <span>Marks</span
      ><b>{{ sheet.marks.length ? 'four, one of them doubled' : sheet.crops?.length ? 'crop marks' : 'none' }}</b>
    </div>
    <div class="files">
      <a
        v-for="f in catalogue.all.formats"
        :key="f.id"
        class="verb"
        :href="api.linesURL(card.id, sheet.number, f.extensions[0]!)"
        :title="`The lines of the sheet as ${f.name}`"
        download
        :data-testid="f.id"
        @click="out.ask"
        >{{ f.name }}</a
      >
      <a
        v-if="sheet.printed"
        class="verb"
        :href="api.pageURL(card.id, sheet.number, prefs.picture.kind, prefs.picture.dpi)"
        title="The printed side as a picture in true size"
        download
        data-testid="png"
        @click="out.ask"
        >Page, {{ prefs.picture.kind === 'png' ? 'PNG' : 'JPEG' }}</a
      >
    </div>
    <div v-if="sheet.printed" class="pair as">
      <Field label="Pages as">
        <Select v-model:value="prefs.picture.kind" :bordered="false" size="small" data-testid="page-kind">
          <SelectOption value="png">PNG</SelectOption>
          <SelectOption value="jpg">JPEG</SelectOption>
        </Select>
      </Field>
      <Field label="dpi">
        <Select v-model:value="prefs.picture.dpi" :bordered="false" size="small" data-testid="page-dpi">
          <SelectOption v-for="d in [150, 200, 300, 400, 600]" :key="d" :value="d">{{ d }}</SelectOption>
        </Select>
      </Field>
    </div>
  </section>
</template>

<style scoped>
a.verb {
  text-decoration: none;
  color: var(--brick);
}
.as {
  margin-top: 8px;
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  margin: 8px -8px 0;
}
</style>
