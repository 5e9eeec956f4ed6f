// An envelope is a card of its own, on the table beside the one that it is for.
import { useRouter } from 'vue-router'
import { api } from '../api/client'
import type { CheckView } from '../api/types'
import { useCard } from '../store/card'
import { useCatalogue } from '../store/catalogue'

export function useEnvelope() {
  const card = useCard()
  const catalogue = useCatalogue()
  const router = useRouter()
  /** Makes the envelope that is to measure, and goes to it. */
  return async (s: CheckView['sending'] | undefined) => {
    if (!s) return
    const { id } = await api.create(`${card.view!.card.title}, envelope`.slice(0, 120), {
      kind: 'envelope',
      width: Math.max(s.width, s.height),
      height: Math.min(s.width, s.height),
      stock: catalogue.all.first.paper,
    })
    void router.push(`/cards/${id}/base`)
  }
}
