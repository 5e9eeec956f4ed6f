// What the pointer does on the work surface now.
import { defineStore } from 'pinia'
import { ref } from 'vue'

export type Tool = 'choose' | 'ruler' | 'gap' | 'pick' | 'crop'

export const useTool = defineStore('tool', () => {
  const tool = ref<Tool>('choose')
  /** Handles, guides and the safe line are out of sight while it is held. */
  const bare = ref(false)
  /** The stop of a gradient that is worked on. */
  const stop = ref(0)
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
  return { tool, bare, stop, take, pick, pickedColour }
})
