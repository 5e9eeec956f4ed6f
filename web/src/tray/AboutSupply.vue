<script setup lang="ts">
// What is noted about a supply: its name, tags, whether it is a favourite, how it
// may be used, and taking it out of the tray.
import { Button, Input, Modal, Select, SelectOption, Switch } from 'ant-design-vue'
import { computed, reactive, ref } from 'vue'
import type { Supply as Note } from '../api/types'
import { useCatalogue } from '../store/catalogue'
import SupplyPicture from './SupplyPicture.vue'
import type { Supply } from './supplies'

const props = defineProps<{ supply: Supply }>()
const emit = defineEmits<{ close: []; change: [] }>()
const catalogue = useCatalogue()

const was = catalogue.noted(props.supply.kind, props.supply.id)
const now = reactive({
  name: props.supply.name,
  tags: (was.tags ?? []).join(', '),
  favourite: !!was.favourite,
  rights: was.rights ?? '',
  credit: was.credit ?? '',
})
const open = ref(true)
const wrong = ref('')
const font = computed(() => catalogue.all.fonts.find((f) => f.id === props.supply.id && f.own))
const removable = computed(
  () =>
    ['photo', 'sketch'].includes(props.supply.kind) ||
    (props.supply.kind === 'art' && catalogue.art.some((a) => a.id === props.supply.id && !a.ships)) ||
    (props.supply.kind === 'edging' && catalogue.all.edgings.some((m) => m.id === props.supply.id && m.own)) ||
    !!font.value,
)
const paper = computed(
  () => props.supply.kind === 'paper' && catalogue.all.papers.some((p) => p.id === props.supply.id && p.own),
)
/** What the font's file says of embedding; its letters go out as outlines in any case. */
const embedding = {
  installable: 'Its file allows embedding without limits.',
  editable: 'Its file allows embedding in documents that may be changed.',
  print: 'Its file allows embedding for looking and printing only.',
  restricted:
    'Its file forbids embedding without its maker’s leave. Letters go out as outlines here; read its licence.',
}

async function keep() {
  try {
    await catalogue.note({
      ...was,
      name: now.name.trim(),
      tags: now.tags.split(','),
      favourite: now.favourite,
      rights: (now.rights || undefined) as Note['rights'],
      credit: now.credit,
    })
    open.value = false
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
async function remove() {
  try {
    await catalogue.remove(props.supply.kind, props.supply.id)
    open.value = false
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <Modal
    v-model:open="open"
    :title="supply.name"
    :footer="null"
    width="430px"
    destroy-on-close
    :after-close="() => emit('close')"
  >
    <form class="about" data-testid="about-supply" @submit.prevent="keep">
      <div class="seen"><SupplyPicture :supply="supply" /></div>
      <label>Name <Input v-model:value="now.name" :maxlength="120" data-testid="about-name" /></label>
      <label>
        Tags, with commas between them
        <Input v-model:value="now.tags" placeholder="autumn, garden" data-testid="about-tags" />
      </label>
      <label class="choices"
        ><Switch v-model:checked="now.favourite" size="small" data-testid="about-favourite" /> A favourite: first in the
        tray</label
      >
      <label>
        May be used
        <Select v-model:value="now.rights" data-testid="about-rights">
          <SelectOption value="">not noted</SelectOption>
          <SelectOption value="free">freely</SelectOption>
          <SelectOption value="personal">for personal cards only</SelectOption>
          <SelectOption value="credit">when its maker is named</SelectOption>
        </Select>
      </label>
      <div v-if="font" class="file" data-testid="font-rights">
        <b>Its file says</b>
        <p v-if="font.copyright">{{ font.copyright }}</p>
        <p v-if="font.licence">{{ font.licence }}</p>
        <p v-if="font.licenceURL" class="address">{{ font.licenceURL }}</p>
        <p>{{ font.embedding ? embedding[font.embedding] : 'It says nothing of embedding.' }}</p>
      </div>
      <label v-if="now.rights === 'credit'">
        Credit line
        <Input v-model:value="now.credit" placeholder="Photo by …" data-testid="about-credit" />
      </label>
      <p v-if="wrong" class="wrong" role="alert" data-testid="about-wrong">{{ wrong }}</p>
      <div class="choices">
        <Button v-if="removable" danger data-testid="about-remove" @click="remove">Take it out of the tray</Button>
        <Button v-if="paper" data-testid="about-paper" @click="emit('change')">Its size and seams …</Button>
        <span class="space" />
        <Button type="primary" html-type="submit" data-testid="about-keep">Keep</Button>
      </div>
    </form>
  </Modal>
</template>

<style scoped>
.about {
  display: grid;
  gap: 10px;
}
.seen {
  position: relative;
  height: 96px;
  display: grid;
  place-items: center;
  overflow: hidden;
  border-radius: var(--r);
  background: var(--paper1);
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink7);
  font-size: 12px;
}
.file {
  max-height: 132px;
  padding: 8px 10px;
  overflow: auto;
  border-radius: var(--r);
  background: var(--paper1);
  font-size: 12px;
}
.file p {
  margin: 3px 0 0;
}
.address {
  overflow-wrap: anywhere;
}
.choices {
  display: flex;
  align-items: center;
  gap: 8px;
}
.space {
  flex: 1;
}
</style>
