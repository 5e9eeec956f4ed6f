// A stand-in for the program, for tests: what it is asked, and what it answers.
import { message } from 'ant-design-vue'
import { createPinia, setActivePinia } from 'pinia'

export interface Asked {
  method: string
  path: string
  body: unknown
}

/** Answers with JSON; a Problem has the status of a refusal. */
export type Answer = { status?: number; json?: unknown } | Promise<{ status?: number; json?: unknown }>

/** Lets everything that is asked of the program be answered here. */
export function answering(answer: (a: Asked) => Answer): Asked[] {
  const asked: Asked[] = []
  globalThis.fetch = async (input, init) => {
    const path = String(input)
    const body = typeof init?.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined
    const a = { method: init?.method ?? 'GET', path, body }
    asked.push(a)
    const stopped = new Promise<never>((_, reject) => {
      init?.signal?.addEventListener('abort', () => reject(new DOMException('aborted', 'AbortError')))
    })
    const { status = 200, json } = await Promise.race([Promise.resolve(answer(a)), stopped])
    return new Response(json === undefined ? null : JSON.stringify(json), { status })
  }
  return asked
}

/** What the person was told. */
export const said: string[] = []
const hear = (content: unknown) => {
  said.push(typeof content === 'string' ? content : (content as { content: string }).content)
  return undefined as never
}
message.warning = hear
message.info = hear

/** Stores of their own for a test, and nothing said yet. */
export function freshStores() {
  said.length = 0
  setActivePinia(createPinia())
}

/** Waits until nothing is left to do but what timers start. */
export const settled = () => new Promise<void>((done) => setImmediate(done))
