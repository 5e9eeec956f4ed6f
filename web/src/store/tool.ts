// What the pointer does on the work surface now.
import { defineStore } from 'pinia'
import { useStorage } from '@vueuse/core'
import { ref } from 'vue'

export type Tool = 'choose' | 'ruler' | 'gap' | 'pick' | 'crop' | 'draw' | 'rub'

export const useTool = defineStore('tool', () => {
  const tool = ref<Tool>('choose')
  /** Handles, guides and the safe line are out of sight while it is held. */
  const bare = ref(false)
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
  let picked: ((colour: string) => void) | undefined

  const take = (t: Tool) => (tool.value = tool.value === t ? 'choose' : t)
  /** Lets a colour be pointed at on the face. */
  function pick(then: (colour: string) => void) {
    picked = then
    tool.value = 'pick'
  }
  function pickedColour(colour: string) {
    tool.value = 'choose'
    picked?.(colour)
  }
  return { tool, bare, stop, pen, take, pick, pickedColour }
})
