// What there is to choose from, and the tray's pictures.
import { defineStore } from 'pinia'
import { message } from 'ant-design-vue'
import { computed, ref, shallowRef } from 'vue'
import { api, bringIn, Fault } from '../api/client'
import type { Art, Catalogue, Picture, Sketch, Stock, Supply } from '../api/types'

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
    stocksAre: '',
    trades: [],
    envelopes: [],
    foam: [],
    papers: [],
    fonts: [],
    fontFiles: [],
    encodings: [],
    editsForAny: [],
    sizes: [],
    edgings: [],
    firstDepth: 0,
    bases: [],
    shapes: [],
    checks: [],
    formats: [],
    first: { photo: '', paper: '', piece: '', bleed: 0, ink: '', islands: {}, rim: { width: 0 } },
    mark: { ring: 0, stroke: 0, dot: 0 },
    setup: { size: '', lie: 'portrait', margin: 0, between: 0, turning: 'quarters', marks: 'machine' },
  })
  const pictures = ref<Picture[]>([])
  const sketches = shallowRef<Sketch[]>([])
  const art = shallowRef<Art[]>([])
  /** Those that are offered, and one that a card has though it is not offered any more. */
  const offered = <T extends { id: string; hidden?: boolean }>(list: T[], id?: string) =>
    list.filter((o) => !o.hidden || o.id === id)
  /** The papers and motifs that are offered; cards may have others. */
  const papers = computed(() => all.value.papers.filter((p) => !p.hidden))
  const edgings = computed(() => all.value.edgings.filter((m) => !m.hidden))
  /** What was noted about supplies, by kind and id. */
  const notes = ref(new Map<string, Supply>())
  /** How often all was taken up anew. */
  const loads = ref(0)
  const incoming = ref<Incoming[]>([])
  let loaded: Promise<void> | undefined
  let keys = 0

  const key = (kind: string, id: string) => `${kind} ${id}`
  const noted = (kind: string, id: string): Supply => notes.value.get(key(kind, id)) ?? { kind, id }

  /** Supplies of a kind: the favourites first, then what was used last, the rest as it comes. */
  function lately<T extends { id: string }>(kind: string, list: T[], as = notes.value): T[] {
    const at = (s: T) => as.get(key(kind, s.id))
    return [...list].sort(
      (a, b) =>
        Number(!!at(b)?.favourite) - Number(!!at(a)?.favourite) || (at(b)?.used ?? '').localeCompare(at(a)?.used ?? ''),
    )
  }

  /** Keeps what is noted about a supply; throws what is wrong with it. */
  async function note(s: Supply) {
    await api.note(s)
    notes.value = new Map(notes.value).set(key(s.kind, s.id), s)
  }
  /** Notes that a supply was just put on a card. */
  function used(kind: string, id: string) {
    const s = { ...noted(kind, id), used: new Date().toISOString() }
    notes.value = new Map(notes.value).set(key(kind, id), s)
    void api.used(kind, id).catch(() => undefined)
  }
  /** The endings and the media types of files that drawings are read from, for a file field. */
  const drawingFiles = computed(() => all.value.formats.flatMap((f) => [...f.extensions, f.mime]).join(','))
  const isDrawing = (file: string) =>
    all.value.formats.some((f) => f.extensions.some((e) => file.toLowerCase().endsWith(e)))
  async function remove(kind: string, id: string) {
    if (kind === 'photo') {
      await api.removePicture(id)
      pictures.value = pictures.value.filter((p) => p.id !== id)
    } else if (kind === 'lettering') {
      await api.removeFont(id)
      all.value = { ...all.value, fonts: all.value.fonts.filter((f) => f.id !== id) }
    } else if (kind === 'edging') {
      await api.removeMotif(id)
      await reload()
    } else if (kind === 'art') {
      await api.removeArt(id)
      art.value = art.value.filter((a) => a.id !== id)
    } else {
      await api.removeSketch(id)
      sketches.value = sketches.value.filter((s) => s.id !== id)
    }
  }
  /** What a bare stock is painted with, in a drawing. */
  const paint = (id?: string) => {
    const s = stock(id)
    return s?.pattern ? `url(#paper-${s.pattern})` : (s?.colour ?? '#fff6e0')
  }
  const loadArt = async () => (art.value = await api.art())
  const loadSketches = async () => (sketches.value = await api.sketches())

  const load = () =>
    (loaded ??= Promise.all([api.catalogue(), api.pictures(), api.sketches(), api.supplies(), api.art()]).then(
      ([c, p, k, n, a]) => {
        art.value = a
        all.value = c
        pictures.value = p
        sketches.value = k
        notes.value = new Map(n.map((s) => [key(s.kind, s.id), s]))
        loads.value++
        for (const f of c.fonts) addFace(f.id)
      },
      (e: unknown) => {
        loaded = undefined
        throw e
      },
    ))

  /** Takes up all anew, as after many supplies have come in. */
  async function again() {
    loaded = undefined
    await load()
  }

  /** Takes up what there is to choose from, when that is another. */
  async function reload() {
    all.value = await api.catalogue()
  }

  // The browser sets the same files that the outlines come from.
  function addFace(id: string) {
    const face = new FontFace('lettering-' + id, `url(/fonts/${id}.woff)`)
    document.fonts.add(face)
  }

  const stocks = computed(() => new Map(all.value.stocks.map((s) => [s.id, s])))
  const stock = (id: string | undefined): Stock | undefined => (id ? stocks.value.get(id) : undefined)

  /** The endings of files that fonts are read from, for a file field. */
  const fontFiles = computed(() => all.value.fontFiles.join(','))
  const isFont = (file: string) => all.value.fontFiles.some((e) => file.toLowerCase().endsWith(e))

  /** Brings font files in, one after the other; one that is refused says why and leaves the others alone. */
  async function bringFonts(files: File[]) {
    for (const file of files) {
      const row: Incoming = { key: ++keys, name: file.name, share: 1, why: '', stop: new AbortController() }
      incoming.value.push(row)
      try {
        const faces = await api.bringInFont(file)
        const known = new Set(faces.map((f) => f.id))
        for (const f of faces) if (!all.value.fonts.some((o) => o.id === f.id)) addFace(f.id)
        all.value = { ...all.value, fonts: [...faces, ...all.value.fonts.filter((f) => !known.has(f.id))] }
        dismiss(row.key)
      } catch (e) {
        const at = incoming.value.find((r) => r.key === row.key)
        if (at) at.why = e instanceof Error ? e.message : String(e)
      }
    }
  }

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
          // The same bytes are the same picture, whatever the file is called.
          if (pictures.value.some((q) => q.id === p.id)) void message.info(`${next.file.name} is in the tray already.`)
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

  return {
    all,
    pictures,
    sketches,
    offered,
    papers,
    edgings,
    art,
    loadArt,
    incoming,
    load,
    reload,
    again,
    loadSketches,
    stock,
    paint,
    bring,
    bringFonts,
    fontFiles,
    isFont,
    dismiss,
    notes,
    loads,
    noted,
    lately,
    drawingFiles,
    isDrawing,
    note,
    used,
    remove,
  }
})
