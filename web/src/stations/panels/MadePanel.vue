<script setup lang="ts">
import { Segmented, Select, SelectOption } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { Made } from '../../api/types'
import PanelSection from '../../parts/PanelSection.vue'
import Field from '../../parts/Field.vue'
import MeasureField from '../../parts/MeasureField.vue'
import StockField from '../../parts/StockField.vue'
import { isPale } from '../../parts/colour'
import { roleNames, type Role } from '../../parts/lines'
import { foamName } from '../../parts/names'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { each } from './each'

const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()
const wrong = ref('')

const docs = computed(() => card.told.map((it) => card.doc(it.id)).filter((d) => d !== undefined))
const made = computed(() => docs.value[0]?.made)
/** A mat is cut in any case. */
const mat = computed(() => docs.value.some((d) => d.kind === 'mat'))

const lines = computed(() => docs.value.some((d) => d.lines))
const role = computed(() => (docs.value.every((d) => d.lines) ? docs.value[0]?.lines?.role : undefined))

/** Changes one part of how the chosen things are made; what else there is of it stays. */
const set = (part: Partial<Made>) =>
  void card.change(
    ...each(
      docs.value,
      (it) => ({ ...it.made, ...part }),
      (some, m) => ({ do: 'setMade', ids: some, made: m }),
    ),
  )

/** The colour of a stock as an ink, or another where that would hardly be seen. */
const visible = (stock: string | undefined) => (stock && !isPale(stock) ? stock : catalogue.all.first.ink)

function as(how: string | number) {
  if (how === made.value?.as) return
  if (how === 'printed') {
    // What is left the colour of its stock needs an ink of its own.
    const bare = docs.value.filter((d) => !d.photo && !d.fill.colour && !d.fill.paper)
    void card.change(
      ...(bare.length
        ? [
            {
              do: 'setFill' as const,
              ids: bare.map((d) => d.id),
              fill: { colour: visible(catalogue.stock(bare[0]!.made.stock)?.colour) },
            },
          ]
        : []),
      { do: 'setMade', ids: docs.value.map((d) => d.id), made: { as: 'printed' } },
    )
  } else {
    const first = catalogue.all.first
    const photo = docs.value.every((d) => d.kind === 'photo')
    const paper = docs.value.some((d) => d.fill.paper)
    const own = catalogue.stock(prefs.mine.stock)?.id || first.piece
    const bleed = docs.value.some((d) => d.photo || d.fill.paper || d.fill.colour) ? first.bleed : 0
    void card.change({
      do: 'setMade',
      ids: docs.value.map((d) => d.id),
      made: {
        as: 'cut',
        stock: photo ? first.photo : paper ? first.paper : own,
        lift: 0,
        bleed,
      },
    })
  }
}

/** What the items may lie on: the base and every piece that is not on them. */
const carriers = computed(() => {
  const along = new Set(card.told.flatMap((it) => [it.id, ...(it.with ?? [])]))
  return [...(card.face?.items ?? [])].reverse().filter((it) => it.piece && !along.has(it.id))
})
const on = computed(() => {
  // A mat belongs to what lies on it, so the question is what carries the mat.
  let it = card.told[0]
  const along = new Set(it ? [it.id, ...(it.with ?? [])] : [])
  while (it?.on && along.has(it.on)) it = card.items.get(it.on)
  return it?.on ?? ''
})

/** The piece that the chosen words or shapes could be part of the outline of. */
const whole = computed(() =>
  docs.value.every((d) => ['lettering', 'shape', 'paper'].includes(d.kind)) ? card.items.get(on.value) : undefined,
)
const trims = computed(() => made.value?.as === 'trims')
const joined = computed(() => made.value?.as === 'carved' || made.value?.as === 'welded' || trims.value)
/** A shape in a group, which all else in that could end at. */
const couldTrim = computed(() => card.told.length === 1 && !!card.told[0]!.group && card.told[0]!.kind === 'shape')
function join(how: string) {
  const ids = docs.value.map((d) => d.id)
  if (how === 'own') as('printed')
  else void card.change({ do: 'setMade', ids, made: { as: how as Made['as'] } })
}

/** What can become a slot: it waits for another in its place. */
const could = computed(() => docs.value.every((d) => d.kind === 'photo' || d.kind === 'lettering'))
const fact = computed(() => {
  if (role.value) return roleNames[role.value]
  if (trims.value) return 'trims its group'
  if (joined.value) return `${made.value!.as === 'carved' ? 'carved out of' : 'welded to'} ${whole.value?.name ?? ''}`
  return made.value?.as === 'cut' ? (catalogue.stock(made.value.stock)?.name ?? 'cut') : 'printed'
})
</script>

<template>
  <PanelSection v-if="made" id="made" title="Made as" :fact="fact">
    <template #verbs>
      <button
        v-if="couldTrim && !joined"
        class="verb head"
        title="All else in its group ends at its outline; nothing is lost"
        data-testid="trim-group"
        @click="set({ as: 'trims', stock: undefined, lift: undefined, bleed: undefined, islands: undefined })"
      >
        Trim its group
      </button>
      <button
        v-else-if="whole && !joined"
        class="verb head"
        :title="`Carve it out of ${whole.name}, for as long as it lies there`"
        data-testid="carve-out"
        @click="join('carved')"
      >
        Carve out
      </button>
      <button
        v-else-if="made.as === 'cut' && !docs.some((d) => d.photo) && made.stock !== prefs.mine.stock"
        class="verb head"
        title="Pieces that you place from now on, on any card, are cut of this stock"
        data-testid="stock-mine"
        @click="prefs.mine.stock = made.stock!"
      >
        Use for new
      </button>
    </template>
    <button v-if="trims" class="verb own" data-testid="trim-none" @click="as('printed')">Trim nothing any more</button>
    <small v-else-if="mat">A mat is cut from its own stock.</small>
    <div v-else-if="role" class="pair">
      <Field label="Line for" wide>
        <Select
          :value="role"
          :bordered="false"
          size="small"
          data-testid="line-role"
          @change="(v) => card.change({ do: 'setRole', ids: docs.map((d) => d.id), role: v as Role })"
        >
          <SelectOption v-for="(name, r) in roleNames" :key="r" :value="r">{{ name }}</SelectOption>
        </Select>
      </Field>
    </div>
    <small v-else-if="lines">Choose lines alone to say what they are for.</small>
    <Segmented
      v-else-if="!joined"
      :value="made.as"
      block
      :options="[
        { value: 'printed', label: 'Printed' },
        { value: 'cut', label: 'Cut piece' },
      ]"
      data-testid="made-as"
      @change="as"
    />
    <div class="pair">
      <template v-if="made.as === 'cut'">
        <StockField :value="made.stock" testid="piece-stock" @set="set({ stock: $event })" />
        <Field label="Glue">
          <Select
            :value="made.lift ?? 0"
            :bordered="false"
            size="small"
            data-testid="lift"
            @change="(v) => set({ lift: Number(v) })"
          >
            <SelectOption v-for="f in catalogue.all.foam" :key="f" :value="f">{{ foamName(f) }}</SelectOption>
          </Select>
        </Field>
        <MeasureField
          label="Bleed"
          :mm="made.bleed ?? 0"
          testid="bleed"
          @set="set({ bleed: $event })"
          @wrong="wrong = $event"
        />
      </template>
    </div>
    <div class="pair last">
      <Field v-if="made.as === 'cut'" label="Glued">
        <Select
          :value="made.free ? 'middle' : 'all'"
          :bordered="false"
          size="small"
          data-testid="glued"
          @change="(v) => set({ free: v === 'middle' })"
        >
          <SelectOption value="all">All over</SelectOption>
          <SelectOption value="middle" title="At its middle: it may stand over folds">In the middle</SelectOption>
        </Select>
      </Field>
      <Field label="Lies on" :wide="made.as !== 'cut'">
        <Select
          :value="on"
          :bordered="false"
          size="small"
          data-testid="lies-on"
          @change="(v) => card.change({ do: 'putOn', ids: docs.map((d) => d.id), on: String(v) })"
        >
          <SelectOption value="">Card base</SelectOption>
          <SelectOption v-for="c in carriers" :key="c.id" :value="c.id">{{ c.name }}</SelectOption>
        </Select>
      </Field>
    </div>
    <Field v-if="whole && joined && !trims" label="Outline" wide class="outline">
      <Select
        :value="joined ? made.as : 'own'"
        :bordered="false"
        size="small"
        data-testid="outline-of"
        @change="(v) => join(String(v))"
      >
        <SelectOption value="own">its own</SelectOption>
        <SelectOption value="carved">carved out of {{ whole.name }}</SelectOption>
        <SelectOption value="welded">welded to {{ whole.name }}</SelectOption>
      </Select>
    </Field>
    <button
      v-if="could"
      class="verb"
      title="It waits for another in its place"
      data-testid="make-slot"
      @click="card.change({ do: 'makeSlots', ids: docs.map((d) => d.id) })"
    >
      Make {{ docs.length > 1 ? 'slots of them' : 'it a slot' }}
    </button>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </PanelSection>
</template>

<style scoped>
/* The foam’s name needs more room than a bleed. */
.pair {
  grid-template-columns: 1.3fr 1fr;
  margin-top: 6px;
}
.pair.last {
  grid-template-columns: 1fr 1.2fr;
}
.outline {
  margin-top: 8px;
}
.verb:not(.head) {
  margin: 5px 0 0 -8px;
}
</style>
