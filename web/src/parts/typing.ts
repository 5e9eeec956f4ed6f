// To whom a key belongs: to what is typed into, to what is moved through, or to the page;
// and where the focus goes when a field or a choice is done with.

const typed = 'textarea, select, [contenteditable=true], input:not([type=radio], [type=checkbox], [type=color])'

/** Whether a dialog lies over the page: it has the keys before the focus has come to it, too. */
const covered = () =>
  [...document.querySelectorAll<HTMLElement>('.ant-modal-wrap')].some((d) => d.style.display !== 'none')

/** Whether a key belongs to something that is typed into or moved through. */
export const isTyping = (e: KeyboardEvent) => {
  const el = e.target as HTMLElement
  return el.matches(typed) || !!el.closest('.ant-select, .ant-slider, .ant-dropdown') || covered()
}

/** Whether a text is being typed, which then has an undo of its own. */
export const isWriting = (e: KeyboardEvent) => {
  const el = e.target as HTMLElement
  return el.matches('textarea, [contenteditable=true], input') && el.matches(typed) && !el.matches('[data-resting]')
}

/** Whether a key writes a character. */
export const writes = (e: KeyboardEvent) => e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey

/** Gives the focus back to the face, or to the page where there is none. */
export function toFace() {
  const face = document.querySelector<HTMLElement>('[data-testid=surface]')
  if (face) face.focus({ preventScroll: true, focusVisible: false } as FocusOptions)
  else if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
}

/** Tells afterwards whether the focus has stayed where it is now, or has nowhere to be. */
export function focusWatch() {
  let moved = false
  const note = () => (moved = true)
  window.addEventListener('focusin', note, { capture: true, once: true })
  return () => {
    window.removeEventListener('focusin', note, { capture: true })
    return !moved || document.activeElement === document.body
  }
}

/** What opens above the page keeps the focus until it closes. */
const above = (el: Element) => !!el.closest('.ant-modal, .ant-popover, .tray')

/** What is chosen with a click and needs no key after it. */
const chosenBy = '.ant-segmented, .ant-switch, .ant-checkbox-wrapper, .sec > header h3'

/** How long a list may take to close, ms, on a busy computer. */
const listCloses = 2000

/** After a choice that a pointer made, and after Enter in a field, keys mean the face again. */
export function afterChoice(e: MouseEvent) {
  if (e.detail === 0) return // Made by a key: the choice keeps the focus.
  const el = e.target as HTMLElement
  if (!el.closest(chosenBy + ', .ant-select-item-option')) return
  const giveBack = () => {
    const held = document.activeElement
    if (held?.closest(chosenBy + ', .ant-select') && !above(held)) toFace()
  }
  // The control takes the focus with this click, or a moment after it, or once more when its
  // list has closed; what the person does next has the focus for itself.
  const done = new AbortController()
  const on = { capture: true, signal: done.signal }
  window.addEventListener('focusin', () => requestAnimationFrame(giveBack), on)
  window.addEventListener('pointerdown', () => done.abort(), on)
  window.addEventListener('keydown', (k) => k.key === 'Tab' && done.abort(), on)
  setTimeout(() => done.abort(), listCloses)
  giveBack()
  requestAnimationFrame(giveBack)
}

export function afterEnter(e: KeyboardEvent) {
  const el = e.target as HTMLElement
  if (e.key === 'Enter' && el.matches('input') && el.matches(typed) && el.closest('.right') && !above(el)) toFace()
}
