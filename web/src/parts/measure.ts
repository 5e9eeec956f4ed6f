// Writes lengths as people read them: the same as core/ground/measure does, and
// tested against the same table.
export type Unit = 'in' | 'mm'

export const INCH = 25.4

const glyphs: Record<string, string> = {
  '1/2': '½',
  '1/4': '¼',
  '3/4': '¾',
  '1/8': '⅛',
  '3/8': '⅜',
  '5/8': '⅝',
  '7/8': '⅞',
}

/** A length of mm without its unit: to a part of an inch or to 0.1 mm. */
export function format(mm: number, unit: Unit, parts = 32): string {
  const sign = mm < 0 ? '-' : ''
  if (unit === 'mm') {
    const v = Math.round(Math.abs(mm) * 10) / 10
    return v === 0 ? '0' : sign + String(v)
  }
  const n = Math.round((Math.abs(mm) / INCH) * parts)
  if (n === 0) return '0'
  const whole = Math.floor(n / parts)
  let over = n % parts
  let under = parts
  while (over > 0 && over % 2 === 0) {
    over /= 2
    under /= 2
  }
  if (over === 0) return sign + whole
  const fraction = glyphs[`${over}/${under}`] ?? `${over}/${under}`
  return sign + (whole === 0 ? fraction : `${whole} ${fraction}`)
}

/** With its unit; small amounts that 1/32 in would round by much are written to 1/64 in or in mm. */
export function formatUnit(mm: number, unit: Unit): string {
  const a = Math.abs(mm)
  const off = (parts: number) => Math.abs(a - (Math.round((a / INCH) * parts) * INCH) / parts)
  if (unit === 'in' && a > 0.004 && a < INCH / 8 && off(32) > 0.05)
    return off(64) <= 0.05 ? `${format(mm, unit, 64)} in` : `${Math.round(mm * 100) / 100} mm`
  return `${format(mm, unit)} ${unit}`
}

export const formatSize = (w: number, h: number, unit: Unit) => `${format(w, unit)} × ${format(h, unit)} ${unit}`

/** A sentence of the program, whose measures are “1 ½ in (38.1 mm)”, with the chosen unit first. */
export function lead(text: string, unit: Unit): string {
  if (unit === 'in') return text
  const inches = '-?[\\d½¼¾⅛⅜⅝⅞](?:[\\d/ ½¼¾⅛⅜⅝⅞]*[\\d½¼¾⅛⅜⅝⅞])?'
  const both = new RegExp(`(${inches}(?: × ${inches})? in) \\((-?[\\d.]+(?: × [\\d.]+)? mm)\\)`, 'g')
  return text.replace(both, '$2 ($1)')
}

/** An area, in square inches or square centimetres. */
export const formatArea = (mm2: number, unit: Unit) =>
  unit === 'in' ? `${Math.round(mm2 / INCH / INCH)} in²` : `${Math.round(mm2 / 100)} cm²`

export const formatTime = (seconds: number) => {
  const s = Math.max(0, Math.round(seconds))
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}

/** How long ago, in words. */
export function ago(iso: string, now: number): string {
  const at = new Date(iso)
  const minutes = Math.floor((now - at.getTime()) / 60000)
  if (minutes < 1) return 'just now'
  if (minutes < 60) return minutes === 1 ? 'a minute ago' : `${minutes} minutes ago`
  const days = Math.floor((new Date(now).setHours(0, 0, 0, 0) - new Date(iso).setHours(0, 0, 0, 0)) / 86400000)
  if (days < 1) return 'today'
  if (days === 1) return 'yesterday'
  if (days < 7) return `${days} days ago`
  return at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
}
