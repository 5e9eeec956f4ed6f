// The folded card as solids: panels as thick as their paper, pieces as high as
// they lie, foam under what is raised. Loaded when a card is first looked at.
import * as three from 'three'
import { SVGLoader } from 'three/examples/jsm/loaders/SVGLoader.js'
import { mergeVertices } from 'three/examples/jsm/utils/BufferGeometryUtils.js'
import type { FoldView, SceneFace, SceneItem } from '../api/types'
import { Moved, type Shade } from './moved'
import { corners } from './space'

type Motion = FoldView['frames'][number][number]

export interface Sheet {
  fold: FoldView
  faces: SceneFace[]
  colour: string
  thickness: number
  look: (face: string, piece?: string) => string
}

export interface Stage {
  resize: (width: number, height: number) => void
  /** Places every panel and draws. */
  show: (motions: Motion[], eye: { over: 'upright' | 'level' | 'table'; yaw: number; pitch: number }) => void
  dispose: () => void
}

const shapesOf = (d: string) =>
  new SVGLoader()
    .parse(`<svg xmlns="http://www.w3.org/2000/svg"><path d="${d}"/></svg>`)
    .paths.flatMap((p) => p.toShapes())

/** Whether pictures are worked out without a graphics chip, where smooth edges cost most. */
function inSoftware(): boolean {
  const gl = document.createElement('canvas').getContext('webgl2')
  const info = gl?.getExtension('WEBGL_debug_renderer_info')
  const name = info ? String(gl!.getParameter(info.UNMASKED_RENDERER_WEBGL)) : ''
  gl?.getExtension('WEBGL_lose_context')?.loseContext()
  return /swiftshader|llvmpipe|software/i.test(name)
}

const ends = (d: string) => corners(d).map((p) => new three.Vector3(p.x, p.y, 0))

/** The edge of a panel, as lines on both sides of its paper. */
function outline(d: string, half: number): three.BufferGeometry {
  const ring = ends(d)
  const sides = [half, -half].map((z) => ring.map((p) => p.clone().setZ(z)))
  return new three.BufferGeometry().setFromPoints(
    sides.flatMap((s) => s.flatMap((p, i) => [p, s[(i + 1) % s.length]!])),
  )
}

/** Lays a picture over a flat form: at maps the form's places to it. */
function lay(g: three.BufferGeometry, at: (x: number, y: number) => [number, number]) {
  const p = g.attributes.position!
  const uv = new Float32Array(p.count * 2)
  for (let i = 0; i < p.count; i++) {
    const [u, v] = at(p.getX(i), p.getY(i))
    uv[2 * i] = u
    uv[2 * i + 1] = 1 - v
  }
  g.setAttribute('uv', new three.BufferAttribute(uv, 2))
}

/** The inverse of a face's map to the sheet. */
function inverse(m: number[]): (x: number, y: number) => [number, number] {
  const [a, b, c, d, e, f] = m as [number, number, number, number, number, number]
  const det = a * d - b * c
  return (x, y) => [(d * (x - e) - c * (y - f)) / det, (a * (y - f) - b * (x - e)) / det]
}

export function stage(canvas: HTMLCanvasElement, sheet: Sheet, drawn: () => void): Stage {
  const renderer = new three.WebGLRenderer({ canvas, antialias: !inSoftware(), alpha: true })
  renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2))
  const world = new three.Scene()
  world.add(new three.HemisphereLight('#fffdf8', '#e2d6c0', 2.5))
  const sun = new three.DirectionalLight('#ffffff', 0.85)
  sun.position.copy(lamp)
  world.add(sun)
  const camera = new three.OrthographicCamera(-1, 1, 1, -1, -4000, 4000)
  const card = new three.Group()
  world.add(card)

  let redraw = () => undefined as void
  let gone = false
  const loader = new three.TextureLoader()
  const kept: { dispose: () => void }[] = []
  const keep = <T extends { dispose: () => void }>(v: T): T => {
    kept.push(v)
    return v
  }
  // Panels of one face share its picture.
  const pictures = new Map<string, three.Material>()
  const plain = (colour: string) => keep(new three.MeshLambertMaterial({ color: colour, side: three.DoubleSide }))
  /** What is seen of a face or a piece: its paper, until its picture has come. */
  function picture(url: string, ground: string): three.Material {
    const known = pictures.get(url)
    if (known) return known
    const m = plain(ground)
    loader.load(url, (t) => {
      if (gone) return t.dispose()
      t.colorSpace = three.SRGBColorSpace
      t.anisotropy = 4
      m.map = keep(t)
      m.color.set('#ffffff')
      m.needsUpdate = true
      redraw()
    })
    pictures.set(url, m)
    return m
  }
  const paper = keep(new three.MeshBasicMaterial({ vertexColors: true, side: three.DoubleSide }))
  const rim = keep(new three.LineBasicMaterial({ color: '#b9a67f' }))
  const foam = plain('#fbfaf6')
  const half = sheet.thickness / 2

  const bodies: three.BufferGeometry[] = []
  const rims: three.BufferGeometry[] = []
  const groups = sheet.fold.panels.map((p) => {
    const g = new three.Group()
    g.matrixAutoUpdate = false
    card.add(g)
    const shapes = shapesOf(p.ring)
    const body = new three.ExtrudeGeometry(shapes, { depth: sheet.thickness, bevelEnabled: false })
    body.translate(0, 0, -half)
    body.deleteAttribute('uv')
    bodies.push(mergeVertices(body))
    // White paper on a light table needs its edge drawn.
    rims.push(outline(p.ring, half))
    for (const [id, z] of [
      [p.outside, half + 0.03],
      [p.inside, -half - 0.03],
    ] as const) {
      const face = sheet.faces.find((f) => f.id === id)
      // Where nothing is printed on the base, its paper says it all.
      if (!face?.items.some((it) => !it.piece && !it.on && !it.role)) continue
      const skin = keep(new three.ShapeGeometry(shapes))
      const to = inverse(face.onSheet)
      lay(skin, (x, y) => {
        const [u, v] = to(x, y)
        return [u / face.width, v / face.height]
      })
      skin.translate(0, 0, z)
      g.add(new three.Mesh(skin, picture(sheet.look(face.id), sheet.colour)))
    }
    return { group: g, corners: ends(p.ring), ring: new Path2D(p.ring) }
  })

  const moved = [new Moved(bodies, new three.Color(sheet.colour)), new Moved(rims, rim.color)] as const
  for (const f of [...bodies, ...rims]) f.dispose()
  const rimmed = new three.LineSegments(keep(moved[1].geometry), rim)
  for (const drawn of [new three.Mesh(keep(moved[0].geometry), paper), rimmed]) {
    drawn.frustumCulled = false // its places change
    card.add(drawn)
  }

  // A piece stands on the panel that it is glued to; thin paper folds with the panels it
  // lies on.
  for (const face of sheet.faces) {
    for (const it of face.items.filter((i) => i.piece)) {
      const parts = sheet.fold.bent[it.id]
      for (const p of parts ?? []) groups[p.panel]?.group.add(piece(face, it, p.path))
      const home = groups[sheet.fold.homes[it.id] ?? -1]
      if (parts || !home) continue
      home.group.add(piece(face, it, it.outline))
      // What reaches over its panel is to be seen whole.
      const { x, y, w, h } = it.bounds
      for (const [cx, cy] of [
        [x, y],
        [x + w, y],
        [x, y + h],
        [x + w, y + h],
      ] as const) {
        const on = apply(face.onSheet, { x: cx, y: cy })
        home.corners.push(new three.Vector3(on.x, on.y, 0))
      }
    }
  }

  function piece(face: SceneFace, it: SceneItem, outline: string): three.Object3D {
    const out = new three.Group()
    const shapes = shapesOf(outline)
    const thick = Math.max(it.to - it.from - it.lift, 0.1)
    const body = keep(new three.ExtrudeGeometry(shapes, { depth: thick, bevelEnabled: false, curveSegments: 8 }))
    const top = keep(new three.ShapeGeometry(shapes, 8))
    const b = it.bounds
    lay(top, (x, y) => {
      const q = apply(it.at, { x, y })
      return [(q.x - b.x) / b.w, (q.y - b.y) / b.h]
    })
    const lid = new three.Mesh(top, picture(sheet.look(face.id, it.id), it.ground || '#ffffff'))
    lid.position.z = thick + 0.03
    out.add(new three.Mesh(body, plain(it.ground || '#ffffff')), lid)
    const own = new three.Group()
    own.add(out)
    // From the base's paper up; the face's base leaf is counted in `from`.
    out.position.z = it.from + it.lift - half
    if (it.lift > 0) {
      const c = { x: it.box.x + it.box.w / 2, y: it.box.y + it.box.h / 2 }
      const pad = keep(new three.ExtrudeGeometry(shapes, { depth: it.lift, bevelEnabled: false, curveSegments: 6 }))
      pad.translate(-c.x, -c.y, 0)
      pad.scale(0.9, 0.9, 1)
      pad.translate(c.x, c.y, it.from - half)
      own.add(new three.Mesh(pad, foam))
    }
    // Item to face, face to sheet; what is inside grows the other way.
    const onFace = flat(it.at)
    const onSheet = flat(face.onSheet)
    if (face.side === 'inside') onSheet.multiply(new three.Matrix4().makeScale(1, 1, -1))
    own.matrixAutoUpdate = false
    own.matrix.copy(onSheet.multiply(onFace))
    return own
  }

  const corner = new three.Vector3()
  let size = { width: 1, height: 1 }
  let last: Parameters<Stage['show']> | undefined
  function show(...now: Parameters<Stage['show']>) {
    last = now
    const [motions, eye] = now
    for (const [i, g] of groups.entries()) {
      const m = motions[i]
      if (!m) continue
      g.group.matrix.set(m[0], m[1], m[2], m[3], m[4], m[5], m[6], m[7], m[8], m[9], m[10], m[11], 0, 0, 0, 1)
    }
    // The sheet's y runs down, the eye's up: mirrored, then turned over to be
    // seen from inside.
    const over = new three.Matrix4().makeScale(1, -1, 1)
    over.premultiply(
      eye.over === 'upright' ? new three.Matrix4().makeRotationY(Math.PI) : new three.Matrix4().makeRotationX(Math.PI),
    )
    over.premultiply(
      eye.over === 'table' ? new three.Matrix4().makeRotationZ(-eye.yaw) : new three.Matrix4().makeRotationY(eye.yaw),
    )
    over.premultiply(new three.Matrix4().makeRotationX(-eye.pitch))
    card.matrixAutoUpdate = false
    card.matrix.copy(over)
    for (const m of moved) m.move(motions, light(over))
    const box = new three.Box3()
    for (const g of groups)
      for (const q of g.corners) box.expandByPoint(corner.copy(q).applyMatrix4(g.group.matrix).applyMatrix4(over))
    const mid = box.getCenter(new three.Vector3())
    const ext = box.getSize(new three.Vector3())
    const k = Math.max(ext.x / (size.width - 14), ext.y / (size.height - 14), 0.01)
    camera.left = mid.x - (size.width * k) / 2
    camera.right = mid.x + (size.width * k) / 2
    camera.top = mid.y + (size.height * k) / 2
    camera.bottom = mid.y - (size.height * k) / 2
    camera.updateProjectionMatrix()
    // Lines lie half a pixel before the paper whose edge they are, toward the eye.
    rimmed.position
      .set(0, 0, 1)
      .transformDirection(over.clone().transpose())
      .multiplyScalar(k / 2)
    card.updateMatrixWorld(true)
    renderer.render(world, camera)
    drawn()
  }
  redraw = () => last && show(...last)

  return {
    resize(width, height) {
      size = { width, height }
      renderer.setSize(width, height, false)
      redraw()
    },
    show,
    dispose() {
      last = undefined
      gone = true
      for (const k of kept) k.dispose()
      // The next stage on this canvas gets the same context, and begins with plain uploads.
      const gl = renderer.getContext()
      gl.pixelStorei(gl.UNPACK_FLIP_Y_WEBGL, 0)
      gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, 0)
      renderer.dispose()
    },
  }
}

/** The light of the table on plain paper: the room's from above, the lamp's from the left. */
const sky = { above: 0.79, below: 0.54, lamp: 0.27 }
const lamp = new three.Vector3(-0.6, 1.2, 1.6)

/** That light by where paper faces, before the card is turned to the eye. */
function light(over: three.Matrix4): Shade {
  const back = over.clone().transpose()
  const up = new three.Vector3(0, 1, 0).transformDirection(back)
  const sun = lamp.clone().transformDirection(back)
  return (x, y, z) => {
    const high = (x * up.x + y * up.y + z * up.z + 1) / 2
    const lit = Math.max(0, x * sun.x + y * sun.y + z * sun.z)
    return Math.min(1, sky.below + (sky.above - sky.below) * high + sky.lamp * lit)
  }
}

const apply = (m: number[], p: { x: number; y: number }) => ({
  x: m[0]! * p.x + m[2]! * p.y + m[4]!,
  y: m[1]! * p.x + m[3]! * p.y + m[5]!,
})

/** An affine map of the plane as one of space. */
const flat = (m: number[]) =>
  new three.Matrix4().set(m[0]!, m[2]!, 0, m[4]!, m[1]!, m[3]!, 0, m[5]!, 0, 0, 1, 0, 0, 0, 0, 1)
