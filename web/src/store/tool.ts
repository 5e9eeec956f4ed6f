// What the pointer does on the work surface now.
import { defineStore } from 'pinia'
import { useStorage } from '@vueuse/core'
import { ref, shallowRef, watch } from 'vue'
import type { Pt } from '../parts/geom'
import type { Supply } from '../tray/supplies'

export type Tool = 'choose' | 'place' | 'ruler' | 'gap' | 'pick' | 'crop' | 'draw' | 'rub' | 'points'

export const useTool = defineStore('tool', () => {
  const tool = ref<Tool>('choose')
  /** Handles, guides and the safe line are out of sight while it is held. */
  const bare = ref(false)
  /** The face is shown as it will print while it is held. */
  const asPrinted = ref(false)
  /** The stop of a gradient that is worked on. */
  const stop = ref(0)
  /** What is drawn and rubbed out with. */
  const pen = useStorage('sectilis.pen', {
    tip: 'marker' as 'pen' | 'marker' | 'chisel',
    weight: 1.6,
    colour: '#35658c',
    opacity: 1,
    machine: false,
    rubber: 5,
    whole: false,
  })
  /** What was taken from the tray, to be placed wherever the face is clicked. */
  const supply = shallowRef<Supply>()
  let lay: ((s: Supply, at: Pt) => void) | undefined
  let picked: ((colour: string) => void) | undefined
  let before: Tool = 'choose'

  const take = (t: Tool) => (tool.value = tool.value === t ? 'choose' : t)
  /** Lets a colour be pointed at on the face; then the tool before it is in the hand again. */
  function pick(then: (colour: string) => void) {
    picked = then
    if (tool.value !== 'pick') before = tool.value
    tool.value = 'pick'
  }
  function pickedColour(colour: string) {
    tool.value = before
    picked?.(colour)
  }
  /** Takes a supply from the tray, or puts it back when it is held already. */
  function hold(s: Supply, then: (s: Supply, at: Pt) => void) {
    const back = tool.value === 'place' && supply.value?.kind === s.kind && supply.value.id === s.id
    lay = then
    supply.value = back ? undefined : s
    tool.value = back ? 'choose' : 'place'
  }
  function placed(at: Pt) {
    if (supply.value) lay?.(supply.value, at)
  }
  watch(
    tool,
    (t) => {
      if (t !== 'place') supply.value = undefined
    },
    { flush: 'sync' },
  )
  return { supply, hold, placed, tool, bare, asPrinted, stop, pen, take, pick, pickedColour }
})
