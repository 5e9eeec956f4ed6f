// Colours as people see them.

/** How light a colour #rrggbb is to the eye, 0 to 1: its relative luminance (WCAG 2.2). */
export function luminance(colour: string): number {
  const part = (i: number) => {
    const v = parseInt(colour.slice(1 + 2 * i, 3 + 2 * i), 16) / 255
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4
  }
  return 0.2126 * part(0) + 0.7152 * part(1) + 0.0722 * part(2)
}

/** Whether ink of a colour is hardly seen on light paper. */
export const isPale = (colour: string) => luminance(colour) > 0.8

/** A colour of three parts, 0 to 255, as #rrggbb. */
export const hex = (...parts: [number, number, number]) =>
  '#' + parts.map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')
