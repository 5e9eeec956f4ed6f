<script setup lang="ts">
// The kinds of bases as small drawings, with their lines in true dash and
// colour, as seen from inside: that is how people score and fold them.
import type { Catalogue } from '../../api/types'
import { roleLook } from '../../parts/lines'
import { useCatalogue } from '../../store/catalogue'

type Kind = Catalogue['bases'][number]

defineProps<{ kind: string }>()
defineEmits<{ set: [kind: Kind['id']]; draw: [] }>()
const catalogue = useCatalogue()

const over = { mountain: 'valley', valley: 'mountain' } as const
function drawn(k: Kind) {
  const n = k.small
  const s = Math.min(58 / n.width, 50 / n.height)
  const [w, h] = [n.width * s, n.height * s]
  const [x, y] = [(66 - w) / 2, (56 - h) / 2]
  const main = n.lines.find((l) => l.main)
  const upright = !main || main.from.x === main.to.x
  // Seen from inside the sheet is turned over.
  const at = (p: { x: number; y: number }) =>
    upright ? `${x + w - p.x * s} ${y + p.y * s}` : `${x + p.x * s} ${y + h - p.y * s}`
  return {
    edge: n.edge || `M0 0H${n.width}V${n.height}H0Z`,
    turned: upright ? `matrix(${-s} 0 0 ${s} ${x + w} ${y})` : `matrix(${s} 0 0 ${-s} ${x} ${y + h})`,
    lines: n.lines.map((l) => {
      const role = l.role in over ? over[l.role as keyof typeof over] : l.role
      const dash = { mountain: '5 1.6 1 1.6', valley: '3 2', cut: undefined }[role as 'cut']
      return { d: `M${at(l.from)}L${at(l.to)}`, stroke: roleLook[role].stroke, dash, wide: role === 'cut' ? 1 : 1.3 }
    }),
  }
}
</script>

<template>
  <div class="kinds">
    <button
      v-for="k in catalogue.all.bases"
      :key="k.id"
      class="kind"
      :class="{ on: kind === k.id }"
      :aria-pressed="kind === k.id"
      :title="k.says"
      :data-testid="'kind-' + k.id"
      @click="k.drawing ? $emit('draw') : kind !== k.id && $emit('set', k.id)"
    >
      <svg v-if="k.drawing" width="66" height="56" viewBox="0 0 66 56" aria-hidden="true">
        <path d="M13 9L40 5 54 17 51 48 15 51Z" fill="#fffdf6" stroke="#1f2b38" stroke-dasharray="4 3" />
        <path d="M34 6L32 50" fill="none" stroke="#35658c" stroke-width="1.3" stroke-dasharray="3 2" />
        <path d="M32 28l8-6v12z" fill="none" stroke="#1f2b38" />
      </svg>
      <svg v-else width="66" height="56" viewBox="0 0 66 56" aria-hidden="true">
        <path
          :d="drawn(k).edge"
          :transform="drawn(k).turned"
          fill="#fffdf6"
          stroke="#1f2b38"
          vector-effect="non-scaling-stroke"
        />
        <path
          v-for="(l, i) in drawn(k).lines"
          :key="i"
          :d="l.d"
          fill="none"
          :stroke="l.stroke"
          :stroke-width="l.wide"
          :stroke-dasharray="l.dash"
        />
      </svg>
      {{ k.name }}
    </button>
  </div>
</template>

<style scoped>
.kinds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.kind {
  border: 1px solid var(--paper3);
  border-radius: 8px;
  background: var(--paper0);
  padding: 7px 4px 6px;
  font: 600 12px 'Figtree Variable';
  color: var(--ink9);
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  cursor: pointer;
}
.kind:hover {
  border-color: var(--ink3);
}
.kind.on {
  border-color: var(--brick);
  box-shadow: 0 0 0 1px var(--brick);
}
</style>
