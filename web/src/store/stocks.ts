// The kinds of paper that there are: changed for all cards, put away, added.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, Fault } from '../api/client'
import type { MeasuredStock, StockView } from '../api/types'

export const useStocks = defineStore('stocks', () => {
  /** Whether they are looked at, and which of them. */
  const shown = ref(false)
  const chosen = ref('')
  const all = shallowRef<StockView[]>([])
  const wrong = ref('')
  const stock = computed(() => all.value.find((s) => s.id === chosen.value))

  async function attempt<T>(what: () => Promise<T>): Promise<T | undefined> {
    wrong.value = ''
    try {
      return await what()
    } catch (e) {
      wrong.value = e instanceof Fault ? e.message : String(e)
      return undefined
    }
  }
  const load = () => attempt(async () => void (all.value = await api.stocks()))
  async function open(id = '') {
    shown.value = true
    await load()
    chosen.value = id || chosen.value || all.value[0]?.id || ''
  }
  /** Changes are made one after the other, each of what the one before has left. */
  let queue: Promise<unknown> = Promise.resolve()
  function change(part: Partial<MeasuredStock>) {
    const id = chosen.value
    queue = queue.then(() =>
      attempt(async () => {
        const was = all.value.find((s) => s.id === id)
        if (!was) return
        const next: MeasuredStock & Partial<StockView> = { ...was, ...part }
        // What follows from it is told, not kept.
        delete next.usual
        delete next.cut
        delete next.asUsual
        delete next.changed
        await api.changeStock(next)
        all.value = await api.stocks()
      }),
    )
    return queue
  }
  /** Adds a stock like the one that is looked at. */
  const add = () =>
    attempt(async () => {
      const like = stock.value
      const made = await api.addStock({
        id: '',
        name: 'New stock',
        colour: like?.colour ?? '#ffffff',
        weight: like?.weight ?? 216,
        thickness: like?.thickness ?? 0.28,
        coated: like?.coated,
      })
      all.value = await api.stocks()
      chosen.value = made.id
    })
  const asShips = () =>
    attempt(async () => {
      await api.asStockShips(chosen.value)
      all.value = await api.stocks()
    })

  return { shown, chosen, all, wrong, stock, load, open, change, add, asShips }
})
