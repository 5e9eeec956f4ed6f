<script setup lang="ts">
// No list yet: it is brought in from a file, pasted or typed.
import { Button, Select, SelectOption } from 'ant-design-vue'
import { ref } from 'vue'
import Field from '../../parts/Field.vue'
import { useCatalogue } from '../../store/catalogue'
import { useNames } from '../../store/names'

const names = useNames()
const catalogue = useCatalogue()
/** How the letters of a file are written, where a person says so. */
const encoding = ref('')
const text = ref('')
const wrong = ref('')
const over = ref(false)
const input = ref<HTMLInputElement>()

async function take(file: File | undefined, pasted = false) {
  if (file) wrong.value = await names.bringFile(file, pasted, pasted ? '' : encoding.value)
}
const typed = () => take(new File([text.value], 'list.csv'), true)
async function drop(e: DragEvent) {
  over.value = false
  await take(e.dataTransfer?.files[0])
}
async function choose(e: Event) {
  const input = e.target as HTMLInputElement
  await take(input.files?.[0])
  input.value = ''
}
</script>

<template>
  <main
    class="in"
    :class="{ over }"
    data-testid="list-in"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <form @submit.prevent="typed">
      <h2>A card for each name</h2>
      <p>
        Bring in a list, and the same card is made for everybody on it: words say each name, letters fit, and all are
        laid on sheets together.
      </p>
      <label for="list-text">Type names, one to a line, or paste a table</label>
      <textarea
        id="list-text"
        v-model="text"
        rows="9"
        spellcheck="false"
        :placeholder="'Name, Plot\nOdalys Fernsby, plot 14\nWilhelmina Tock, plot 3'"
        data-testid="list-text"
      />
      <p v-if="wrong" class="wrong" role="alert" data-testid="list-wrong">{{ wrong }}</p>
      <div class="acts">
        <Button type="primary" html-type="submit" :disabled="!text.trim()" data-testid="list-take">
          Make the list
        </Button>
        <span>or</span>
        <Button data-testid="list-file" @click="input?.click()">Choose a file …</Button>
        <small>CSV, XLSX or business cards (VCF); it may be dropped here, too</small>
        <input
          ref="input"
          type="file"
          accept=".csv,.tsv,.txt,.xlsx,.vcf,text/csv,text/vcard"
          hidden
          data-testid="list-input"
          @change="choose"
        />
      </div>
      <Field label="Encoding of the file" class="letters">
        <Select v-model:value="encoding" :bordered="false" size="small" data-testid="list-encoding">
          <SelectOption value="">Found automatically</SelectOption>
          <SelectOption v-for="e in catalogue.all.encodings" :key="e" :value="e">{{ e }}</SelectOption>
        </Select>
      </Field>
    </form>
  </main>
</template>

<style scoped>
.in {
  display: grid;
  place-items: center;
  background: var(--paper1);
}
.in.over {
  outline: 2px dashed var(--honey-dark);
  outline-offset: -14px;
}
form {
  width: min(560px, 90%);
  display: grid;
  gap: 10px;
}
h2 {
  font-size: 22px;
}
p {
  margin: 0 0 8px;
  color: var(--ink7);
}
label {
  font-weight: 550;
}
textarea {
  border: 1px solid var(--paper3);
  border-radius: var(--r);
  padding: 9px 11px;
  background: #fff;
  font: 14px/1.5 'Figtree Variable';
  resize: vertical;
}
.acts {
  display: flex;
  align-items: center;
  gap: 10px;
}
.acts span {
  color: var(--ink5);
}
small {
  flex: 1;
}
.letters {
  max-width: 300px;
}
</style>
