// Pieces chosen on the sheets, and how they are laid by hand: dragged, turned, tied.
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Laid, SheetPiece, SheetView } from '../../api/types'
import { useCard } from '../../store/card'

export interface Drag {
  piece: string
  /** How far it was dragged, mm on its sheet. */
  dx: number
  dy: number
  /** Where the pointer is on the page. */
  x: number
  y: number
  /** The sheet under the pointer, if the piece may lie there. */
  over?: number
  wrong: string
}

export function useLaying(list: () => SheetView[]) {
  const card = useCard()
  const picked = ref<string[]>([])
  const drag = ref<Drag>()

  const find = (id: string) => {
    for (const sheet of list()) {
      const piece = sheet.pieces.find((p) => p.id === id)
      if (piece) return { sheet, piece }
    }
    return undefined
  }
  const chosen = computed(() => picked.value.map(find).filter((c) => c !== undefined))
  /** A piece with what it is tied to. */
  const withTied = (id: string) => {
    const c = find(id)
    if (!c?.piece.tie) return [id]
    return c.sheet.pieces.filter((p) => p.tie === c.piece.tie).map((p) => p.id)
  }

  function pick(id: string, add: boolean) {
    if (!add) picked.value = [id]
    else if (picked.value.includes(id)) picked.value = picked.value.filter((p) => p !== id)
    else picked.value = [...picked.value, id]
  }

  const laid = (p: SheetPiece, sheet: { of: number; size: { id: string } }, place = p.place): Laid => ({
    piece: p.id,
    sheet: Math.max(0, sheet.of),
    // A scrap is no size that the others can be laid on.
    ...(sheet.of < 0 ? {} : { size: sheet.size.id }),
    place: { x: place.x, y: place.y, turn: place.turn },
  })

  /** Lays pieces elsewhere on their sheets; of a tied set the first one leads. */
  function lay(change: (p: SheetPiece, sheet: SheetView) => Laid) {
    const led = new Set<number>()
    const pieces = chosen.value
      .filter(({ piece }) => !piece.tie || (!led.has(piece.tie) && led.add(piece.tie)))
      .map(({ piece, sheet }) => change(piece, sheet))
    if (pieces.length) void card.change({ do: 'layPieces', pieces })
  }
  const move = (dx: number, dy: number) =>
    lay((p, s) => laid(p, s, { ...p.place, x: p.place.x + dx, y: p.place.y + dy }))
  const turn = (degrees: number) => lay((p, s) => laid(p, s, { ...p.place, turn: tidy(p.place.turn + degrees) }))
  const tidy = (turn: number) => ((((turn + 180) % 360) + 360) % 360) - 180
  /** To a sheet of its stock that nothing lies on yet. */
  const apart = () =>
    lay((p, sheet) => {
      const of = list().filter((s) => s.stock.id === sheet.stock.id && s.of >= 0).length
      return laid(p, { of, size: sheet.size })
    })
  /** To the sheet of its stock with that number among them. */
  const onto = (of: number) =>
    lay((p, sheet) => {
      const to = list().find((s) => s.stock.id === sheet.stock.id && s.of === of)
      return laid(p, to ?? sheet)
    })
  const loosen = () => void card.change({ do: 'loosenPieces', pieces: picked.value })
  const tie = () =>
    void card.change({ do: 'tiePieces', pieces: chosen.value.map(({ piece, sheet }) => laid(piece, sheet)) })
  const untie = () => void card.change({ do: 'untiePieces', pieces: picked.value })

  const tied = computed(() => chosen.value.some(({ piece }) => piece.tie))
  const byHand = computed(() => chosen.value.some(({ piece }) => piece.byHand))
  const canTie = computed(
    () =>
      chosen.value.length > 1 &&
      !tied.value &&
      chosen.value.every((c) => c.sheet.number === chosen.value[0]?.sheet.number),
  )

  /** The sheet under a place of the page, and that place on it. */
  function under(x: number, y: number) {
    for (const el of document.elementsFromPoint(x, y)) {
      const ground = el.closest<SVGElement>('[data-sheet]')
      const sheet = ground && list().find((s) => s.number === Number(ground.dataset.sheet))
      if (!ground || !sheet) continue
      const r = ground.getBoundingClientRect()
      return { sheet, x: ((x - r.left) / r.width) * sheet.size.width, y: ((y - r.top) / r.height) * sheet.size.height }
    }
    return undefined
  }

  function grab(e: PointerEvent, id: string) {
    if (e.button !== 0) return
    const start = find(id)
    const from = under(e.clientX, e.clientY)
    if (!picked.value.includes(id)) pick(id, e.shiftKey || e.ctrlKey || e.metaKey)
    else if (e.shiftKey || e.ctrlKey || e.metaKey) return pick(id, true)
    if (!start || !from) return
    const scale = start.sheet.size.width / groundOf(start.sheet.number)
    const move = (m: PointerEvent) => {
      const [dx, dy] = [(m.clientX - e.clientX) * scale, (m.clientY - e.clientY) * scale]
      if (!drag.value && Math.hypot(m.clientX - e.clientX, m.clientY - e.clientY) < 4) return
      const to = under(m.clientX, m.clientY)
      const fits = to?.sheet.stock.id === start.sheet.stock.id && to.sheet.of >= 0
      drag.value = {
        piece: id,
        dx,
        dy,
        x: m.clientX,
        y: m.clientY,
        over: fits ? to.sheet.number : undefined,
        wrong: to && !fits ? `${start.piece.name} is cut from ${start.sheet.stock.name}.` : '',
      }
    }
    const end = (cancel: boolean) => () => {
      for (const stop of listening) stop()
      const d = drag.value
      drag.value = undefined
      const to = d && under(d.x, d.y)
      if (cancel || !d?.over || !to) return
      // Where it was grabbed stays under the pointer.
      const place = { ...start.piece.place }
      place.x += to.x - from.x
      place.y += to.y - from.y
      void card.change({ do: 'layPieces', pieces: [laid(start.piece, to.sheet, place)] })
    }
    const leave = end(true)
    const escape = (k: KeyboardEvent) => {
      if (k.key !== 'Escape') return
      k.stopPropagation()
      leave()
    }
    const listening = [
      useEventListener(window, 'pointermove', move),
      useEventListener(window, 'pointerup', end(false)),
      useEventListener(window, 'pointercancel', leave),
      useEventListener(window, 'keydown', escape, { capture: true }),
    ]
  }
  const groundOf = (sheet: number) =>
    document.querySelector(`[data-sheet="${sheet}"]`)?.getBoundingClientRect().width ?? 1

  return {
    picked,
    chosen,
    drag,
    pick,
    withTied,
    grab,
    move,
    turn,
    onto,
    apart,
    loosen,
    tie,
    untie,
    tied,
    byHand,
    canTie,
    laid,
  }
}

export type Laying = ReturnType<typeof useLaying>
