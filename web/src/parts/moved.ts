// Many small forms that each move on their own, drawn as one and shaded here:
// for panels of plain paper that costs far less than a call of the graphics and
// a lit surface for each, above all where there is no graphics chip.
import * as three from 'three'
import type { FoldView } from '../api/types'

type Motion = FoldView['frames'][number][number]

/** How light paper is that faces a way, in the card's own space; 1 is as it is. */
export type Shade = (x: number, y: number, z: number) => number

export class Moved {
  readonly geometry = new three.BufferGeometry()
  private readonly from: Float32Array
  private readonly normals: Float32Array | undefined
  /** Where each form's vertices begin, and where the last end. */
  private readonly starts: number[] = [0]

  /** Forms of the same attributes, all with an index or none, in the order of the motions. */
  constructor(
    forms: three.BufferGeometry[],
    private readonly colour: three.Color,
  ) {
    for (const f of forms) this.starts.push(this.starts.at(-1)! + f.attributes.position!.count)
    const join = (name: string) => {
      const out = new Float32Array(this.starts.at(-1)! * 3)
      forms.forEach((f, i) => out.set(f.attributes[name]!.array, this.starts[i]! * 3))
      return out
    }
    this.from = join('position')
    if (forms[0]?.attributes.normal) this.normals = join('normal')
    if (forms[0]?.index)
      this.geometry.setIndex(forms.flatMap((f, i) => Array.from(f.index!.array, (v) => v + this.starts[i]!)))
    for (const name of this.normals ? ['position', 'color'] : ['position']) {
      const a = new three.BufferAttribute(new Float32Array(this.from.length), 3)
      this.geometry.setAttribute(name, a.setUsage(three.DynamicDrawUsage))
    }
  }

  move(motions: Motion[], shade: Shade) {
    const to = this.geometry.attributes.position!
    const places = to.array as Float32Array
    const paint = this.geometry.attributes.color?.array as Float32Array | undefined
    const { r, g, b } = this.colour
    for (let i = 0; i + 1 < this.starts.length; i++) {
      const m = motions[i]
      if (!m) continue
      for (let k = 3 * this.starts[i]!, end = 3 * this.starts[i + 1]!; k < end; k += 3) {
        const [x, y, z] = [this.from[k]!, this.from[k + 1]!, this.from[k + 2]!]
        places[k] = m[0] * x + m[1] * y + m[2] * z + m[3]
        places[k + 1] = m[4] * x + m[5] * y + m[6] * z + m[7]
        places[k + 2] = m[8] * x + m[9] * y + m[10] * z + m[11]
        if (!paint || !this.normals) continue
        const [u, v, w] = [this.normals[k]!, this.normals[k + 1]!, this.normals[k + 2]!]
        const light = shade(
          m[0] * u + m[1] * v + m[2] * w,
          m[4] * u + m[5] * v + m[6] * w,
          m[8] * u + m[9] * v + m[10] * w,
        )
        paint[k] = r * light
        paint[k + 1] = g * light
        paint[k + 2] = b * light
      }
    }
    for (const a of Object.values(this.geometry.attributes)) (a as three.BufferAttribute).needsUpdate = true
  }
}
