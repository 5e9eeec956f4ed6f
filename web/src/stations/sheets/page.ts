// Where the printer reaches on a sheet.
import type { SheetView } from '../../api/types'

/** What ink is kept within on a sheet that is the base; elsewhere it may run past its piece. */
export function inkWithin(s: SheetView) {
  if (!s.whole || !s.margin) return undefined
  const m = s.margin
  return { x: m, y: m, width: s.size.width - 2 * m, height: s.size.height - 2 * m }
}
