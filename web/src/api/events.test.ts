import assert from 'node:assert/strict'
import { test } from 'node:test'
import { effectScope } from 'vue'
import { settled } from '../testing/answers'

/** A stream of events that is told what to say. */
class Stream extends EventTarget {
  static last: Stream
  onerror?: () => void
  constructor(readonly url: string) {
    super()
    Stream.last = this
  }
  say(kind: string, data: unknown = {}) {
    this.dispatchEvent(Object.assign(new Event(kind), { data: JSON.stringify({ kind, ...(data as object) }) }))
  }
  close() {}
}

test('whoever listens hears that the stream is there, early or late', async () => {
  Object.assign(globalThis, { EventSource: Stream })
  globalThis.window ??= new EventTarget() as unknown as Window & typeof globalThis
  const { connected, useEvents } = await import('./events')
  const heard: string[] = []
  const listen = (name: string) => {
    const scope = effectScope()
    scope.run(() => useEvents((e) => heard.push(`${name} ${e.kind}`)))
    return scope
  }
  const early = listen('early')
  assert.equal(Stream.last.url, '/api/events')
  Stream.last.say('hello')
  const late = listen('late')
  await settled()
  assert.deepEqual(heard, ['early hello', 'late hello'])

  heard.length = 0
  Stream.last.say('stocks')
  late.stop()
  Stream.last.say('card', { card: 'c1', revision: 4 })
  assert.deepEqual(heard, ['early stocks', 'late stocks', 'early card'])

  heard.length = 0
  Stream.last.onerror?.()
  assert.equal(connected.value, false)
  const broken = listen('broken')
  await settled()
  assert.deepEqual(heard, [], 'while it is broken nobody is told that it is there')
  Stream.last.say('hello')
  assert.deepEqual(heard, ['early hello', 'broken hello'])
  assert.equal(connected.value, true)
  for (const s of [early, broken]) s.stop()
})
