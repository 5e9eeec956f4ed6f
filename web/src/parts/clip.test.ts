import assert from 'node:assert/strict'
import { test } from 'node:test'
import type { SceneItem } from '../api/types'
import { drawingOf, keepClip, readClip, type Clip } from './clip'

const item = (more: object) =>
  ({
    id: 'i1',
    name: 'Tag & <label>',
    outline: 'M0 0H10V5H0Z',
    at: [1, 0, 0, 1, 20, 30],
    bounds: { x: 20, y: 30, w: 10, h: 5 },
    fill: {},
    ...more,
  }) as unknown as SceneItem

test('a drawing is in true size, names are escaped', () => {
  const svg = drawingOf(
    [item({ fill: { colour: '#a8432a' } }), item({ bounds: { x: 40, y: 30, w: 10, h: 8 }, fill: { paper: 'comb' } })],
    (p) => (p === 'comb' ? '#fff6e0' : undefined),
  )
  assert.match(svg, /width="30mm" height="8mm" viewBox="20 30 30 8"/)
  assert.match(svg, /fill="#a8432a"><title>Tag &amp; &lt;label&gt;<\/title>/)
  assert.match(svg, /fill="#fff6e0"/)
  assert.match(
    drawingOf([item({ role: 'cut' })], () => undefined),
    /fill="none" stroke=/,
  )
})

test('a clip is there in another window, and in this one where nothing is kept', () => {
  const kept = new Map<string, string>()
  const store = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => {
      if (v.length > 400) throw new Error('full')
      kept.set(k, v)
    },
    removeItem: (k: string) => void kept.delete(k),
  }
  Object.defineProperty(globalThis, 'localStorage', { value: store, configurable: true })
  const clip = (n: number): Clip => ({ card: 'c', face: 'front', items: [], groups: [], drawing: 'x'.repeat(n) })
  keepClip(clip(3))
  assert.equal(JSON.parse(kept.get('sectilis.clip')!).drawing, 'xxx')
  assert.equal(readClip()?.drawing, 'xxx')
  keepClip(clip(500))
  assert.equal(kept.size, 0)
  assert.equal(readClip()?.drawing.length, 500, 'what is too large for others stays here')
})
