// An envelope is a card of its own, on the table beside the one that it is made for and stays tied to.
import { message } from 'ant-design-vue'
import { useRouter } from 'vue-router'
import { api } from '../api/client'
import { useCard } from '../store/card'

export function useEnvelope() {
  const card = useCard()
  const router = useRouter()
  /** Goes to the base of another card. */
  const goTo = (id: string) => void router.push(`/cards/${id}/base`)
  /** Makes the envelope that is to measure, where the card has none, and goes to it. */
  async function envelope() {
    try {
      goTo((await api.makeEnvelope(card.id)).id)
    } catch (e) {
      void message.warning(e instanceof Error ? e.message : String(e))
    }
  }
  return { envelope, goTo }
}
