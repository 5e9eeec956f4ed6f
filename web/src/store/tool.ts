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
  return { tool, bare, stop, pen, take, pick, pickedColour }
})
