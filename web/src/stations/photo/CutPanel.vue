<script setup lang="ts">
// What of a photo stays, how its edge is, and what becomes of it.
import { Button, Checkbox, Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { api, Fault } from '../../api/client'
import Field from '../../parts/Field.vue'
import { INCH } from '../../parts/measure'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { useCutOut, type By } from '../../store/cutout'
import { useEdits } from '../../store/edits'
import { usePrefs } from '../../store/prefs'
import BrushChoice from './BrushChoice.vue'
import EditSlider from './EditSlider.vue'

const card = useCard()
const catalogue = useCatalogue()
const cut = useCutOut()
const edits = useEdits()
const prefs = usePrefs()

const item = computed(() => card.items.get(edits.item))
/** How wide the photo's picture is on the card, mm. */
const wide = computed(() => item.value?.picture?.box.w ?? 100)

function take(by: By) {
  cut.by = by
  cut.brush = 'stays'
}
const says = {
  strokes: 'Draw on what stays, then on what goes. A few strokes do; more mend it.',
  round: 'Draw a line roughly round what stays. Strokes mend it.',
  line: 'Click along the edge: the line clings to it, with Shift it is straight. Enter closes it, Backspace takes a click back.',
  ground: 'Click on the ground that goes; click again where some is left.',
}

const border = ref(INCH / 16)
const borders = [0, INCH / 32, INCH / 16, INCH / 8, INCH / 4]
const lift = ref(2)
const behind = ref<'' | 'filled' | 'hole'>('filled')
const wrong = ref('')
const busy = ref(false)
/** The outline of what stays, and what is made of it. */
async function make(what: 'piece' | 'over') {
  const it = item.value
  if (!it?.picture) return
  busy.value = true
  wrong.value = ''
  try {
    const t = await api.trace(it.picture.id, { by: 'transparency', usual: true })
    const edge = t.outlines[0]?.path
    wrong.value = t.says ?? ''
    if (!edge) return
    const rim = border.value ? { ...catalogue.all.first.rim, width: border.value } : undefined
    const asked =
      what === 'piece'
        ? card.change({ do: 'cutRound', id: it.id, edge, rim })
        : card.change({ do: 'layCutOut', id: it.id, edge, rim, lift: lift.value, behind: behind.value || undefined })
    edits.close()
    await card.selectMade(asked, what === 'piece' ? () => [it.id] : undefined)
  } catch (e) {
    wrong.value = e instanceof Fault ? e.message : String(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section class="sec">
    <h3>Cut out</h3>
    <Segmented
      block
      :value="cut.by"
      :options="[
        { value: 'strokes', label: 'Strokes' },
        { value: 'round', label: 'Round' },
        { value: 'line', label: 'Line' },
        { value: 'ground', label: 'Ground' },
      ]"
      aria-label="How it is told what stays"
      data-testid="cut-by"
      @change="take($event as By)"
    />
    <p>{{ says[cut.by] }}</p>
    <BrushChoice
      v-if="cut.by === 'strokes' || cut.by === 'round'"
      label="What the brush says"
      :chosen="cut.brush"
      :of="[
        { id: 'stays', name: 'Stays', stays: true },
        { id: 'goes', name: 'Goes', stays: false },
      ]"
      @choose="cut.brush = $event"
    />
    <template v-else-if="cut.by === 'ground'">
      <EditSlider
        label="Tolerance"
        :min="0"
        :value="cut.now?.ground?.tolerance ?? 12"
        testid="cut-tolerance"
        @slide="cut.now?.ground && cut.slide({ ground: { ...cut.now.ground, tolerance: $event } })"
        @set="cut.now?.ground && cut.change({ ground: { ...cut.now.ground, tolerance: $event } })"
      />
      <Checkbox
        :checked="cut.now?.ground?.everywhere"
        :disabled="!cut.now?.ground"
        data-testid="cut-everywhere"
        @change="cut.change({ ground: { ...cut.now!.ground!, everywhere: $event.target.checked || undefined } })"
        >Inside too, not only what touches</Checkbox
      >
    </template>
    <div v-if="cut.now" class="marks">
      <button class="verb" data-testid="cut-back" @click="cut.back()">Last mark off</button>
      <button class="verb" data-testid="cut-none" @click="cut.set(undefined)">Begin anew</button>
    </div>
  </section>
  <template v-if="cut.now">
    <section class="sec">
      <h3>Edge <small>mm</small></h3>
      <EditSlider
        label="Softness"
        :min="0"
        :max="3"
        :step="0.05"
        :digits="2"
        :value="(cut.now.softness ?? 0) * wide"
        testid="cut-soft"
        @slide="cut.slide({ softness: $event / wide })"
        @set="cut.change({ softness: $event / wide || undefined })"
      />
      <EditSlider
        label="In or out"
        :min="-3"
        :max="3"
        :step="0.05"
        :digits="2"
        :value="(cut.now.out ?? 0) * wide"
        testid="cut-out"
        @slide="cut.slide({ out: $event / wide })"
        @set="cut.change({ out: $event / wide || undefined })"
      />
      <EditSlider
        label="Old colour"
        :min="0"
        sign=" %"
        :value="cut.now.keep ?? 0"
        testid="cut-keep"
        @slide="cut.slide({ keep: $event })"
        @set="cut.change({ keep: $event || undefined })"
      />
    </section>
    <section class="sec">
      <h3>Brush</h3>
      <BrushChoice
        label="What the brush paints"
        :chosen="cut.brush"
        :of="[
          { id: 'in', name: 'Paint in', stays: true },
          { id: 'out', name: 'Paint out', stays: false },
        ]"
        @choose="cut.brush = $event"
      />
      <EditSlider
        label="Size"
        :min="0.3"
        :max="12"
        :step="0.1"
        :digits="1"
        sign=" %"
        :value="cut.size * 100"
        testid="brush-size"
        @slide="cut.size = $event / 100"
        @set="cut.size = Math.max($event, 0.3) / 100"
      />
      <Checkbox v-if="cut.brush === 'in' || cut.brush === 'out'" v-model:checked="cut.soft" data-testid="brush-soft"
        >Soft</Checkbox
      >
    </section>
    <section class="sec">
      <h3>What was behind</h3>
      <Segmented
        v-model:value="behind"
        block
        :options="[
          { value: '', label: 'Stays' },
          { value: 'filled', label: 'Filled in' },
          { value: 'hole', label: 'A hole' },
        ]"
        aria-label="What the photo has where it was"
        data-testid="cut-behind"
      />
    </section>
    <section class="sec">
      <h3>Becomes</h3>
      <div class="fields">
        <Field label="Border" wide>
          <Select v-model:value="border" :bordered="false" size="small" data-testid="cut-border">
            <SelectOption v-for="b in borders" :key="b" :value="b">{{ b ? prefs.lenUnit(b) : 'none' }}</SelectOption>
          </Select>
        </Field>
        <Field label="Foam" wide>
          <Select v-model:value="lift" :bordered="false" size="small" data-testid="cut-foam">
            <SelectOption v-for="l in [0, 1, 2, 3]" :key="l" :value="l">{{ l ? l + ' mm' : 'none' }}</SelectOption>
          </Select>
        </Field>
      </div>
      <div class="two">
        <Button data-testid="cut-piece" :loading="busy" @click="make('piece')">Cut it round</Button>
        <Button type="primary" data-testid="cut-over" :loading="busy" @click="make('over')"
          >Lay it over its ground</Button
        >
      </div>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    </section>
  </template>
</template>

<style scoped>
h3 {
  margin-bottom: 6px;
}
h3 small {
  display: inline;
  margin-left: 4px;
  font: 11px 'Figtree Variable';
}
p {
  margin: 8px 0;
  color: var(--ink5);
  font-size: 12px;
}
.two {
  display: flex;
  gap: 8px;
}
.two > * {
  flex: 1;
}
.marks {
  display: flex;
  margin: 6px -8px 0;
}
.fields {
  display: grid;
  gap: 8px;
  margin-bottom: 8px;
}
</style>
