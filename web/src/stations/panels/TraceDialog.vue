<script setup lang="ts">
// The outlines of a picture: what tells its inside, how closely its edge is followed, and what
// becomes of it.
import { Button, Checkbox, Modal, Segmented } from 'ant-design-vue'
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { api, Fault } from '../../api/client'
import type { Command, TraceAsk, Traced } from '../../api/types'
import MeasureField from '../../parts/MeasureField.vue'
import NumberField from '../../parts/NumberField.vue'
import ShareField from '../../parts/ShareField.vue'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'

const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const card = useCard()
const catalogue = useCatalogue()

const item = computed(() => card.items.get(props.id))
const photo = computed(() => card.doc(props.id)?.photo)
const clear = catalogue.pictures.some((p) => p.id === photo.value?.picture && p.clear)
/** Pixels of the picture to the millimetre on the card. */
const picture = computed(() => item.value?.picture)
const perMM = computed(() => (picture.value?.pixelWidth ?? 1) / (picture.value?.box.w ?? 1))

const by = ref<TraceAsk['by']>(clear ? 'transparency' : 'darkness')
const level = ref(0)
const colours = ref<string[]>([])
const tolerance = ref(12)
const count = ref(4)
const under = ref(true)
const smooth = ref(0.1)
const speck = ref(1)
const outer = ref(false)
/** The layers that are not wanted. */
const without = ref<string[]>([])
const as = ref<'cut' | 'printed'>('cut')

const ask = computed<TraceAsk | undefined>(() => {
  if (by.value === 'colours' && !colours.value.length) return undefined
  return {
    by: by.value,
    ...(by.value === 'darkness' && level.value ? { level: level.value } : {}),
    ...(by.value === 'colours' ? { colours: colours.value, tolerance: tolerance.value } : {}),
    ...(by.value === 'layers' ? { count: count.value, under: under.value } : {}),
    smooth: smooth.value * perMM.value,
    speck: (speck.value * perMM.value) ** 2,
    outer: outer.value,
  }
})

const found = shallowRef<Traced>()
const wrong = ref('')
const typed = ref('')
const waiting = ref(false)
let asked = new AbortController()
onScopeDispose(() => asked.abort())
watch(
  () => JSON.stringify(ask.value),
  async () => {
    asked.abort()
    if (!ask.value || !picture.value) {
      found.value = undefined
      return
    }
    const mine = (asked = new AbortController())
    waiting.value = true
    try {
      const t = await api.trace(picture.value.id, ask.value, mine.signal)
      if (mine.signal.aborted) return
      found.value = t
      wrong.value = ''
    } catch (e) {
      if (mine.signal.aborted) return
      found.value = undefined
      wrong.value = e instanceof Fault ? e.message : String(e)
    }
    waiting.value = false
  },
  { immediate: true },
)

const wanted = computed(() => (found.value?.outlines ?? []).filter((o) => !without.value.includes(o.colour)))
const sum = (of: 'nodes' | 'parts' | 'specks') => wanted.value.reduce((n, o) => n + o[of], 0)
const counted = (n: number, one: string) => `${n.toLocaleString('en')} ${one}${n === 1 ? '' : 's'}`
const told = computed(() => {
  if (!wanted.value.length) return ''
  const specks = sum('specks')
  return `${counted(sum('parts'), 'ring')} of ${counted(sum('nodes'), 'point')}${specks ? `; ${counted(specks, 'speck')} left out` : ''}`
})

/** Pixels of the preview, to read colours from. */
let canvas: CanvasRenderingContext2D | null = null
function shown(e: Event) {
  const img = e.target as HTMLImageElement
  const c = document.createElement('canvas')
  c.width = img.naturalWidth
  c.height = img.naturalHeight
  canvas = c.getContext('2d', { willReadFrequently: true })
  canvas?.drawImage(img, 0, 0)
}
function pick(e: MouseEvent) {
  if (by.value !== 'colours' || !canvas) return
  const svg = e.currentTarget as SVGSVGElement
  const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM()!.inverse())
  const k = canvas.canvas.width / picture.value!.pixelWidth
  const [r, g, b, a] = canvas.getImageData(Math.floor(at.x * k), Math.floor(at.y * k), 1, 1).data
  if (!a) return
  const hex = '#' + [r, g, b].map((v) => (v ?? 0).toString(16).padStart(2, '0')).join('')
  if (!colours.value.includes(hex) && colours.value.length < 12) colours.value.push(hex)
}

const whole = computed(() => wanted.value.map((o) => o.path).join(''))
async function make(c: Command, name?: string) {
  const v = await card.selectMade(card.change(c), name ? () => [name] : undefined)
  if (v) emit('close')
}
const lay = () =>
  make({
    do: 'layTraced',
    id: props.id,
    as: as.value,
    parts: wanted.value.map((o) => ({ colour: o.colour, path: o.path })),
  })
const crop = () => make({ do: 'cutRound', id: props.id, edge: whole.value }, props.id)
const cut = () => make({ do: 'cutRound', id: props.id, edge: whole.value, rim: catalogue.all.first.rim }, props.id)
</script>

<template>
  <Modal :open="true" :title="'Outlines of ' + item?.name" :width="860" :footer="null" centered @cancel="emit('close')">
    <div class="two" data-testid="trace-dialog">
      <div class="paper">
        <svg
          v-if="picture"
          :viewBox="`0 0 ${picture.pixelWidth} ${picture.pixelHeight}`"
          :class="{ picking: by === 'colours' }"
          data-testid="trace-picture"
          @click="pick"
        >
          <image
            :href="api.previewURL(picture.id, 1600)"
            :width="picture.pixelWidth"
            :height="picture.pixelHeight"
            preserveAspectRatio="none"
            :opacity="wanted.length ? 0.55 : 1"
          />
          <g v-for="o in wanted" :key="o.colour" data-testid="trace-outline">
            <path :d="o.path" class="halo" />
            <path :d="o.path" class="edge" />
          </g>
        </svg>
        <img v-if="picture" :src="api.previewURL(picture.id, 1600)" class="unseen" alt="" @load="shown" />
        <p v-if="waiting" class="busy">Tracing …</p>
      </div>
      <div class="how">
        <h3>What is inside</h3>
        <Segmented
          v-model:value="by"
          block
          size="small"
          :options="[
            {
              value: 'transparency',
              label: 'Opaque',
              disabled: !clear,
              title: clear ? '' : 'Nothing of it is transparent',
            },
            { value: 'darkness', label: 'Dark' },
            { value: 'colours', label: 'Colours' },
            { value: 'layers', label: 'Layers' },
          ]"
          data-testid="trace-by"
        />
        <div v-if="by === 'darkness'" class="pair">
          <ShareField
            label="Darker than"
            :value="Math.round((level || found?.level || 128) / 2.55)"
            :min="1"
            testid="trace-level"
            @set="level = Math.max(1, Math.round($event * 2.55))"
          />
        </div>
        <template v-else-if="by === 'colours'">
          <p class="hint">
            {{ colours.length ? 'Click more colours, or one here to leave it out.' : 'Click a colour in the picture.' }}
          </p>
          <div class="swatches">
            <button
              v-for="c in colours"
              :key="c"
              :style="{ background: c }"
              :aria-label="'Leave out ' + c"
              @click="colours = colours.filter((o) => o !== c)"
            />
          </div>
          <ShareField
            label="Tolerance"
            :value="tolerance"
            :min="1"
            :max="50"
            sign=""
            testid="trace-tolerance"
            @set="tolerance = $event"
          />
        </template>
        <template v-else-if="by === 'layers'">
          <div class="pair">
            <NumberField
              label="Colours"
              :value="count"
              :digits="0"
              testid="trace-count"
              @set="count = Math.round($event)"
              @wrong="typed = $event"
            />
          </div>
          <ul v-if="found">
            <li v-for="o in found.outlines" :key="o.colour">
              <Checkbox
                :checked="!without.includes(o.colour)"
                @change="
                  without = without.includes(o.colour) ? without.filter((c) => c !== o.colour) : [...without, o.colour]
                "
              >
                <i :style="{ background: o.colour }" /> {{ counted(o.parts, 'ring') }}
              </Checkbox>
            </li>
          </ul>
          <Checkbox v-model:checked="under" data-testid="trace-under">Each reaches under those above it</Checkbox>
        </template>

        <h3>How closely</h3>
        <div class="pair">
          <MeasureField
            label="Smooth by"
            :mm="smooth"
            testid="trace-smooth"
            @set="((smooth = $event), (typed = ''))"
            @wrong="typed = $event"
          />
          <MeasureField
            label="Specks to"
            :mm="speck"
            testid="trace-speck"
            @set="((speck = $event), (typed = ''))"
            @wrong="typed = $event"
          />
        </div>
        <Checkbox v-model:checked="outer" data-testid="trace-outer">Outer edge only</Checkbox>
        <p v-if="told" class="told" data-testid="trace-told">{{ told }}</p>
        <p v-if="found?.says" class="hint" data-testid="trace-says">{{ found.says }}</p>
        <p v-if="typed || wrong" class="wrong" role="alert">{{ typed || wrong }}</p>

        <h3>What becomes of it</h3>
        <Segmented
          v-model:value="as"
          block
          size="small"
          :options="[
            { value: 'cut', label: wanted.length > 1 ? 'Cut pieces' : 'A cut piece' },
            { value: 'printed', label: 'Printed' },
          ]"
          data-testid="trace-as"
        />
        <Button type="primary" block :disabled="!wanted.length" data-testid="trace-lay" @click="lay">
          Lay {{ wanted.length > 1 ? 'them' : 'it' }} over the picture
        </Button>
        <div class="also">
          <Button :disabled="!wanted.length" data-testid="trace-crop" @click="crop">Crop to it</Button>
          <Button :disabled="!wanted.length" data-testid="trace-rim" @click="cut">Cut round with a rim</Button>
        </div>
      </div>
    </div>
  </Modal>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 272px;
  gap: 20px;
}
.paper {
  position: relative;
  display: grid;
  place-items: center;
  height: 470px;
  padding: 12px;
  background: #fff;
  border: 1px solid var(--paper2);
  border-radius: var(--r);
}
svg {
  width: 100%;
  height: 446px;
}
.picking {
  cursor: crosshair;
}
.halo,
.edge {
  fill: none;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.halo {
  stroke: #fffdf9;
  stroke-width: 3.2px;
}
.edge {
  stroke: var(--brick);
  stroke-width: 1.4px;
}
.unseen {
  display: none;
}
.busy {
  position: absolute;
  right: 12px;
  bottom: 8px;
  margin: 0;
  padding: 2px 8px;
  border-radius: 4px;
  background: #fffdf9e0;
  color: var(--ink5);
  font-size: 12px;
}
h3 {
  margin: 16px 0 7px;
}
.how h3:first-child {
  margin-top: 0;
}
.pair {
  margin: 8px 0;
}
.hint,
.told {
  margin: 8px 0 4px;
  font-size: 12px;
}
.swatches {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  min-height: 24px;
  margin-bottom: 4px;
}
.swatches button {
  width: 24px;
  height: 24px;
  padding: 0;
  border: 0;
  border-radius: 12px;
  box-shadow: inset 0 0 0 1px #0003;
  cursor: pointer;
}
ul {
  margin: 0 0 6px;
  padding: 0;
  list-style: none;
  max-height: 112px;
  overflow: auto;
}
li i {
  display: inline-block;
  width: 12px;
  height: 12px;
  margin-right: 4px;
  border-radius: 6px;
  vertical-align: -1px;
  box-shadow: inset 0 0 0 1px #0003;
}
.how > :deep(.ant-btn-primary) {
  margin-top: 8px;
}
.also {
  display: grid;
  grid-template-columns: 1fr 1.5fr;
  gap: 8px;
  margin-top: 8px;
}
</style>
