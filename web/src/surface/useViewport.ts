// Zoom and pan of the work surface: millimetres of the face to pixels.
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import type { Pt } from '../parts/geom'

/** Pixels in a millimetre of the real thing, as CSS has it. */
const REAL = 96 / 25.4
const MIN = REAL * 0.08
const MAX = REAL * 16

export function useViewport(
  el: Ref<HTMLElement | undefined>,
  face: Ref<{ width: number; height: number; left: boolean } | undefined>,
) {
  const { width, height } = useElementSize(el)
  const scale = ref(2)
  const offset = ref<Pt>({ x: 0, y: 0 })
  const touched = ref(false)

  /** The face as large as fits, with some of its neighbours beside it. */
  function fit() {
    const f = face.value
    if (!f || !width.value || !height.value) return
    touched.value = false
    // The names of the faces above, the tools below.
    const room = { top: 44, bottom: 48, x: 50 }
    scale.value = Math.min(
      (height.value - room.top - room.bottom) / f.height,
      (width.value - 2 * room.x) / (f.width * 1.15),
    )
    offset.value = {
      x: (width.value - f.width * scale.value) / 2,
      y: room.top + (height.value - room.top - room.bottom - f.height * scale.value) / 2,
    }
    // A neighbour at the left gets a little more of the room.
    if (f.left) offset.value.x += Math.min(40, width.value * 0.05)
  }

  watch([width, height], () => !touched.value && fit())
  watch(
    () => [face.value?.width, face.value?.height, face.value?.left],
    () => fit(),
    { immediate: true },
  )

  function zoomTo(next: number, at: Pt) {
    const k = Math.min(MAX, Math.max(MIN, next))
    touched.value = true
    offset.value = {
      x: at.x - ((at.x - offset.value.x) / scale.value) * k,
      y: at.y - ((at.y - offset.value.y) / scale.value) * k,
    }
    scale.value = k
  }

  const zoomBy = (factor: number, at?: Pt) =>
    zoomTo(scale.value * factor, at ?? { x: width.value / 2, y: height.value / 2 })
  const real = () => zoomTo(REAL, { x: width.value / 2, y: height.value / 2 })

  function pan(dx: number, dy: number) {
    touched.value = true
    offset.value = { x: offset.value.x + dx, y: offset.value.y + dy }
  }

  const local = (e: { clientX: number; clientY: number }): Pt => {
    const r = el.value?.getBoundingClientRect()
    return { x: e.clientX - (r?.left ?? 0), y: e.clientY - (r?.top ?? 0) }
  }
  const toFace = (p: Pt): Pt => ({ x: (p.x - offset.value.x) / scale.value, y: (p.y - offset.value.y) / scale.value })
  const toScreen = (p: Pt): Pt => ({ x: p.x * scale.value + offset.value.x, y: p.y * scale.value + offset.value.y })

  function wheel(e: WheelEvent) {
    e.preventDefault()
    // A pinch comes as a wheel with Ctrl; two fingers pan by deltaX.
    if (Math.abs(e.deltaX) >= 1 && !e.ctrlKey) pan(-e.deltaX, -e.deltaY)
    else zoomBy(Math.exp(-e.deltaY * (e.deltaMode === 1 ? 0.05 : 0.0018)), local(e))
  }

  /** Brings a place into sight, with some room round it. */
  function show(r: { x: number; y: number; w: number; h: number }) {
    if (!width.value || !height.value) return
    const k = Math.min((width.value * 0.5) / Math.max(r.w, 8), (height.value * 0.45) / Math.max(r.h, 8), REAL * 4)
    touched.value = true
    scale.value = Math.min(MAX, Math.max(MIN, k))
    offset.value = {
      x: width.value / 2 - (r.x + r.w / 2) * scale.value,
      y: height.value / 2 - (r.y + r.h / 2) * scale.value,
    }
  }

  const percent = computed(() => Math.round((scale.value / REAL) * 100))
  return { width, height, scale, offset, fit, real, show, zoomBy, pan, local, toFace, toScreen, wheel, percent }
}
