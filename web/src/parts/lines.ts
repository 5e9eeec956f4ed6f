// How line roles are named and drawn: told apart by dash as well as by colour.
import type { Lines } from '../api/types'

export type Role = Lines['role']

export const roleNames: Record<Role, string> = {
  cut: 'Cut',
  mountain: 'Mountain score',
  valley: 'Valley score',
  perforation: 'Perforation',
  kiss: 'Kiss cut',
  pen: 'Pen',
  guide: 'Guide',
}

interface Look {
  stroke: string
  'stroke-width': number
  'stroke-dasharray'?: string
}

/** Strokes in pixels, for lines that keep their width at every zoom. */
export const roleLook: Record<Role, Look> = {
  cut: { stroke: '#1f2b38', 'stroke-width': 1.4 },
  mountain: { stroke: '#a4572b', 'stroke-width': 1.6, 'stroke-dasharray': '14 3 2.5 3' },
  valley: { stroke: '#35658c', 'stroke-width': 1.6, 'stroke-dasharray': '8 5' },
  perforation: { stroke: '#1f2b38', 'stroke-width': 1.6, 'stroke-dasharray': '1.6 3' },
  kiss: { stroke: '#1f2b38', 'stroke-width': 1.2 },
  pen: { stroke: '#1f2b38', 'stroke-width': 1.6 },
  guide: { stroke: '#7a4666', 'stroke-width': 1.4, 'stroke-dasharray': '16 8' },
}
