import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import type { Edit } from '../api/types'
import { editName, ofKinds } from '../stations/photo/edits'
import { answering, freshStores, settled, type Answer } from '../testing/answers'
import { useCard } from './card'
import { useCutOut } from './cutout'
import { useEdits } from './edits'
import { useMend } from './mend'
import { usePart } from './part'

/** A card with a photo, i1, that is worked on; the program keeps what is sent. */
async function photo(first: Edit[] = [], edited: (now: Edit[]) => Answer = () => ({ json: {} })) {
  let edits = first
  let revision = 1
  const view = () => ({
    id: 'c1',
    revision,
    findings: [],
    card: {
      faces: [
        {
          id: 'front',
          items: [{ id: 'i1', name: 'Lake', kind: 'photo', made: { as: 'printed' }, photo: { picture: 'p', edits } }],
        },
      ],
    },
    scene: { net: { faces: [] }, faces: [{ id: 'front', items: [{ id: 'i1', name: 'Lake', kind: 'photo' }] }] },
  })
  const sent: Edit[][] = []
  answering((a) => {
    if (a.path === '/api/cards/c1') return { json: view() }
    if (a.path === '/api/cards/c1/changes') {
      edits = (a.body as { commands: { edits: Edit[] }[] }).commands[0]!.edits
      sent.push(edits)
      revision++
      return { json: view() }
    }
    return edited(edits)
  })
  await useCard().open('c1')
  useEdits().open('i1')
  return { edits: useEdits(), sent, kept: () => edits }
}
beforeEach(freshStores)

test('sliders change one step; what does nothing any more is none', async () => {
  const { edits, sent, kept } = await photo()
  edits.slideLight({ warmth: 20 })
  assert.deepEqual(edits.edits, [{ light: { warmth: 20 } }])
  assert.deepEqual(sent, [], 'what is slid is not kept')
  await edits.setLight({ warmth: 25 })
  await edits.setLight({ contrast: 10 })
  await settled()
  assert.deepEqual(kept(), [{ light: { warmth: 25, contrast: 10 } }])
  await edits.setLight({ warmth: 0 })
  await edits.setLight({ contrast: 0 })
  assert.deepEqual(kept(), [])
  await edits.setLight({ tint: 5 })
  assert.deepEqual(kept(), [{ light: { tint: 5 } }])
})

test('what is set before the answer came is built on what was set', async () => {
  const { edits, kept } = await photo()
  void edits.add({ lean: { degrees: 2 } })
  void edits.add({ tone: { colour: '#808080', amount: 100 } })
  await edits.add({ lean: { degrees: -1 } })
  await settled()
  assert.equal(kept().length, 3)
  edits.takeOff(0)
  await settled()
  assert.deepEqual(
    kept().map((e) => Object.keys(e)[0]),
    ['tone', 'lean'],
  )
  assert.deepEqual(edits.edits, kept())
})

test('what takes long is stopped, and goes on with what is changed next', async () => {
  let asked = 0
  const { edits: store } = await photo([], (now) => {
    asked++
    return now.length === 1 ? new Promise(() => undefined) : {}
  })
  await settled()
  await store.add({ lean: { degrees: 2 } })
  await settled()
  store.stop()
  await settled()
  assert.match(store.wrong, /^Stopped/)
  assert.equal(store.busy, false)
  const before = asked
  await store.add({ lean: { degrees: -1 } })
  await settled()
  assert.ok(asked > before)
  assert.equal(store.wrong, '')
})

test('strokes say what stays, then what goes, and are taken off one by one', async () => {
  const { kept } = await photo([{ light: { warmth: 5 } }])
  const cut = useCutOut()
  const line = [
    { x: 0.4, y: 0.5 },
    { x: 0.6, y: 0.5 },
  ]
  cut.stroke(line)
  await settled()
  assert.equal(cut.brush, 'goes')
  cut.stroke([{ x: 0.1, y: 0.1 }])
  await settled()
  cut.brush = 'out'
  cut.soft = true
  cut.stroke(line)
  await settled()
  const c = kept()[1]!.cutOut!
  assert.equal(kept().length, 2)
  assert.deepEqual(
    [c.subject?.stays?.length, c.subject?.goes?.length, c.paint?.length, c.paint?.[0]?.in, c.paint?.[0]?.soft],
    [1, 1, 1, false, true],
  )
  for (const [stays, goes] of [
    [1, 1],
    [1, 0],
  ] as const) {
    cut.back()
    await settled()
    const s = kept()[1]!.cutOut!.subject!
    assert.deepEqual([s.stays?.length, s.goes?.length ?? 0], [stays, goes])
  }
  cut.back()
  await settled()
  assert.deepEqual(kept(), [{ light: { warmth: 5 } }], 'without a mark there is no cut')
})

test('clicks on a ground add up; strokes after them begin anew', async () => {
  const { kept } = await photo()
  const cut = useCutOut()
  cut.click({ x: 0.1, y: 0.1 })
  await settled()
  cut.click({ x: 0.9, y: 0.1 })
  await settled()
  assert.equal(kept()[0]!.cutOut!.ground!.at.length, 2)
  cut.back()
  await settled()
  assert.deepEqual(kept()[0]!.cutOut!.ground!.at, [{ x: 0.1, y: 0.1 }])
  await cut.change({ softness: 0.01 })
  cut.brush = 'stays'
  cut.stroke([{ x: 0.5, y: 0.5 }])
  await settled()
  const c = kept()[0]!.cutOut!
  assert.equal(c.ground, undefined)
  assert.equal(c.subject!.stays!.length, 1)
})

test('what is mended with one stroke after the other is one step; what is filled is filled otherwise', async () => {
  const { kept } = await photo()
  const mend = useMend()
  for (const x of [0.2, 0.4]) {
    mend.stroke([{ x, y: 0.5 }])
    await settled()
  }
  assert.equal(kept()[0]!.filled!.strokes!.length, 2)
  mend.otherwise()
  await settled()
  assert.equal(kept()[0]!.filled!.seed, 1)
  mend.by = 'copy'
  mend.stroke([{ x: 0.7, y: 0.7 }])
  await settled()
  assert.equal(kept().length, 1, 'the first click says what is copied')
  mend.stroke([{ x: 0.1, y: 0.2 }])
  await settled()
  assert.deepEqual(kept()[1]!.copied!.from, { x: 0.7, y: 0.7 })
  mend.widen({ left: 0.2 })
  await settled()
  mend.widen({ top: 0.1 })
  await settled()
  assert.deepEqual(kept()[2]!.wider, { left: 0.2, top: 0.1 })
  mend.widen({ left: undefined, top: undefined })
  await settled()
  assert.equal(kept().length, 2)
})

test('light of a part is a step of its own', async () => {
  const { edits, kept } = await photo([{ light: { warmth: 5 } }])
  const part = usePart()
  part.take('painted')
  part.stroke([{ x: 0.5, y: 0.5 }])
  await settled()
  await edits.setLight({ brightness: 30 })
  assert.equal(kept().length, 2)
  assert.deepEqual(kept()[1]!.light, { brightness: 30 })
  assert.equal(kept()[1]!.of!.paint!.length, 1)
  assert.equal(editName(kept()[1]!), 'Brightness +30, a part')
  part.take('whole')
  await settled()
  await edits.setLight({ warmth: 8 })
  assert.deepEqual(kept()[0], { light: { warmth: 8 } })
})

test('steps have names, and those about no place go to other photos', () => {
  const names: [Edit, string][] = [
    [{ light: { warmth: -12 } }, 'Warmth −12'],
    [{ light: { warmth: 3, tint: 1 } }, 'Light and colour'],
    [{ light: {} }, 'Nothing yet'],
    [{ lean: { degrees: -2.5 } }, 'Straightened −2.5°'],
    [{ lean: { degrees: 0.4 } }, 'Straightened +0.4°'],
    [{ tone: { colour: '#777777', amount: 100 } }, 'Black and white'],
    [{ tone: { colour: '#704214', amount: 50 } }, 'One colour'],
    [{ eyes: [{ x: 0, y: 0, radius: 0.1 }] }, '1 red eye'],
    [{ cutOut: { within: [], rest: true } }, 'With a hole'],
    [{ wider: { left: 1 } }, 'Made wider'],
  ]
  for (const [e, name] of names) assert.equal(editName(e), name)
  const all: Edit[] = [{ light: { warmth: 1 } }, { lean: { degrees: 1 } }, { light: { tint: 2 }, of: { paint: [] } }]
  assert.deepEqual(ofKinds(all, ['light', 'right', 'tone']), [{ light: { warmth: 1 } }])
})
