// What a pointer does on the work surface: choosing, the band, panning, and
// handing over to useDrag for moving, resizing and turning.
import { useEventListener } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import type { Pt } from '../parts/geom'
import { useCard } from '../store/card'
import type { Grip, useDrag } from './useDrag'
import type { useViewport } from './useViewport'

type Track = (to: Pt, e: PointerEvent) => void

/** How far a pointer may stray, in pixels, and still mean a click. */
const CLICK = 3

export function usePointer(
  el: Ref<HTMLElement | undefined>,
  view: ReturnType<typeof useViewport>,
  drag: ReturnType<typeof useDrag>,
) {
  const card = useCard()
  const space = ref(false)
  const band = ref<{ from: Pt; to: Pt }>()
  let track: Track | undefined
  let release: (() => void) | undefined
  let moved = false
  let from: Pt = { x: 0, y: 0 }

  /** Takes the focus without a ring: the pointer knows where it is. */
  const focus = () => el.value?.focus({ preventScroll: true, focusVisible: false } as FocusOptions)

  /** The item under a pointer; a captured pointer's events name the surface alone. */
  const itemAt = (e: MouseEvent) =>
    document.elementFromPoint(e.clientX, e.clientY)?.closest<SVGElement>('[data-item]')?.dataset.item

  function follow(e: PointerEvent, t: Track, done?: () => void) {
    e.preventDefault()
    e.stopPropagation()
    el.value?.setPointerCapture(e.pointerId)
    focus()
    track = t
    release = done
    moved = false
    from = view.local(e)
  }

  function pan(e: PointerEvent) {
    let last = view.local(e)
    follow(e, (_, m) => {
      const p = view.local(m)
      view.pan(p.x - last.x, p.y - last.y)
      last = p
    })
  }

  /** Fingers on the surface: two of them pan and zoom, whatever one has begun. */
  const fingers = new Map<number, Pt>()

  function fingerDown(e: PointerEvent): boolean {
    if (e.pointerType !== 'touch') return false
    fingers.set(e.pointerId, view.local(e))
    if (fingers.size < 2) return false
    cancel()
    return true
  }

  function fingerMoved(e: PointerEvent): boolean {
    const was = fingers.get(e.pointerId)
    if (!was) return false
    const now = view.local(e)
    fingers.set(e.pointerId, now)
    const other = [...fingers].find(([id]) => id !== e.pointerId)?.[1]
    if (!other || fingers.size !== 2) return fingers.size > 1
    // The other finger holds still for this one step.
    view.pan((now.x - was.x) / 2, (now.y - was.y) / 2)
    const before = Math.hypot(was.x - other.x, was.y - other.y)
    const after = Math.hypot(now.x - other.x, now.y - other.y)
    if (before > 20 && after > 20) view.zoomBy(after / before, { x: (now.x + other.x) / 2, y: (now.y + other.y) / 2 })
    return true
  }

  function down(e: PointerEvent) {
    if (fingerDown(e)) return
    if (e.button === 1 || space.value) return pan(e)
    if (e.button !== 0) return
    const id = itemAt(e)
    const add = e.shiftKey || e.ctrlKey || e.metaKey
    if (!id) {
      const start = view.local(e)
      return follow(
        e,
        (_, m) => (band.value = { from: start, to: view.local(m) }),
        () => choose(e.shiftKey),
      )
    }
    const ids = card.unit(id)
    // What is selected already may be meant to be dragged, Shift or not; it is
    // only let go when the pointer did not move.
    const had = card.selection.includes(id)
    if (!had) card.select(ids, add)
    if (card.selected.some((it) => it.locked)) {
      // What is locked can be chosen, and nothing more by a pointer.
      return follow(
        e,
        () => undefined,
        () => had && !moved && card.select(ids, add),
      )
    }
    const go = drag.move(view.toFace(view.local(e)))
    follow(
      e,
      (to, m) => go(to, m.shiftKey, m.altKey),
      () => {
        if (moved) return
        if (!add) card.select(ids)
        else if (had) card.select(ids, true)
      },
    )
  }

  /** Selects what the band encloses, or nothing when there was only a click. */
  function choose(add: boolean) {
    const b = band.value
    band.value = undefined
    if (!b || !moved) {
      if (!add) card.select([])
      return
    }
    const p = view.toFace({ x: Math.min(b.from.x, b.to.x), y: Math.min(b.from.y, b.to.y) })
    const q = view.toFace({ x: Math.max(b.from.x, b.to.x), y: Math.max(b.from.y, b.to.y) })
    const inside = (card.face?.items ?? []).filter(
      ({ bounds: r, locked }) => !locked && r.x >= p.x && r.y >= p.y && r.x + r.w <= q.x && r.y + r.h <= q.y,
    )
    card.select([...new Set([...(add ? card.selection : []), ...inside.flatMap((it) => card.unit(it.id))])])
  }

  function motion(e: PointerEvent) {
    if (fingerMoved(e) || !track) return
    const p = view.local(e)
    if (!moved && Math.hypot(p.x - from.x, p.y - from.y) < CLICK) return
    moved = true
    track(view.toFace(p), e)
  }

  function up(e: PointerEvent) {
    fingers.delete(e.pointerId)
    if (!track) return
    track = undefined
    release?.()
    release = undefined
    if (moved) void drag.drop()
    else drag.cancel()
  }

  function lost(e: PointerEvent) {
    fingers.delete(e.pointerId)
    cancel()
  }

  function cancel() {
    track = undefined
    release = undefined
    band.value = undefined
    drag.cancel()
  }

  function grip(e: PointerEvent, g: Grip) {
    const go = drag.resize(g)
    follow(e, (to, m) => go(to, m.shiftKey))
  }

  function turn(e: PointerEvent) {
    const go = drag.turnAbout(view.toFace(view.local(e)))
    follow(e, (to, m) => go(to, m.shiftKey))
  }

  useEventListener(window, 'keydown', (e: KeyboardEvent) => {
    if (e.key === ' ' && document.activeElement === el.value) {
      space.value = true
      e.preventDefault()
    }
    if (e.key === 'Escape' && track) cancel()
  })
  useEventListener(window, 'keyup', (e: KeyboardEvent) => {
    if (e.key === ' ') space.value = false
  })

  /** The band as a rectangle, in pixels. */
  const bandBox = computed(() => {
    const b = band.value
    if (!b) return undefined
    return {
      x: Math.min(b.from.x, b.to.x),
      y: Math.min(b.from.y, b.to.y),
      width: Math.abs(b.to.x - b.from.x),
      height: Math.abs(b.to.y - b.from.y),
    }
  })

  return { space, bandBox, focus, itemAt, down, motion, up, lost, grip, turn }
}
