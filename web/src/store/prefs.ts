// What a person has chosen for themselves and not for a card.
import { defineStore } from 'pinia'
import { useStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { SheetSetup } from '../api/types'
import { format, formatSize, formatUnit, INCH, lead, type Unit } from '../parts/measure'

export const usePrefs = defineStore('prefs', () => {
  const unit = useStorage<Unit>('sectilis.unit', 'in')
  const trayOpen = useStorage('sectilis.tray', true)
  const leftOpen = useStorage('sectilis.left', true)
  /** The sketch that is the maker's mark, and whether new cards get it. */
  const mark = useStorage('sectilis.mark', '')
  const marks = useStorage('sectilis.marks', true)
  /** What the person has set as hers for what is new: how sheets are set up, a stock and an ink; what is chosen
   * for one card goes to no other by itself. */
  const mySheets = useStorage<SheetSetup | null>('sectilis.my.sheets', null, undefined, {
    serializer: { read: (v) => (v ? (JSON.parse(v) as SheetSetup) : null), write: (v) => JSON.stringify(v) },
  })
  const mine = useStorage('sectilis.mine', { stock: '', ink: '' })
  /** The measures that were typed last, mm, the newest first. */
  const recent = useStorage<number[]>('sectilis.recent', [])
  const measured = (mm: number) =>
    (recent.value = [mm, ...recent.value.filter((o) => Math.abs(o - mm) > 1e-4)].slice(0, 8))
  const lines = useStorage('sectilis.lines', false)
  /** How printed pages go out as pictures. */
  const picture = useStorage<{ kind: 'png' | 'jpg'; dpi: number }>('sectilis.picture', { kind: 'png', dpi: 300 })
  /** To which part of an inch directions for hand cutting are measured. */
  const parts = useStorage<32 | 64>('sectilis.parts', 32)
  const spot = useStorage('sectilis.spot', false)
  const step = computed(() =>
    unit.value === 'in'
      ? { normal: INCH / 16, fine: INCH / 64, coarse: INCH / 2 }
      : { normal: 1, fine: 0.1, coarse: 10 },
  )
  return {
    unit,
    trayOpen,
    leftOpen,
    mark,
    marks,
    mine,
    mySheets,
    recent,
    measured,
    lines,
    spot,
    parts,
    picture,
    step,
    len: (mm: number) => format(mm, unit.value),
    lenUnit: (mm: number) => formatUnit(mm, unit.value),
    /** A sentence of the program, with the chosen unit first. */
    said: (text: string) => lead(text, unit.value),
    size: (w: number, h: number) => formatSize(w, h, unit.value),
  }
})
