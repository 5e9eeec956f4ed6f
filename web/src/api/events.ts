import { onScopeDispose, ref } from 'vue'
import type { Event as AppEvent } from './types'

/** An event of the program, or that its stream is there again. */
type Heard = AppEvent | { kind: 'hello'; card?: undefined; revision?: undefined; job?: undefined }
type Listener = (e: Heard) => void

const kinds: Record<AppEvent['kind'], true> = {
  table: true,
  card: true,
  job: true,
  inks: true,
  stocks: true,
  assembly: true,
}
const listeners = new Set<Listener>()
let source: EventSource | undefined
/** Whether the stream is there: it has said so, and has not broken since. */
let greeted = false

/** Whether the program answers; it is told as soon as the stream breaks. */
export const connected = ref(true)

function connect() {
  source = new EventSource('/api/events')
  source.addEventListener('hello', () => {
    connected.value = greeted = true
    // Whatever happened while the stream was broken was not heard.
    for (const l of listeners) l({ kind: 'hello' })
  })
  source.onerror = () => (connected.value = greeted = false)
  for (const kind of Object.keys(kinds)) {
    source.addEventListener(kind, (m) => {
      const event = JSON.parse((m as MessageEvent<string>).data) as AppEvent
      for (const l of listeners) l(event)
    })
  }
}

// A browser allows few connections to one program; a page that is left, and perhaps
// kept to go back to, gives its own up.
window.addEventListener('pagehide', () => source?.close())
window.addEventListener('pageshow', (e) => e.persisted && source && connect())

/** Calls the listener for every event until the scope ends; that the stream is there is told to each. */
export function useEvents(listener: Listener) {
  if (!source) connect()
  listeners.add(listener)
  if (greeted) queueMicrotask(() => listeners.has(listener) && listener({ kind: 'hello' }))
  onScopeDispose(() => listeners.delete(listener))
}
