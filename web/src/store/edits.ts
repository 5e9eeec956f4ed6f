// The photo that is worked on by itself: what is done to it, and how that looks.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Fault } from '../api/client'
import type { CutOut, Edit, Light } from '../api/types'
import { useCard } from './card'

export type Way = 'cut' | 'light' | 'straighten' | 'mend'

/** The longer side of what is seen while something is slid, and then, in pixels. */
const QUICK = 900
const FINE = 1600

export const useEdits = defineStore('edits', () => {
  const card = useCard()
  /** The photo; empty for none. */
  const item = ref('')
  const way = ref<Way>('light')
  const photo = computed(() => (item.value ? card.doc(item.value)?.photo : undefined))
  const name = computed(() => card.doc(item.value)?.name ?? '')
  /** What is done to it, with what is slid just now. */
  const draft = shallowRef<Edit[]>()
  const edits = computed<Edit[]>(() => draft.value ?? photo.value?.edits ?? [])
  /** The edit of light that the sliders are of; -1 for the next one. */
  const chosen = ref(-1)

  const shown = ref('')
  const came = ref('')
  const wrong = ref('')
  /** What it is before it is cut out, under which that is seen; empty where nothing is cut out. */
  const under = ref('')
  /** As it came, in place of as it is. */
  const before = ref(false)

  function open(id: string) {
    item.value = id
    way.value = 'light'
    draft.value = undefined
    before.value = false
    wrong.value = ''
    chosen.value = last(photo.value?.edits ?? [])
  }
  function close() {
    item.value = ''
  }
  /** The last edit of light, if it is the last of all that are about colours. */
  const last = (all: Edit[]) => all.findLastIndex((e) => e.light)

  /** Something that takes long is being worked out. */
  const busy = ref(false)
  let working = new AbortController()
  let underOf: string | undefined
  let asked = 0
  let waiting = false
  let shows = false
  /** Shows what is done to it: one picture after the other, the newest last. */
  async function show() {
    waiting = true
    // What was slid past is not waited for.
    working.abort()
    if (shows) return
    shows = true
    while (waiting && photo.value) {
      waiting = false
      const [picture, n] = [photo.value.picture, ++asked]
      const cut = edits.value.findIndex((e) => e.cutOut)
      const all = way.value === 'cut' && cut >= 0 ? edits.value.slice(0, cut + 1) : edits.value
      const side = draft.value ? QUICK : FINE
      const mine = (working = new AbortController())
      const long = setTimeout(() => (busy.value = true), 300)
      try {
        const blob = await api.edited(picture, all, side, mine.signal)
        if (n === asked) replace(shown, blob)
        const before = cut < 0 ? undefined : JSON.stringify(all.slice(0, cut))
        if (before !== underOf) {
          const ground =
            before === undefined ? undefined : await api.edited(picture, all.slice(0, cut), QUICK, mine.signal)
          replace(under, ground)
          underOf = before
        }
        wrong.value = ''
      } catch (e) {
        if (mine.signal.reason === stopped) wrong.value = stopped
        else if (!mine.signal.aborted) wrong.value = e instanceof Fault ? e.message : String(e)
      }
      clearTimeout(long)
      busy.value = false
    }
    shows = false
  }
  const stopped = 'Stopped: what is seen is from before the last step. Take that off, or change something to go on.'
  /** Stops what is being worked out. */
  const stop = () => working.abort(stopped)
  function replace(url: { value: string }, blob?: Blob) {
    if (url.value) URL.revokeObjectURL(url.value)
    url.value = blob ? URL.createObjectURL(blob) : ''
  }
  watch(
    () => [item.value, photo.value?.picture, JSON.stringify(edits.value), !!draft.value, way.value],
    ([id], was) => {
      if (!id) {
        replace(shown)
        replace(under)
        underOf = undefined
        return
      }
      if (photo.value && id !== was?.[0]) came.value = api.previewURL(photo.value.picture, 1600)
      void show()
    },
  )
  watch(
    () => !!item.value && !photo.value,
    (gone) => gone && close(),
  )
  /** Shows edits and keeps nothing. */
  const slide = (all: Edit[]) => (draft.value = all)
  let sets = 0
  async function set(all: Edit[]) {
    const n = ++sets
    const same = JSON.stringify(all) === JSON.stringify(photo.value?.edits ?? [])
    if (!same) {
      draft.value = all
      await card.change({ do: 'editPhoto', ids: [item.value], edits: all })
    }
    // It is in the card now, or was refused; what was set or slid after it is another matter.
    if (n === sets && (draft.value === all || same)) draft.value = undefined
  }
  const add = (e: Edit) => set([...edits.value, e])
  function takeOff(i: number) {
    chosen.value = -1
    void set(edits.value.filter((_, k) => k !== i))
  }

  const light = computed<Light>(() => edits.value[chosen.value]?.light ?? {})
  /** The edits with another value of the light that is chosen; what does nothing is no edit. */
  function withLight(part: Partial<Light>): Edit[] {
    const next = Object.fromEntries(Object.entries({ ...light.value, ...part }).filter(([, v]) => v)) as Light
    const is = edits.value[chosen.value]?.light !== undefined
    const all = is
      ? edits.value.map((e, i) => (i === chosen.value ? { ...e, light: next } : e))
      : [...edits.value, { light: next }]
    if (!is) chosen.value = all.length - 1
    return all
  }
  /** The part of the photo that the sliders are for; none is all of it. */
  const part = computed(() => edits.value[chosen.value]?.of)
  /** Makes the sliders those of a part, or of all with none: of an edit that is there, or of one more. */
  function ofPart(of: CutOut | undefined) {
    const now = edits.value[chosen.value]
    if (of && now?.of) return set(edits.value.map((e, i) => (i === chosen.value ? { ...e, of } : e)))
    if (of) {
      chosen.value = edits.value.length
      return set([...edits.value, { light: {}, of }])
    }
    chosen.value = edits.value.findLastIndex((e) => e.light && !e.of)
  }
  const slideLight = (part: Partial<Light>) => slide(withLight(part))
  function setLight(part: Partial<Light>) {
    const all = withLight(part)
    const i = chosen.value
    if (Object.keys(all[i]?.light ?? {}).length || all[i]?.of) return set(all)
    chosen.value = -1
    return set(all.filter((_, k) => k !== i))
  }

  return {
    item,
    way,
    photo,
    name,
    edits,
    chosen,
    shown,
    came,
    under,
    busy,
    stop,
    wrong,
    before,
    open,
    close,
    slide,
    set,
    add,
    takeOff,
    light,
    part,
    ofPart,
    slideLight,
    setLight,
  }
})
