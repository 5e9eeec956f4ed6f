// The open card: what the server last said of it, what is selected, and the
// one queue through which all changes go.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { useCatalogue } from './catalogue'
import { newStocks } from './stocktold'
import { message } from 'ant-design-vue'
import { api, Fault } from '../api/client'
import { complete, differing } from './complete'
import { usePrefs } from './prefs'
import type { Finding, Command, Face, Item, LayArt, LayDrawing, Rect, SceneFace, SceneItem, View } from '../api/types'

export type FaceID = Face['id']

/** How long a change is worked on, ms, before stopping it is offered. */
const tooLong = 700

export const useCard = defineStore('card', () => {
  const prefs = usePrefs()
  const view = shallowRef<View>()
  const faceId = ref<FaceID>('front')
  const selection = ref<string[]>([])
  /** The group whose items are chosen one by one; empty for none. */
  const entered = ref('')
  /** What the items of the face would be after a change that is being tried. */
  const trial = shallowRef<SceneItem[]>()
  /** The item whose look was copied. */
  const lookFrom = ref('')
  /** The item that waits for a photo from the tray. */
  const awaiting = ref('')
  const saving = ref(0)
  /** What stops the change that is being worked out, once that takes long. */
  const stop = shallowRef<() => void>()
  const gone = ref('')
  /** Whether it is there, but its newest state cannot be read. */
  const damaged = ref(false)
  let queue: Promise<unknown> = Promise.resolve()
  /** How often a person has selected anything. */
  let choices = 0

  const id = computed(() => view.value?.id ?? '')
  const face = computed<SceneFace | undefined>(() => view.value?.scene.faces.find((f) => f.id === faceId.value))
  const items = computed<Map<string, SceneItem>>(() => new Map(face.value?.items.map((it) => [it.id, it])))
  const docs = computed<Map<string, Item>>(
    () => new Map(view.value?.card.faces.flatMap((f) => f.items.map((it) => [it.id, it] as const))),
  )
  const selected = computed(() => selection.value.map((s) => items.value.get(s)).filter((it) => it !== undefined))
  /**
   * The chosen items as the panels tell of them. When many are chosen at once that comes
   * two frames after they are seen to be chosen.
   */
  const held = shallowRef<SceneItem[]>()
  const told = computed(() => held.value ?? selected.value)
  /** What was last found about how a card will look when it is printed; it may be of a change before. */
  /** What the surface is to bring into sight, once. */
  const framed = shallowRef<{ face: FaceID; at: Rect }>()
  const prints = shallowRef<{ of: string; revision: number; findings: Finding[] }>()
  /** The piece that is the only one of some items, or whose outline the only one is part of. */
  function pieceOf(of: SceneItem[]): SceneItem | undefined {
    const one = of.length === 1 ? of[0] : undefined
    return one?.piece ? one : one?.joined && one.joined !== 'trims' ? items.value.get(one.on ?? '') : undefined
  }
  const found = computed(() => {
    const out = new Map<string, Finding[]>()
    const all = [
      ...(view.value?.findings ?? []),
      ...(prints.value?.of === view.value?.id ? prints.value!.findings : []),
    ]
    for (const f of all.filter((f) => !f.left)) out.set(f.item ?? '', [...(out.get(f.item ?? '') ?? []), f])
    return out
  })
  /** What the checks of the scene find about an item. */
  /** The words that are written now: that they are not written yet is not told meanwhile. */
  const writing = ref('')
  const findings = (id: string) =>
    (found.value.get(id) ?? []).filter((f) => f.check !== 'sampleWords' || id !== writing.value)
  watch(
    () => selection.value.length > 50,
    (many) => {
      held.value = undefined
      if (!many) return
      held.value = lately
      requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => (held.value = undefined))))
    },
    { flush: 'sync' },
  )
  let lately: SceneItem[] = []
  watch(selected, (now) => (lately = now.length > 50 ? [] : now), { flush: 'post' })
  const doc = (item: string) => docs.value.get(item)
  const groups = computed(() => new Map(face.value?.groups?.map((g) => [g.id, g])))

  /** The groups that an item belongs to, the outermost first. */
  function line(item: string): string[] {
    const out: string[] = []
    for (let g = items.value.get(item)?.group; g; g = groups.value.get(g)?.in) out.unshift(g)
    return out
  }
  /** What is chosen with an item: the group it is seen in, as far as that has not been entered. */
  function unit(item: string): string[] {
    const up = line(item)
    const g = up[up.indexOf(entered.value) + 1]
    if (!g) return [item]
    return [...items.value.keys()].filter((i) => line(i).includes(g))
  }
  /** Enters the group that an item is seen in; false when there is none. */
  function enter(item: string): boolean {
    const up = line(item)
    const g = up[up.indexOf(entered.value) + 1]
    if (g) entered.value = g
    return !!g
  }
  /** The group that is selected whole, if it is one. */
  const group = computed(() => {
    const first = selection.value[0]
    if (!first || selection.value.length < 2) return undefined
    const g = line(first).find((id) => selection.value.every((s) => line(s).includes(id)))
    const whole = g && [...items.value.keys()].filter((i) => line(i).includes(g)).length === selection.value.length
    return whole ? groups.value.get(g) : undefined
  })

  async function open(card: string) {
    if (view.value?.id !== card) {
      view.value = undefined
      selection.value = []
      faceId.value = 'front'
    }
    gone.value = ''
    damaged.value = false
    try {
      take(await api.open(card))
    } catch (e) {
      gone.value = e instanceof Fault ? e.message : String(e)
      damaged.value = e instanceof Fault && e.kind === 'damaged'
    }
  }

  /** Takes up the last state of a card that can be read, where its newest cannot. */
  async function recover(card: string) {
    try {
      take(await api.recover(card))
      gone.value = ''
      damaged.value = false
    } catch (e) {
      gone.value = e instanceof Fault ? e.message : String(e)
    }
  }

  /** Takes a newer state; faces and items that did not change are kept as they are. */
  function take(next: View) {
    const now = view.value
    if (now?.id === next.id && now.revision > next.revision) return
    if (next.part && now?.id === next.id) complete(next, now)
    view.value = next
    if (!next.scene.faces.some((f) => f.id === faceId.value)) faceId.value = 'front'
    selection.value = selection.value.filter((s) => items.value.has(s))
    if (!docs.value.has(lookFrom.value)) lookFrom.value = ''
    if (!docs.value.has(awaiting.value)) awaiting.value = ''
    if (entered.value && !groups.value.has(entered.value)) entered.value = ''
  }

  // Changes follow each other: each is based on what the one before led to.
  function enqueue(f: (v: View) => Promise<View>): Promise<View | undefined> {
    saving.value++
    const step = queue.then(async () => {
      const v = view.value
      if (!v) return undefined
      try {
        const next = await f(v)
        take(next)
        return next
      } catch (e) {
        const why = e instanceof Fault ? e : new Fault(String(e), 'fault')
        // What was stopped may have been done at the last moment.
        if (why.kind === 'stale' || why.kind === 'stopped') take(await api.open(v.id))
        void message.warning({ content: prefs.said(why.message), duration: 7 })
        return undefined
      } finally {
        saving.value--
      }
    })
    queue = step.catch(() => undefined)
    return step
  }

  /** Ends once every change that was asked for has been answered. */
  const idle = () => queue.then(() => undefined)

  const change = (...commands: Command[]) =>
    enqueue(async (v) => {
      const asked = new AbortController()
      const late = setTimeout(() => (stop.value = () => asked.abort()), tooLong)
      try {
        const next = await api.change(v.id, v.revision, commands, asked.signal)
        tellStocks(v, next, commands)
        return next
      } finally {
        clearTimeout(late)
        stop.value = undefined
      }
    })
  /** Tells which things are cut of another stock by a change that named none: what shows a photo or a paper. */
  function tellStocks(was: View, next: View, commands: Command[]) {
    for (const { name, stock } of newStocks(was.card, next.card, commands)) {
      const to = useCatalogue().stock(stock)?.name
      if (to) void message.info(`${name} is cut from ${to} now, which shows what is printed on it. Made as changes it.`)
    }
  }
  /** Sends a change while the page is being left, which waits for no answer. */
  function leave(...commands: Command[]) {
    if (view.value) void api.change(view.value.id, view.value.revision, commands).catch(() => undefined)
  }
  const layArt = (l: Omit<LayArt, 'base'>) => enqueue((v) => api.layArt(v.id, v.revision, l))
  const lay = (l: Omit<LayDrawing, 'base'>) => enqueue((v) => api.layDrawing(v.id, v.revision, l))

  /** Asks what a change would lead to, and changes nothing. */
  async function attempt(...commands: Command[]): Promise<{ items?: SceneItem[]; wrong?: string }> {
    await queue
    const v = view.value
    if (!v) return {}
    try {
      const next = await api.attempt(v.id, v.revision, commands)
      const f = next.scene.faces.find((c) => c.id === faceId.value)
      // What only carries something else now looks as it did.
      const looks = (it: SceneItem) => it.outline + it.at.join()
      return {
        items: f?.items.filter((it) => {
          const was = items.value.get(it.id)
          return !(was && looks(was) === looks(it))
        }),
      }
    } catch (e) {
      return { wrong: e instanceof Error ? e.message : String(e) }
    }
  }

  /** Goes one step back or forth, to the face that it changes, and says what that was. */
  async function step(which: 'undo' | 'redo') {
    let was: View | undefined
    const now = await enqueue((v) => {
      was = v
      return v[which] ? api[which](v.id, v.revision) : Promise.resolve(v)
    })
    if (!now || !was?.[which]) return now
    const elsewhere = differing(was, now)
    if (elsewhere.length && !elsewhere.includes(faceId.value)) {
      work(elsewhere[0]!)
      const name = now.scene.faces.find((f) => f.id === elsewhere[0])?.name
      void message.info(`${which === 'undo' ? 'Undone' : 'Redone'} on ${name}: ${was[which]}.`)
    }
    return now
  }
  const undo = () => step('undo')
  const redo = () => step('redo')

  /** Called when what is told of the card is another, and the card is not. */
  const reload = () => catchUp(Infinity)

  /** Called when another window has changed the card. */
  async function catchUp(revision: number) {
    await queue
    const v = view.value
    if (v && v.revision < revision) {
      try {
        take(await api.open(v.id))
      } catch {
        gone.value = 'The card is not there any more.'
      }
    }
  }

  /**
   * Selects what a change has made, or what `which` takes of it, unless a person has selected
   * anything else while it was worked out. Returns what the change leads to.
   */
  async function selectMade(asked: Promise<View | undefined>, which = (v: View) => v.made ?? []) {
    const before = choices
    const v = await asked
    const ids = v ? which(v) : []
    if (ids.length && before === choices) put(ids)
    return v
  }

  function select(ids: string[], add = false) {
    choices++
    put(ids, add)
  }

  function put(ids: string[], add = false) {
    // Outside the group that was entered, groups are whole again.
    if (entered.value && !ids.some((i) => line(i).includes(entered.value))) entered.value = ''
    if (!add) selection.value = ids
    else
      selection.value = ids.reduce(
        (all, i) => (all.includes(i) ? all.filter((s) => s !== i) : [...all, i]),
        selection.value,
      )
  }

  function work(f: FaceID) {
    choices++
    if (faceId.value !== f) {
      selection.value = []
      entered.value = ''
    }
    faceId.value = f
  }

  return {
    damaged,
    recover,
    view,
    id,
    faceId,
    face,
    items,
    doc,
    selection,
    selected,
    told,
    pieceOf,
    findings,
    writing,
    prints,
    framed,
    entered,
    line,
    unit,
    enter,
    group,
    trial,
    lookFrom,
    awaiting,
    saving,
    stop,
    gone,
    open,
    change,
    leave,
    attempt,
    lay,
    layArt,
    undo,
    redo,
    catchUp,
    reload,
    select,
    selectMade,
    idle,
    work,
  }
})
