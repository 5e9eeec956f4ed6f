// What the pointer does on the work surface now.
import { defineStore } from 'pinia'
import { ref } from 'vue'

export type Tool = 'choose' | 'ruler' | 'gap'

export const useTool = defineStore('tool', () => {
  const tool = ref<Tool>('choose')
  /** Handles, guides and the safe line are out of sight while it is held. */
  const bare = ref(false)
  const take = (t: Tool) => (tool.value = tool.value === t ? 'choose' : t)
  return { tool, bare, take }
})
