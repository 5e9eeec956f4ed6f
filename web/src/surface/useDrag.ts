// Dragging on the surface: moving, resizing and turning what is selected. The
// items only look as if they were elsewhere; one command at the end makes it so.
import { ref, shallowRef, type Ref } from 'vue'
import type { Command, SceneFace, SceneItem } from '../api/types'
import { about, apply, centre, shift, then, turn, union, type Box, type Matrix, type Pt } from '../parts/geom'
import { around, foldLines, snap, type Around, type SnapGap, type SnapLine } from './snap'

export type Grip = 'nw' | 'n' | 'ne' | 'e' | 'se' | 's' | 'sw' | 'w'

export interface Note {
  at: Pt
  text: string
}

interface Options {
  face: Ref<SceneFace | undefined>
  selected: Ref<SceneItem[]>
  scale: Ref<number>
  ratio: () => boolean
  size: (w: number, h: number) => string
  len: (mm: number) => string
  change: (c: Command) => Promise<unknown>
}

const dirs: Record<Grip, Pt> = {
  nw: { x: -1, y: -1 },
  n: { x: 0, y: -1 },
  ne: { x: 1, y: -1 },
  e: { x: 1, y: 0 },
  se: { x: 1, y: 1 },
  s: { x: 0, y: 1 },
  sw: { x: -1, y: 1 },
  w: { x: -1, y: 0 },
}

const within = (p: Pt, b: Box) => p.x >= b.x && p.y >= b.y && p.x <= b.x + b.w && p.y <= b.y + b.h

export function useDrag(o: Options) {
  const live = shallowRef<Map<string, Matrix>>()
  const lines = shallowRef<SnapLine[]>([])
  const gaps = shallowRef<SnapGap[]>([])
  const note = ref<Note>()
  /** The cell that the dragged one swaps pictures with when it is let go. */
  const swap = shallowRef<SceneItem>()
  let end: (() => Promise<unknown> | undefined) | undefined

  /** Everything that moves along with the items. */
  const along = (its: SceneItem[]) => new Set(its.flatMap((it) => [it.id, ...(it.with ?? [])]))

  /** What moving items can catch on. */
  function others(moving: Set<string>): Around {
    const f = o.face.value
    if (!f) return around([], [])
    const still = f.items.filter((it) => !moving.has(it.id))
    return around(
      [{ x: 0, y: 0, w: f.width, h: f.height }, f.safe, ...still.filter((it) => it.role).map((it) => it.bounds)],
      still.filter((it) => !it.role).map((it) => it.bounds),
      foldLines(f),
    )
  }

  function move(from: Pt) {
    const its = o.selected.value
    const moving = along(its)
    const box = union(its.map((it) => it.bounds))
    const near = others(moving)
    const cell = its.length === 1 && its[0]!.cell && its[0]!.picture ? its[0]! : undefined
    const cells = cell
      ? (o.face.value?.items.filter((it) => it.cell && it.group === cell.group && it !== cell) ?? [])
      : []
    return (to: Pt, free: boolean, one: boolean) => {
      const under = free ? undefined : cells.find((it) => within(to, it.bounds))
      swap.value = under
      let dx = to.x - from.x
      let dy = to.y - from.y
      if (one) {
        if (Math.abs(dx) > Math.abs(dy)) dy = 0
        else dx = 0
      }
      const s = free
        ? { dx: 0, dy: 0, lines: [], gaps: [] }
        : snap({ ...box, x: box.x + dx, y: box.y + dy }, near, 6 / o.scale.value)
      dx += s.dx
      dy += s.dy
      lines.value = under ? [] : s.lines
      gaps.value = under ? [] : s.gaps
      live.value = new Map([...moving].map((id) => [id, shift(dx, dy)]))
      note.value = {
        at: to,
        text: under ? 'Let go to swap the two pictures' : distances({ ...box, x: box.x + dx, y: box.y + dy }),
      }
      if (cell && under) {
        end = () => o.change({ do: 'swapPictures', a: cell.id, b: under.id })
        return
      }
      end = () => (dx || dy ? o.change({ do: 'moveItems', ids: its.map((it) => it.id), dx, dy }) : undefined)
    }
  }

  /** The distances to the nearest edges of the face. */
  function distances(b: Box): string {
    const f = o.face.value
    if (!f) return ''
    const left = b.x
    const right = f.width - b.x - b.w
    const top = b.y
    const bottom = f.height - b.y - b.h
    const x = Math.abs(left) <= Math.abs(right) ? `${o.len(left)} from left` : `${o.len(right)} from right`
    const y = Math.abs(top) <= Math.abs(bottom) ? `${o.len(top)} from top` : `${o.len(bottom)} from bottom`
    return `${x} · ${y}`
  }

  function resize(grip: Grip) {
    const its = o.selected.value
    const one = its.length === 1 ? its[0]! : undefined
    const box = one ? one.box : union(its.map((it) => it.bounds))
    const dir = dirs[grip]
    // The opposite corner or side stays where it is.
    const held = { x: box.x + (box.w * (1 - dir.x)) / 2, y: box.y + (box.h * (1 - dir.y)) / 2 }
    const base: Matrix = one ? one.at : [1, 0, 0, 1, 0, 0]
    const anchor = apply(base, held)
    const free = one ? one.freeRatio : false
    const angle = one ? one.turn : 0
    const side = one?.mirrored ? -1 : 1
    return (to: Pt, release: boolean) => {
      const local = apply(turn(-angle), { x: to.x - anchor.x, y: to.y - anchor.y })
      const least = 1 / Math.max(box.w, box.h)
      let fx = dir.x ? Math.max(least, (local.x * dir.x * side) / box.w) : 1
      let fy = dir.y ? Math.max(least, (local.y * dir.y) / box.h) : 1
      // A side makes it longer that way alone; a corner keeps the ratio where it is kept.
      const oneWay = dir.x === 0 || dir.y === 0
      if (!free || (oneWay ? release : o.ratio() !== release)) {
        const f = !dir.x ? fy : !dir.y ? fx : (fx + fy) / 2
        fx = f
        fy = f
      }
      const stretch: Matrix = [fx, 0, 0, fy, 0, 0]
      const whole = about(then(then(turn(-angle), stretch), turn(angle)), anchor)
      const map = new Map<string, Matrix>()
      for (const it of its) {
        map.set(it.id, whole)
        const c = apply(it.at, centre(it.box))
        const to2 = apply(whole, c)
        for (const w of it.with ?? []) {
          const rider = o.face.value?.items.find((r) => r.id === w)
          // A mat grows with what lies on it; what is carried keeps its size.
          map.set(w, rider?.kind === 'mat' ? whole : shift(to2.x - c.x, to2.y - c.y))
        }
      }
      live.value = map
      note.value = { at: to, text: o.size(box.w * fx, box.h * fy) }
      end = () =>
        fx !== 1 || fy !== 1
          ? o.change({ do: 'resizeItems', ids: its.map((it) => it.id), fx, fy, about: anchor })
          : undefined
    }
  }

  function turnAbout(from: Pt) {
    const its = o.selected.value
    const moving = along(its)
    const c = its.length === 1 ? apply(its[0]!.at, centre(its[0]!.box)) : centre(union(its.map((it) => it.bounds)))
    const start = Math.atan2(from.y - c.y, from.x - c.x)
    const now = its.length === 1 ? its[0]!.turn : 0
    return (to: Pt, free: boolean) => {
      let deg = ((Math.atan2(to.y - c.y, to.x - c.x) - start) * 180) / Math.PI
      if (!free) {
        const whole = Math.round((now + deg) / 15) * 15
        if (Math.abs(whole - (now + deg)) < 3) deg = whole - now
      }
      deg = Math.round(deg * 10) / 10
      live.value = new Map([...moving].map((id) => [id, about(turn(deg), c)]))
      const total = ((((now + deg + 180) % 360) + 360) % 360) - 180
      note.value = { at: to, text: `${+total.toFixed(1)}°` }
      end = () =>
        deg
          ? o.change({ do: 'turnItems', ids: its.map((it) => it.id), degrees: ((deg + 540) % 360) - 180, about: c })
          : undefined
    }
  }

  /** Ends the drag; what is shown stays until the answer is there. */
  async function drop() {
    const done = end
    end = undefined
    lines.value = []
    gaps.value = []
    note.value = undefined
    swap.value = undefined
    await done?.()
    live.value = undefined
  }

  function cancel() {
    end = undefined
    lines.value = []
    gaps.value = []
    note.value = undefined
    swap.value = undefined
    live.value = undefined
  }

  return { live, lines, gaps, note, swap, move, resize, turnAbout, drop, cancel }
}
