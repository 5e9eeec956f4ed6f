// The lettering of the card whose fields are looked at.
import { computed } from 'vue'
import { useCard } from '../../store/card'
import { useNames } from '../../store/names'

export function useLettering() {
  const card = useCard()
  const names = useNames()
  const all = computed(() =>
    (card.view?.card.faces ?? []).flatMap((f) =>
      f.items
        .filter((it) => it.words)
        .map((it) => ({
          id: it.id,
          name: it.name,
          face: card.view!.scene.faces.find((k) => k.id === f.id)?.name ?? '',
          words: it.words!,
        })),
    ),
  )
  const one = computed(
    () =>
      all.value.find((w) => w.id === names.item) ??
      all.value.find((w) => w.words.fields?.length && w.words.box?.fit) ??
      all.value.find((w) => w.words.fields?.length) ??
      all.value[0],
  )
  return { all, one }
}
