// The sheets of the open card, laid anew by the server when it has changed.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { message } from 'ant-design-vue'
import { api, Fault } from '../api/client'
import type { LayoutView, SheetOnHand as OnHand, SheetSetup } from '../api/types'
import { useCard } from './card'
import { useCatalogue } from './catalogue'
import { usePrefs } from './prefs'

export const useSheets = defineStore('sheets', () => {
  const card = useCard()
  const prefs = usePrefs()
  const catalogue = useCatalogue()
  const layout = shallowRef<LayoutView>()
  /** Of which stocks there is something else on hand than the size for all. */
  const onHand = shallowRef<OnHand[]>([])
  const owner = ref('')
  let asked = 0
  let asking = new AbortController()
  /** Whether they are being laid. */
  const laying = ref(false)
  /** How often the layout was loaded: with it pictures of sheets are asked for anew. */
  const loads = ref(0)

  async function load() {
    const id = card.id
    if (!id) return
    if (owner.value !== id) layout.value = undefined
    owner.value = id
    const mine = ++asked
    // What was asked of a change before is not waited for.
    asking.abort()
    asking = new AbortController()
    laying.value = true
    try {
      const l = await api.sheets(id, asking.signal)
      if (mine === asked) {
        layout.value = l
        loads.value++
      }
    } catch (e) {
      if (mine === asked) void message.warning(e instanceof Fault ? e.message : String(e))
    }
    if (mine === asked) laying.value = false
  }

  /** How the sheets of the open card are laid and marked. */
  const setup = computed<SheetSetup>(() => card.view?.card.sheets ?? catalogue.all.setup)
  /** Sets the card's sheets up another way. */
  const setUp = (part: Partial<SheetSetup>) => card.change({ do: 'setSheets', sheets: { ...setup.value, ...part } })
  /** Whether new cards begin with the setup of this one, but for what is its own (how many there are, and which
   * pieces lie without marks); and makes them. */
  const kept = computed(() => JSON.stringify(prefs.mySheets ?? catalogue.all.setup) === JSON.stringify(forNew.value))
  const forNew = computed<SheetSetup>(() => ({ ...setup.value, cards: undefined, unmarked: undefined }))
  const keepForNew = () => (prefs.mySheets = forNew.value)

  const ownOf = (stock: string): OnHand => onHand.value.find((h) => h.stock === stock) ?? { stock, sizes: [] }
  async function loadOnHand() {
    onHand.value = await api.onHand().catch(() => [])
  }
  /** Notes what there is of a stock, and lays the sheets anew. */
  async function keepOnHand(h: OnHand) {
    try {
      await api.keepOnHand(h)
      onHand.value = [...onHand.value.filter((o) => o.stock !== h.stock), h]
    } catch (e) {
      void message.warning(e instanceof Fault ? e.message : String(e))
    }
    await load()
  }

  return { layout, loads, laying, load, setup, setUp, kept, keepForNew, ownOf, loadOnHand, keepOnHand }
})
