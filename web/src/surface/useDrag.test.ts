import assert from 'node:assert/strict'
import { test } from 'node:test'
import { ref } from 'vue'
import type { Command, SceneFace, SceneItem } from '../api/types'
import { apply, turn, then, shift, type Matrix } from '../parts/geom'
import { useDrag } from './useDrag'

function item(id: string, x: number, y: number, w: number, h: number, more: Partial<SceneItem> = {}): SceneItem {
  const deg = more.turn ?? 0
  return {
    id,
    name: id,
    kind: 'shape',
    piece: true,
    outline: '',
    at: then(turn(deg), shift(x, y)),
    box: { x: -w / 2, y: -h / 2, w, h },
    bounds: { x: x - w / 2, y: y - h / 2, w, h },
    turn: deg,
    fill: {},
    bleed: 0,
    from: 0,
    to: 0,
    lift: 0,
    takesMat: true,
    freeRatio: true,
    ...more,
  }
}

function table(items: SceneItem[], chosen: SceneItem[], ratio = true) {
  const sent: Command[] = []
  const face = { width: 100, height: 200, safe: { x: 5, y: 5, w: 90, h: 190 }, items } as unknown as SceneFace
  const drag = useDrag({
    face: ref(face),
    selected: ref(chosen),
    scale: ref(4),
    ratio: () => ratio,
    size: (w, h) => `${w}×${h}`,
    len: (mm) => mm.toFixed(1),
    change: async (c) => sent.push(c),
  })
  return { drag, sent }
}

const near = (a: number | undefined, b: number) =>
  assert.ok(a !== undefined && Math.abs(a - b) < 1e-9, `${a} is not ${b}`)

test('moving takes along what moves with it and sends one command', async () => {
  const label = item('label', 30, 30, 20, 10, { with: ['words'] })
  const words = item('words', 30, 30, 10, 5, { on: 'label', piece: false })
  const { drag, sent } = table([label, words], [label])
  const go = drag.move({ x: 30, y: 30 })
  go({ x: 33, y: 37 }, true, false)
  assert.deepEqual([...(drag.live.value?.keys() ?? [])], ['label', 'words'])
  assert.match(drag.note.value?.text ?? '', /^23\.0 from left · 32\.0 from top$/)
  await drag.drop()
  assert.deepEqual(sent, [{ do: 'moveItems', ids: ['label'], dx: 3, dy: 7 }])
  assert.equal(drag.live.value, undefined)
})

test('with Alt a movement keeps to one direction', () => {
  const it = item('a', 30, 30, 20, 10)
  const { drag } = table([it], [it])
  drag.move({ x: 30, y: 30 })({ x: 36, y: 31 }, true, true)
  assert.deepEqual(drag.live.value?.get('a'), shift(6, 0))
})

test('a drag that is given up changes nothing', async () => {
  const it = item('a', 30, 30, 20, 10)
  const { drag, sent } = table([it], [it])
  drag.move({ x: 30, y: 30 })({ x: 36, y: 31 }, true, false)
  drag.cancel()
  await drag.drop()
  assert.deepEqual(sent, [])
  assert.equal(drag.live.value, undefined)
})

test('resizing a turned item holds the corner across, along its own axes', async () => {
  const it = item('a', 50, 50, 20, 10, { turn: 30 })
  const held = apply(it.at, { x: -10, y: -5 })
  const corner = apply(it.at, { x: 10, y: 5 })
  const { drag, sent } = table([it], [it], false)
  // Twice as wide and three times as high, measured along the item.
  const to = apply(then(turn(30), shift(held.x, held.y)), { x: 40, y: 30 })
  drag.resize('se')(to, false)
  const m = drag.live.value?.get('a') as Matrix
  const kept = apply(m, held)
  near(kept.x, held.x)
  near(kept.y, held.y)
  const moved = apply(m, corner)
  near(moved.x, to.x)
  near(moved.y, to.y)
  await drag.drop()
  const c = sent[0]
  assert.equal(c?.do, 'resizeItems')
  if (c?.do !== 'resizeItems') return
  near(c.fx, 2)
  near(c.fy, 3)
  near(c.about.x, held.x)
})

test('what keeps its proportions keeps them whatever is asked', async () => {
  const words = item('w', 50, 50, 20, 10, { freeRatio: false })
  const { drag, sent } = table([words], [words], false)
  drag.resize('e')({ x: 70, y: 50 }, true)
  await drag.drop()
  const c = sent[0]
  assert.ok(c?.do === 'resizeItems')
  near(c.fx, 1.5)
  near(c.fy, 1.5)
})

test('a size never turns inside out', async () => {
  const it = item('a', 50, 50, 20, 10)
  const { drag, sent } = table([it], [it], false)
  drag.resize('se')({ x: -500, y: -500 }, false)
  await drag.drop()
  const c = sent[0]
  assert.ok(c?.do === 'resizeItems' && c.fx > 0 && c.fy > 0)
})

test('turning goes the short way and finds whole fifteens', async () => {
  const it = item('a', 50, 50, 20, 10, { turn: 170 })
  const { drag, sent } = table([it], [it])
  const go = drag.turnAbout({ x: 60, y: 50 })
  const on = (deg: number) => ({
    x: 50 + 10 * Math.cos((deg * Math.PI) / 180),
    y: 50 + 10 * Math.sin((deg * Math.PI) / 180),
  })
  go(on(26), false)
  assert.equal(drag.note.value?.text, '-165°', '170 and 25 is 195, which is -165')
  go(on(31), true)
  await drag.drop()
  const c = sent[0]
  assert.ok(c?.do === 'turnItems')
  near(c.degrees, 31)
})

test('a cell that is held over another of its group swaps pictures with it', async () => {
  const pic = { picture: { id: 'p' } as SceneItem['picture'], cell: true, group: 'g' }
  const a = item('a', 20, 20, 20, 20, pic)
  const b = item('b', 60, 20, 20, 20, { cell: true, group: 'g' })
  const c = item('c', 60, 60, 20, 20, { cell: true, group: 'other' })
  const { drag, sent } = table([a, b, c], [a])
  let go = drag.move({ x: 20, y: 20 })
  go({ x: 58, y: 22 }, false, false)
  assert.equal(drag.swap.value?.id, 'b')
  assert.match(drag.note.value?.text ?? '', /swap/)
  await drag.drop()
  assert.equal(drag.swap.value, undefined)
  assert.deepEqual(sent.pop(), { do: 'swapPictures', a: 'a', b: 'b' })

  // Let go beside all, over a cell of another group, or freely with Shift, it is moved.
  for (const [to, free] of [
    [{ x: 40, y: 90 }, false],
    [{ x: 60, y: 60 }, false],
    [{ x: 58, y: 22 }, true],
  ] as const) {
    go = drag.move({ x: 20, y: 20 })
    go(to, free, false)
    assert.equal(drag.swap.value, undefined)
    await drag.drop()
    assert.equal(sent.pop()?.do, 'moveItems')
  }
})
