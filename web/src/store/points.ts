// The points of the outline that is open for changes, and which of them are chosen.
import { message } from 'ant-design-vue'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api } from '../api/client'
import type { Command, PointRef, PointRing } from '../api/types'
import type { Matrix, Pt } from '../parts/geom'
import { useCard } from './card'
import { useTool } from './tool'

export const same = (a: PointRef, b: PointRef) => a.ring === b.ring && a.node === b.node

/** The point a step after another, round all rings. */
export function along(rings: PointRing[], from: PointRef | undefined, step: 1 | -1): PointRef | undefined {
  const all = rings.flatMap((r, ring) => r.nodes.map((_, node) => ({ ring, node })))
  if (!all.length) return undefined
  const now = from ? all.findIndex((p) => same(p, from)) : step > 0 ? -1 : 0
  return all[(now + step + all.length) % all.length]
}

export const usePoints = defineStore('points', () => {
  const card = useCard()
  const tool = useTool()

  const id = ref('')
  const rings = shallowRef<PointRing[]>([])
  /** Maps the points to the face; as it was when they were read. */
  const place = shallowRef<Matrix>([1, 0, 0, 1, 0, 0])
  const crosses = ref(false)
  const chosen = ref<PointRef[]>([])
  const count = computed(() => rings.value.reduce((n, r) => n + r.nodes.length, 0))
  const item = computed(() => card.items.get(id.value))
  const lines = computed(() => item.value?.kind === 'drawing')
  const node = (p: PointRef) => rings.value[p.ring]?.nodes[p.node]
  const isChosen = (ring: number, n: number) => chosen.value.some((c) => c.ring === ring && c.node === n)

  let turn = 0
  /** What is read anew is asked for already. */
  let busy = false
  async function load() {
    const mine = ++turn
    const it = item.value
    if (!it) return close()
    try {
      const p = await api.points(card.id, id.value)
      if (mine !== turn) return
      rings.value = p.rings
      crosses.value = !!p.crosses
      place.value = item.value?.at ?? it.at
      chosen.value = chosen.value.filter((c) => node(c))
    } catch (e) {
      void message.warning(e instanceof Error ? e.message : String(e))
      close()
    }
  }

  /** Opens the outline of an item; opening it again closes it. */
  async function open(it: string) {
    if (tool.tool === 'points' && id.value === it) return close()
    busy = true
    id.value = it
    rings.value = []
    chosen.value = []
    tool.tool = 'points'
    await load()
    const first = along(rings.value, undefined, 1)
    if (first) chosen.value = [first]
    busy = false
  }
  function close() {
    if (tool.tool === 'points') tool.tool = 'choose'
  }
  /** What crosses itself is cleaned on leaving, and that is told. */
  async function left() {
    const [was, name, before] = [id.value, item.value?.name, rings.value.length]
    id.value = ''
    if (!crosses.value || !was || !name) return
    crosses.value = false
    const v = await card.change({ do: 'cleanOutline', id: was })
    if (!v) return
    const after = (await api.points(card.id, was).catch(() => undefined))?.rings.length ?? before
    void message.info(
      `The outline of “${name}” crossed itself. It was cleaned: ${before} ${before === 1 ? 'ring' : 'rings'} became ${after}. Undo brings it back.`,
    )
  }
  watch(
    () => tool.tool,
    (now, was) => {
      if (was === 'points' && now !== 'points') void left()
    },
  )
  watch(
    () => card.selection,
    (s) => id.value && (s.length !== 1 || s[0] !== id.value) && close(),
  )
  // Undo, and other windows.
  watch(
    () => [item.value?.outline, item.value?.at],
    () => id.value && !busy && void load(),
  )

  /** Makes a change, and reads the points anew. */
  async function change(c: Command, then?: PointRef[]) {
    await card.idle()
    busy = true
    const v = await card.change(c)
    if (v) {
      if (then) chosen.value = then // else what is chosen meanwhile stays
      await load()
    }
    busy = false
    return !!v
  }
  const ids = () => ({ id: id.value, points: chosen.value })

  /** A point that is only chosen moves by nothing, which is no change. */
  const move = async (d: Pt) => (d.x || d.y) && change({ do: 'movePoints', ...ids(), dx: d.x, dy: d.y })
  const bend = (to: 'smooth' | 'corner' | 'straight' | 'curved') => change({ do: 'bendPoints', ...ids(), to })
  const round = (radius: number) => change({ do: 'roundPoints', ...ids(), radius })
  const remove = () => {
    const first = chosen.value[0]
    const before = first && { ring: first.ring, node: Math.max(0, first.node - 1) }
    return change({ do: 'removePoints', ...ids() }, before ? [before] : [])
  }
  /** Puts a point behind each that is chosen, or one at a share of the part after another. */
  async function add(after?: PointRef, at = 0.5) {
    const p = after ?? chosen.value[0]
    if (p) await change({ do: 'addPoint', id: id.value, after: p, at }, [{ ring: p.ring, node: p.node + 1 }])
  }
  const join = () => {
    const [a, b] = chosen.value
    if (a && b) void change({ do: 'joinPoints', id: id.value, a, b }, [])
  }
  const split = () => chosen.value[0] && void change({ do: 'splitPoint', id: id.value, point: chosen.value[0] }, [])
  async function simplify(tolerance: number) {
    const was = count.value
    if (await change({ do: 'simplifyOutline', id: id.value, tolerance }, []))
      void message.info(`${was} points became ${count.value}.`)
  }
  function step(by: 1 | -1) {
    const next = along(rings.value, chosen.value[0], by)
    if (next) chosen.value = [next]
  }

  return {
    id,
    rings,
    place,
    crosses,
    chosen,
    count,
    lines,
    node,
    isChosen,
    open,
    close,
    change,
    move,
    bend,
    round,
    remove,
    add,
    join,
    split,
    simplify,
    step,
  }
})
