<script setup lang="ts">
// The findings by weight, each a slip of paper with a small picture of its place.
import { computed } from 'vue'
import { api } from '../../api/client'
import type { Finding } from '../../api/types'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { groups } from '../../store/check'
import { usePrefs } from '../../store/prefs'
import { faceOf, keyOf, placeOf, titleOf } from './finding'

const props = defineProps<{ findings: Finding[]; left: Finding[]; chosen: string; all: Finding[] }>()
defineEmits<{ choose: [key: string] }>()
const card = useCard()
const catalogue = useCatalogue()
const prefs = usePrefs()

const lists = computed(() => [
  ...groups.map((g) => ({
    id: g.weight as string,
    name: g.name,
    list: props.findings.filter((f) => f.weight === g.weight),
  })),
  { id: 'left', name: 'Left so', list: props.left },
])

const side = 40
/** The place on the painted face, in a small square. */
function picture(f: Finding) {
  const face = faceOf(card.view, f)
  if (!face || !f.at || !card.view) return undefined
  const see = Math.min(Math.max(f.at.w, f.at.h, 12) * 1.25, Math.max(face.width, face.height))
  const k = side / see
  const x = f.at.x + f.at.w / 2 - see / 2
  const y = f.at.y + f.at.h / 2 - see / 2
  return {
    backgroundImage: `url(${api.printURL(card.view, catalogue.all.stocksAre, face.id)})`,
    backgroundSize: `${face.width * k}px ${face.height * k}px`,
    backgroundPosition: `${-x * k}px ${-y * k}px`,
  }
}
</script>

<template>
  <div class="lists">
    <template v-for="g in lists" :key="g.id">
      <section v-if="g.list.length" :data-testid="'findings-' + g.id">
        <h3>
          {{ g.name }}<small>{{ g.list.length }}</small>
        </h3>
        <button
          v-for="f in g.list"
          :key="keyOf(f, all)"
          class="slip"
          :class="[f.left ? 'left' : f.weight, { on: keyOf(f, all) === chosen }]"
          :aria-current="keyOf(f, all) === chosen"
          data-testid="slip"
          :data-check="f.check"
          @click="$emit('choose', keyOf(f, all))"
        >
          <span class="words">
            <b>{{ titleOf(catalogue.all, card.view, f) }}</b>
            <em
              >{{ f.left || placeOf(catalogue.all, card.view, f)
              }}{{ !f.left && f.by ? ' · ' + prefs.lenUnit(f.by) : '' }}</em
            >
          </span>
          <i v-if="picture(f)" :style="picture(f)" aria-hidden="true" />
        </button>
      </section>
    </template>
  </div>
</template>

<style scoped>
h3 {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin: 12px 6px 5px;
  font-size: 13px;
}
h3 small {
  font: 500 12px 'Figtree Variable';
}
.slip {
  position: relative;
  display: flex;
  align-items: center;
  gap: 8px;
  width: 100%;
  min-height: 50px;
  margin-bottom: 4px;
  padding: 6px 7px 6px 15px;
  border: 1px solid var(--paper2);
  border-radius: 4px;
  background: var(--paper0);
  color: var(--ink9);
  text-align: left;
  cursor: pointer;
  overflow: hidden;
}
/* The dog-ear in the colour of its weight. */
.slip::before {
  content: '';
  position: absolute;
  left: 0;
  top: 0;
  border-style: solid;
  border-width: 12px 12px 0 0;
  border-color: var(--ink3) transparent transparent;
}
.slip.stop::before {
  border-top-color: var(--stop);
}
.slip.caution::before {
  border-top-color: var(--caution);
}
.slip.note::before {
  border-top-color: var(--ink5);
}
.slip:hover {
  border-color: var(--paper3);
}
.slip.on {
  background: var(--brick-soft);
  border-color: #e0b8a8;
}
.words {
  flex: 1;
  min-width: 0;
}
b {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
  font: 600 12.5px/16px 'Figtree Variable';
  overflow-wrap: anywhere;
}
em {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font: 500 11.5px/16px 'Figtree Variable';
  color: var(--ink7);
}
.left b {
  font-weight: 500;
}
i {
  flex: none;
  width: 40px;
  height: 40px;
  border-radius: 3px;
  box-shadow: inset 0 0 0 1px #0002;
  background-repeat: no-repeat;
  background-color: var(--paper1);
}
</style>
