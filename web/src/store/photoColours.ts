// The colours that stand out in the photos of the open card, offered as inks.
import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { api } from '../api/client'
import { useCard } from './card'
import { useCatalogue } from './catalogue'

/** How many photos of a card are looked at. */
const most = 8

export const usePhotoColours = defineStore('photoColours', () => {
  const card = useCard()
  const catalogue = useCatalogue()
  const known = shallowRef<Record<string, string[]>>({})

  const photos = computed(() => {
    const all = card.view?.card.faces.flatMap((f) => f.items.map((it) => it.photo?.picture ?? '')) ?? []
    return [...new Set(all)].filter((id) => id).slice(0, most)
  })
  watch(
    photos,
    async (ids) => {
      const next: Record<string, string[]> = {}
      await Promise.all(
        ids.map(async (id) => {
          const had = known.value[id]
          // That none are known is no fault: they are an extra.
          const asked = () => api.facts(id).then((f) => f.palette)
          next[id] = had?.length ? had : await asked().catch(() => [])
        }),
      )
      if (ids === photos.value) known.value = next
    },
    { immediate: true },
  )

  const all = computed(() =>
    photos.value
      .map((id) => ({
        id,
        name: catalogue.pictures.find((p) => p.id === id)?.name ?? 'Photo',
        colours: known.value[id] ?? [],
      }))
      .filter((p) => p.colours.length > 0),
  )
  return { all }
})
