// Cutting out: how the pointer marks what stays, and what that does to the photo's cut.
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { CutOut, Point } from '../api/types'
import { useEdits } from './edits'

export type By = 'strokes' | 'round' | 'line' | 'ground'
/** What a cut is seen on: what goes, the paper behind, a colour; or as what stays, white on black. */
export type Seen = 'all' | 'paper' | 'mask' | `#${string}`

export const useCutOut = defineStore('cutout', () => {
  const edits = useEdits()
  const by = ref<By>('strokes')
  /** What the brush says, or paints. */
  const brush = ref<'stays' | 'goes' | 'in' | 'out'>('stays')
  const soft = ref(false)
  /** The radius of the brush, in shares of the width. */
  const size = ref(0.014)
  const seen = ref<Seen>('all')

  const index = computed(() => edits.edits.findIndex((e) => e.cutOut))
  const now = computed<CutOut | undefined>(() => edits.edits[index.value]?.cutOut)

  function open() {
    brush.value = now.value?.subject?.stays?.length ? 'goes' : 'stays'
    const c = now.value
    by.value = c?.ground ? 'ground' : c?.within ? 'line' : c?.subject?.round ? 'round' : 'strokes'
  }
  /** The edits with another cut; none takes it off. */
  function withCut(c: CutOut | undefined) {
    const all = edits.edits.filter((e) => !e.cutOut)
    if (c) all.splice(index.value < 0 ? all.length : index.value, 0, { cutOut: c })
    return all
  }
  const set = (c: CutOut | undefined) => edits.set(withCut(c))
  const slide = (part: Partial<CutOut>) => now.value && edits.slide(withCut({ ...now.value, ...part }))
  const change = (part: Partial<CutOut>) => now.value && set({ ...now.value, ...part })

  /** What was drawn with the brush, as one stroke. */
  function stroke(points: Point[]) {
    const one = { points, radius: size.value }
    const was = now.value
    if (brush.value === 'in' || brush.value === 'out') {
      if (was)
        void set({ ...was, paint: [...(was.paint ?? []), { ...one, in: brush.value === 'in', soft: soft.value }] })
      return
    }
    const subject = was?.subject ?? {}
    const others = was && !was.ground && !was.within ? was : {}
    void set({ ...others, subject: { ...subject, [brush.value]: [...(subject[brush.value] ?? []), one] } })
    // A stroke on what stays, then one on what goes.
    if (brush.value === 'stays' && !subject.goes?.length) brush.value = 'goes'
  }
  function round(points: Point[]) {
    void set({ subject: { round: points } })
  }
  const within = (points: Point[]) => void set({ ...(now.value?.within ? now.value : {}), within: points })
  /** What was done to the photo before it was cut out. */
  const before = computed(() => (index.value < 0 ? edits.edits : edits.edits.slice(0, index.value)))
  function click(at: Point) {
    const g = now.value?.ground
    void set({ ...(g ? now.value : {}), ground: { tolerance: g?.tolerance ?? 12, ...g, at: [...(g?.at ?? []), at] } })
  }
  /** Takes the last mark off. */
  function back() {
    const c = now.value
    if (!c) return
    if (c.paint?.length) return void set({ ...c, paint: c.paint.slice(0, -1) })
    if (c.ground && c.ground.at.length > 1)
      return void set({ ...c, ground: { ...c.ground, at: c.ground.at.slice(0, -1) } })
    const s = c.subject
    const [stays, goes] = [s?.stays ?? [], s?.goes ?? []]
    if (s && stays.length + goes.length + (s.round ? 1 : 0) > 1) {
      const last = goes.length ? { goes: goes.slice(0, -1) } : { stays: stays.slice(0, -1) }
      return void set({ ...c, subject: { ...s, ...last } })
    }
    void set(undefined)
  }

  return {
    by,
    brush,
    soft,
    size,
    seen,
    index,
    now,
    open,
    slide,
    change,
    set,
    stroke,
    round,
    within,
    before,
    click,
    back,
  }
})
