// What there is to choose from, and the tray's pictures.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, bringIn, Fault } from '../api/client'
import type { Catalogue, Picture, Stock } from '../api/types'

export interface Incoming {
  key: number
  name: string
  share: number
  why: string
  stop: AbortController
}

export const useCatalogue = defineStore('catalogue', () => {
  const all = shallowRef<Catalogue>({
    stocks: [],
    trades: [],
    envelopes: [],
    foam: [],
    papers: [],
    fonts: [],
    sizes: [],
    bases: [],
  })
  const pictures = ref<Picture[]>([])
  const incoming = ref<Incoming[]>([])
  let loaded: Promise<void> | undefined
  let keys = 0

  const load = () =>
    (loaded ??= Promise.all([api.catalogue(), api.pictures()]).then(
      ([c, p]) => {
        all.value = c
        pictures.value = p
        for (const f of c.fonts) addFace(f.id)
      },
      (e: unknown) => {
        loaded = undefined
        throw e
      },
    ))

  // The browser sets the same files that the outlines come from.
  function addFace(id: string) {
    const face = new FontFace('lettering-' + id, `url(/fonts/${id}.woff)`)
    document.fonts.add(face)
  }

  const stocks = computed(() => new Map(all.value.stocks.map((s) => [s.id, s])))
  const stock = (id: string | undefined): Stock | undefined => (id ? stocks.value.get(id) : undefined)

  /** Brings files in, two at a time; one that fails leaves the others alone. */
  async function bring(files: File[]): Promise<Picture[]> {
    const queue = files.map((file) => {
      const row: Incoming = { key: ++keys, name: file.name, share: 0, why: '', stop: new AbortController() }
      incoming.value.push(row)
      return { file, key: row.key }
    })
    const done: Picture[] = []
    const work = async () => {
      for (let next = queue.shift(); next; next = queue.shift()) {
        const row = incoming.value.find((r) => r.key === next.key)
        if (!row) continue
        try {
          const p = await bringIn(next.file, (s) => (row.share = s), row.stop.signal)
          pictures.value = [p, ...pictures.value.filter((q) => q.id !== p.id)]
          done.push(p)
          dismiss(row.key)
        } catch (e) {
          if (e instanceof Fault && e.kind === 'stopped') dismiss(row.key)
          else row.why = e instanceof Error ? e.message : String(e)
        }
      }
    }
    await Promise.all([work(), work()])
    return done
  }

  function dismiss(key: number) {
    incoming.value.find((r) => r.key === key)?.stop.abort()
    incoming.value = incoming.value.filter((r) => r.key !== key)
  }

  return { all, pictures, incoming, load, stock, bring, dismiss }
})
