<script setup lang="ts">
// A patterned paper of one's own: its picture laid beside itself, its true size, and its seams.
import { Button, Input, Modal, Switch } from 'ant-design-vue'
import { computed, reactive, ref, watch } from 'vue'
import { api } from '../api/client'
import type { IncomingPaper, NewPaper, Paper } from '../api/types'
import MeasureField from '../parts/MeasureField.vue'
import { INCH } from '../parts/measure'
import { useCatalogue } from '../store/catalogue'
import { usePrefs } from '../store/prefs'

/** A file that was just read, or a paper that is changed. */
const props = defineProps<{ file?: IncomingPaper; paper?: Paper }>()
const emit = defineEmits<{ close: [] }>()
const catalogue = useCatalogue()
const prefs = usePrefs()
const wrong = ref('')
const seam = computed(() => props.file?.across || props.file?.down)
const now = reactive<NewPaper>({ name: '', picture: '', width: 1, height: 1, mirrored: false })
watch(
  () => props,
  ({ file, paper }) =>
    Object.assign(
      now,
      paper
        ? {
            name: paper.name,
            picture: paper.picture,
            width: paper.width,
            height: paper.height,
            mirrored: !!paper.mirrored,
          }
        : {
            name: file?.name,
            picture: file?.picture,
            width: file?.width,
            height: file?.height,
            mirrored: !!seam.value,
          },
    ),
  { immediate: true, deep: true },
)
/** Its proportions stay: a pattern is not stretched. */
function sized(part: { width?: number; height?: number }) {
  const k = part.width ? part.width / now.width : part.height! / now.height
  now.width *= k
  now.height *= k
}
/** What is shown is three inches wide. */
const shown = 3 * INCH
const image = computed(() => api.previewURL(now.picture, 800))
const says = computed(() => {
  const f = props.file
  if (!f) return ''
  if (!f.across && !f.down) return 'Its edges meet: it repeats without a seam.'
  const where =
    f.across && f.down
      ? 'Neither pair of its edges meets'
      : f.across
        ? 'Left and right do not meet'
        : 'Top and bottom do not meet'
  return `${where}: a seam shows where it repeats. Mirrored, its edges meet; a whole 12-inch sheet needs no repeating.`
})

async function keep() {
  wrong.value = ''
  try {
    if (props.paper) await api.changePaper(props.paper.id, { ...now })
    else await api.addPaper({ ...now })
    await catalogue.reload()
    emit('close')
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
async function remove() {
  if (!props.paper) return
  wrong.value = ''
  try {
    await api.removePaper(props.paper.id)
    await catalogue.reload()
    emit('close')
  } catch (e) {
    wrong.value = e instanceof Error ? e.message : String(e)
  }
}
</script>

<template>
  <Modal open :title="paper ? paper.name : 'A paper of your own'" :footer="null" width="620px" @cancel="emit('close')">
    <form class="two" data-testid="paper-dialog" @submit.prevent="keep">
      <svg width="260" height="260" :viewBox="`0 0 ${shown} ${shown}`" class="seen">
        <defs>
          <pattern
            id="new-paper"
            patternUnits="userSpaceOnUse"
            :width="now.width * (now.mirrored ? 2 : 1)"
            :height="now.height * (now.mirrored ? 2 : 1)"
          >
            <template v-for="i in now.mirrored ? [0, 1] : [0]" :key="i">
              <image
                v-for="j in now.mirrored ? [0, 1] : [0]"
                :key="j"
                :href="image"
                width="1"
                height="1"
                preserveAspectRatio="none"
                :transform="`matrix(${i ? -now.width : now.width} 0 0 ${j ? -now.height : now.height} ${i * 2 * now.width} ${j * 2 * now.height})`"
              />
            </template>
          </pattern>
        </defs>
        <rect :width="shown" :height="shown" fill="url(#new-paper)" />
      </svg>
      <div class="fields">
        <label>Name <Input v-model:value="now.name" :maxlength="80" data-testid="paper-name" /></label>
        <div class="pair">
          <MeasureField
            label="Width"
            :mm="now.width"
            testid="paper-width"
            @set="sized({ width: $event })"
            @wrong="wrong = $event"
          />
          <MeasureField
            label="Height"
            :mm="now.height"
            testid="paper-height"
            @set="sized({ height: $event })"
            @wrong="wrong = $event"
          />
        </div>
        <p v-if="file" class="note">
          {{ file.said ? 'The size that its file tells.' : 'Its file tells no size: taken at 300 pixels to the inch.' }}
          <button type="button" class="verb" data-testid="paper-sheet" @click="sized({ width: 12 * INCH })">
            It is 12 in wide
          </button>
        </p>
        <p v-if="says" class="note" :class="{ seam }" data-testid="paper-seam">{{ says }}</p>
        <label class="choices"
          ><Switch v-model:checked="now.mirrored" size="small" data-testid="paper-mirrored" /> Every other one
          mirrored</label
        >
        <p class="note">Shown: a square of {{ prefs.lenUnit(shown) }}.</p>
        <p v-if="wrong" class="wrong" role="alert" data-testid="paper-wrong">{{ prefs.said(wrong) }}</p>
        <div class="choices">
          <Button v-if="paper" danger data-testid="paper-remove" @click="remove">Take it out of the tray</Button>
          <span class="space" />
          <Button type="primary" html-type="submit" data-testid="paper-keep">{{
            paper ? 'Change it for all cards' : 'Keep it with the papers'
          }}</Button>
        </div>
      </div>
    </form>
  </Modal>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 260px 1fr;
  gap: 18px;
}
.seen {
  border: 1px solid var(--paper3);
  border-radius: var(--r);
}
.fields {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.choices {
  display: flex;
  align-items: center;
  gap: 8px;
}
.space {
  flex: 1;
}
.note {
  margin: 0;
  color: var(--ink7);
  font-size: 12.5px;
}
.note .verb {
  padding: 0 4px;
  font-size: 12.5px;
  text-decoration: underline;
}
.seam {
  color: var(--brick);
}
</style>
