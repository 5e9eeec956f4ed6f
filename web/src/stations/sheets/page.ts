// What is printed on a sheet, and where the printer reaches.
import { api } from '../../api/client'
import type { SheetPiece, SheetView } from '../../api/types'
import { useCard } from '../../store/card'
import { useSheets } from '../../store/sheets'

/** What ink is kept within on a sheet that is the base; elsewhere it may run past its piece. */
export function inkWithin(s: SheetView) {
  if (!s.whole || !s.margin) return undefined
  const m = s.margin
  return { x: m, y: m, width: s.size.width - 2 * m, height: s.size.height - 2 * m }
}

/** What is printed on the sheet of a piece that is made for a name, drawn by the program: the page knows only the
 * card that is shown. */
export function printedFor(s: SheetView, p: SheetPiece) {
  const sheets = useSheets()
  if (!p.row || !s.printed || !sheets.layout) return undefined
  const href = api.sheetInkURL(useCard().id, s.number, sheets.layout.revision, sheets.loads)
  return { href, width: s.size.width, height: s.size.height }
}
