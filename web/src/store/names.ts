// The list that the open card is made for, what becomes of each name, and which one is chosen.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { message } from 'ant-design-vue'
import { api, Fault } from '../api/client'
import type { ListRead, NamesView, NameState } from '../api/types'
import { useCard } from './card'

export const useNames = defineStore('names', () => {
  const card = useCard()
  const view = shallowRef<NamesView>()
  /** The list that was read last, which can be taken another way. */
  const read = shallowRef<ListRead>()
  const chosen = ref('')
  /** The lettering whose fields are looked at. */
  const item = ref('')
  let of = ''
  let asking = new AbortController()

  const list = computed(() => card.view?.card.names)
  const rows = computed(() => list.value?.rows ?? [])
  const made = computed(() => rows.value.filter((r) => !r.out))
  const row = computed(() => rows.value.find((r) => r.id === chosen.value) ?? rows.value[0])
  const called = (id: string) => rows.value.find((r) => r.id === id)?.cells.find((c) => c) ?? 'nameless'

  async function load() {
    const id = card.id
    if (!id) return
    if (of !== id) view.value = read.value = undefined
    of = id
    asking.abort()
    asking = new AbortController()
    if (!list.value) {
      view.value = undefined
      return
    }
    try {
      const v = await api.names(id, asking.signal)
      if (of === id) view.value = v
    } catch (e) {
      if (e instanceof Fault && e.kind !== 'stopped') void message.warning(e.message)
    }
  }
  const states = computed(() => new Map(view.value?.rows.map((r) => [r.row, r])))
  const stateOf = (id: string): NameState | undefined => states.value.get(id)
  const wrong = computed(() => made.value.filter((r) => stateOf(r.id)?.wrong.length))
  const cut = computed(() => made.value.filter((r) => stateOf(r.id)?.stage === 'cut'))

  /** Brings a list in, or takes the one that was read last another way; the answer is what is wrong with it. */
  async function bring(r: ListRead, headings: boolean) {
    read.value = { ...r, headings }
    const k = headings ? r.headed : r.plain
    await card.change({ ...k, do: 'setNames' })
  }
  async function bringFile(file: File, pasted = false, encoding = ''): Promise<string> {
    try {
      const r = await api.readNames(file, pasted, encoding)
      await bring(r, r.headings)
      if (r.encoding) {
        const how = `The letters of this file were read as ${r.encoding}.`
        void message.info({ content: `${how} Where they look wrong, undo and choose another encoding.`, duration: 8 })
      }
      return ''
    } catch (e) {
      return e instanceof Error ? e.message : String(e)
    }
  }

  return {
    list,
    rows,
    made,
    row,
    chosen,
    item,
    called,
    view,
    load,
    stateOf,
    wrong,
    cut,
    read,
    bring,
    bringFile,
  }
})
