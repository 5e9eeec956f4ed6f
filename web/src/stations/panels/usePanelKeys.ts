// What the keyboard does on the Panels station.
import { useEventListener } from '@vueuse/core'
import { message } from 'ant-design-vue'
import type { Item, View } from '../../api/types'
import { drawingOf, keepClip, readClip, storeClip } from '../../parts/clip'
import { useCard } from '../../store/card'
import { useCatalogue } from '../../store/catalogue'
import { usePrefs } from '../../store/prefs'
import { useTool } from '../../store/tool'
import { isTyping, writes } from '../../parts/typing'

interface Actions {
  fit: () => void
  search: () => void
  /** Moves the focus to what can be done, or back to the face. */
  verbs: () => void
  /** Moves the focus to the face. */
  face: () => void
  edit: (id: string) => void
  /** Brings in files, as if they were dropped. */
  files: (files: File[]) => void
}

export function usePanelKeys(a: Actions) {
  const card = useCard()
  const prefs = usePrefs()
  const tool = useTool()
  const catalogue = useCatalogue()

  const ids = () => card.selected.map((it) => it.id)
  /** Does what a key asks for, on what is selected once the change before it is answered. */
  const then = (f: () => unknown) => void (card.saving ? card.idle().then(() => ids().length && f()) : f())

  function nudge(e: KeyboardEvent) {
    const step = e.altKey ? prefs.step.fine : e.shiftKey ? prefs.step.coarse : prefs.step.normal
    const dx = e.key === 'ArrowLeft' ? -step : e.key === 'ArrowRight' ? step : 0
    const dy = e.key === 'ArrowUp' ? -step : e.key === 'ArrowDown' ? step : 0
    then(() => card.change({ do: 'moveItems', ids: ids(), dx, dy }))
  }

  /** Keeps the items with all that belongs to them, as they are in the document. */
  function copy(e?: ClipboardEvent) {
    const all = new Set(card.selected.flatMap((it) => [it.id, ...(it.with ?? [])]))
    const face = card.view?.card.faces.find((f) => f.id === card.faceId)
    const items = JSON.parse(JSON.stringify(face?.items.filter((it) => all.has(it.id)) ?? [])) as Item[]
    const used = new Set(items.flatMap((it) => card.line(it.id)))
    keepClip(
      {
        card: card.id,
        face: card.faceId,
        items,
        groups: [...(face?.groups?.filter((g) => used.has(g.id)) ?? [])],
        drawing: drawingOf(
          card.face?.items.filter((it) => all.has(it.id)) ?? [],
          (p) => catalogue.all.papers.find((q) => q.id === p)?.ground,
        ),
      },
      e,
    )
  }

  /** What was made, but for what lies on it and the mats under it. */
  function tops(v: View): string[] {
    const all = v.made ?? []
    const carrier = (id: string) => {
      let on = card.doc(id)?.on
      while (on && card.doc(on)?.mat && all.includes(on)) on = card.doc(on)?.on
      return on
    }
    const top = all.filter((id) => !card.doc(id)?.mat && !all.includes(carrier(id) ?? ''))
    return top.length ? top : all
  }

  async function paste() {
    const clip = readClip()
    if (!clip?.items.length)
      return void message.info('There is nothing to paste. Copy something on a card, or a drawing in another program.')
    // On the face that it comes from, the copy lies beside what was copied.
    const shift = clip.card === card.id && clip.face === card.faceId ? prefs.step.normal * 4 : 0
    const items = clip.items.map((it) => ({
      ...it,
      place: { ...it.place, x: it.place.x + shift, y: it.place.y + shift },
    }))
    if (shift) storeClip({ ...clip, items })
    await card.selectMade(card.change({ do: 'placeItems', face: card.faceId, items, groups: clip.groups }), tops)
  }

  /** Pastes what was copied here, or brings in what another program has copied. */
  function pasted(e: ClipboardEvent) {
    const text = e.clipboardData?.getData('text/plain') ?? ''
    const files = [...(e.clipboardData?.files ?? [])]
    if (!files.length && /^\s*(<\?xml[^>]*>\s*)?<svg[\s>]/.test(text) && text !== readClip()?.drawing)
      files.push(new File([text], 'Pasted drawing.svg', { type: 'image/svg+xml' }))
    if (files.length) a.files(files)
    else void paste()
    e.preventDefault()
  }
  /** Makes a group of what is selected, or takes it apart. */
  const group = (apart = !!card.group) =>
    void card.change(apart ? { do: 'ungroupItems', ids: ids() } : { do: 'groupItems', ids: ids() })

  const remove = () => void card.change({ do: 'removeItems', ids: ids() })
  const duplicate = () =>
    card.selectMade(
      card.change({ do: 'duplicateItems', ids: ids(), dx: prefs.step.normal * 4, dy: prefs.step.normal * 4 }),
      tops,
    )
  const all = () => card.select(card.face?.items.filter((it) => !it.locked).map((it) => it.id) ?? [])
  const lock = () => void card.change({ do: 'lockItems', ids: ids(), locked: !card.selected.every((it) => it.locked) })
  const hide = () => void card.change({ do: 'hideItems', ids: ids(), hidden: true })
  const step = (up: boolean) => void card.change({ do: 'stepInStack', id: ids()[0]!, up })

  function command(e: KeyboardEvent): boolean {
    const some = card.selected.length > 0
    switch (e.key.toLowerCase()) {
      case 'd':
        if (some) then(duplicate)
        return true
      case 'g':
        if (some) then(() => group(e.shiftKey))
        return true
      case 'a':
        all()
        return true
    }
    return false
  }

  /** Selects the next item of the face; false when there is none, so that the focus goes on. */
  function through(step: 1 | -1): boolean {
    // With several chosen, the next thing to reach is what can be done with them.
    if (card.selection.length > card.unit(card.selection[0] ?? '').length) return false
    const all = card.face?.items.map((it) => it.id) ?? []
    const units = [...new Map(all.map((id) => card.unit(id)).map((u) => [u[0], u])).values()]
    const now = units.findIndex((u) => card.selection.length > 0 && u.includes(card.selection[0]!))
    const next = now < 0 ? (step > 0 ? 0 : units.length - 1) : now + step
    const unit = units[next]
    if (unit) card.select(unit)
    return !!unit
  }

  /** Puts the tool down, then leaves the group, then lets go. */
  function escape() {
    if (tool.tool !== 'choose') tool.take('choose')
    else if (card.entered) {
      card.entered = ''
      card.select(card.selection[0] ? card.unit(card.selection[0]) : [])
    } else card.select([])
  }

  /**
   * What is typed on words that are chosen replaces them: the editor has the focus before the
   * character is written. No letter is a command then.
   */
  function written(e: KeyboardEvent): boolean {
    if (!writes(e) || e.key === ' ' || /[[\]]/.test(e.key) || !card.selected.some((it) => it.kind === 'lettering'))
      return false
    if (card.selected.length === 1 && !card.selected[0]!.locked) a.edit(card.selection[0]!)
    else e.preventDefault()
    return true
  }

  function plain(e: KeyboardEvent): boolean {
    const some = card.selected.length > 0
    const faces = card.view?.scene.faces ?? []
    switch (e.key) {
      case 'ArrowLeft':
      case 'ArrowRight':
      case 'ArrowUp':
      case 'ArrowDown':
        if (some) nudge(e)
        return some
      case 'Delete':
      case 'Backspace':
        if (some) then(remove)
        return some
      case '[':
      case ']':
        if (card.selected.length === 1) then(() => step(e.key === ']'))
        return true
      case 'f':
      case 'F':
        card.work(
          faces[(faces.findIndex((f) => f.id === card.faceId) + (e.shiftKey ? faces.length - 1 : 1)) % faces.length]!
            .id,
        )
        return true
      case '0':
        a.fit()
        return true
      case '/':
        a.search()
        return true
      case 'l':
      case 'L':
        if (some) then(lock)
        return some
      case 'h':
      case 'H':
        if (some) then(hide)
        return some
      case 'd':
      case 'D':
        tool.take('draw')
        return true
      case 'u':
      case 'U':
        tool.take('rub')
        return true
      case 'r':
      case 'R':
        tool.take('ruler')
        return true
      case 'g':
      case 'G':
        tool.take('gap')
        return true
      case 'v':
      case 'V':
        a.verbs()
        return true
      case '.':
        tool.bare = true
        return true
      case ',':
        tool.asPrinted = tool.bare = true
        return true
      case 'Tab':
        return (e.target as HTMLElement).matches('[data-testid=surface]') && through(e.shiftKey ? -1 : 1)
      case 'Escape':
        escape()
        return true
      case 'F2':
      case 'Enter':
        if (card.selected.length === 1 && (e.target as HTMLElement).matches('[data-testid=surface]')) {
          a.edit(card.selection[0]!)
          return true
        }
        return false
    }
    return false
  }

  useEventListener(window, 'keydown', (e: KeyboardEvent) => {
    // Esc leaves a field beside the face for the face.
    if (e.key === 'Escape' && isTyping(e) && (e.target as HTMLElement).closest('.right')) a.face()
    if (isTyping(e) || e.defaultPrevented) return
    if (written(e)) return
    const mod = e.ctrlKey || e.metaKey
    if (mod ? command(e) : plain(e)) e.preventDefault()
  })

  /** Whether copying and pasting mean the face, and not a text or a dialog. */
  const meant = (e: ClipboardEvent) =>
    !(e.target as HTMLElement).closest?.('input, textarea, [contenteditable=true], .ant-modal')
  useEventListener(window, 'paste', (e: ClipboardEvent) => meant(e) && pasted(e))
  useEventListener(window, 'copy', (e: ClipboardEvent) => meant(e) && card.selected.length && copy(e))
  useEventListener(window, 'cut', (e: ClipboardEvent) => {
    if (!meant(e) || !card.selected.length) return
    copy(e)
    then(remove)
  })

  useEventListener(window, 'keyup', (e: KeyboardEvent) => {
    if (e.key === '.' || e.key === ',') tool.asPrinted = tool.bare = false
  })
  useEventListener(window, 'blur', () => (tool.asPrinted = tool.bare = false))

  return { copy, paste, all, lock, hide, remove, duplicate, step, group }
}
