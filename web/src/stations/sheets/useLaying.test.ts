import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import type { Command, SheetPiece, SheetView } from '../../api/types'
import { answering, freshStores } from '../../testing/answers'
import { useCard } from '../../store/card'
import { useLaying } from './useLaying'

const piece = (id: string, x: number, more: Partial<SheetPiece> = {}) =>
  ({ id, name: id, place: { x, y: 50, turn: 0 }, lines: [], ...more }) as unknown as SheetPiece
const sheet = (number: number, of: number, stock: string, pieces: SheetPiece[], size = 'letter') =>
  ({
    number,
    of,
    stock: { id: stock, name: stock },
    size: { id: size, width: 200, height: 280 },
    pieces,
  }) as unknown as SheetView

/** A card whose sheets these are, and what it is asked to change. */
async function bench(list: SheetView[]) {
  const commands: Command[] = []
  answering((a) => {
    if (a.method === 'POST') commands.push(...(a.body as { commands: Command[] }).commands)
    return { json: { id: 'c1', revision: 1, card: { faces: [] }, scene: { net: { faces: [] }, faces: [] } } }
  })
  const card = useCard()
  await card.open('c1')
  const laying = useLaying(() => list)
  /** What was asked for by what is done. */
  const asked = async (what: () => unknown) => {
    commands.length = 0
    what()
    await card.attempt() // changes before it are through
    return commands.filter((c) => c.do !== undefined)
  }
  return { laying, asked }
}
beforeEach(freshStores)

const two = () => [
  sheet(1, 0, 'moss', [piece('a', 10), piece('b', 60, { place: { x: 60, y: 50, turn: 170 } })]),
  sheet(2, -1, 'moss', [piece('s', 20)], 'scrap'),
  sheet(3, 1, 'moss', [piece('t', 30, { tie: 1 }), piece('u', 70, { tie: 1 })], 'a5'),
  sheet(4, 0, 'brick', [piece('k', 15)]),
]

test('chosen pieces are moved and turned where they lie', async () => {
  const { laying, asked } = await bench(two())
  laying.pick('a', false)
  laying.pick('b', true)
  assert.deepEqual(await asked(() => laying.move(2, -1)), [
    {
      do: 'layPieces',
      pieces: [
        { piece: 'a', sheet: 0, size: 'letter', place: { x: 12, y: 49, turn: 0 } },
        { piece: 'b', sheet: 0, size: 'letter', place: { x: 62, y: 49, turn: 170 } },
      ],
    },
  ])
  const [turned] = await asked(() => laying.turn(90))
  assert.ok(turned?.do === 'layPieces')
  assert.deepEqual(
    turned.pieces.map((p) => p.place.turn),
    [90, -100],
    'within half a turn',
  )
  laying.pick('a', true)
  assert.deepEqual(laying.picked.value, ['b'], 'chosen again is chosen no more')
})

test('of a tied set one piece leads', async () => {
  const { laying, asked } = await bench(two())
  laying.pick('t', false)
  laying.pick('u', true)
  assert.deepEqual(laying.withTied('u'), ['t', 'u'])
  const [moved] = await asked(() => laying.move(1, 1))
  assert.ok(moved?.do === 'layPieces')
  assert.deepEqual(
    moved.pieces.map((p) => p.piece),
    ['t'],
  )
  assert.ok(laying.tied.value && !laying.canTie.value)
  assert.deepEqual(await asked(laying.untie), [{ do: 'untiePieces', pieces: ['t', 'u'] }])
})

test('only what lies on one sheet can be tied', async () => {
  const { laying, asked } = await bench(two())
  laying.pick('a', false)
  assert.ok(!laying.canTie.value, 'one alone')
  laying.pick('k', true)
  assert.ok(!laying.canTie.value, 'on two sheets')
  laying.pick('k', true)
  laying.pick('b', true)
  assert.ok(laying.canTie.value)
  const [tie] = await asked(laying.tie)
  assert.ok(tie?.do === 'tiePieces')
  assert.deepEqual(
    tie.pieces.map((p) => [p.piece, p.sheet]),
    [
      ['a', 0],
      ['b', 0],
    ],
  )
})

test('a piece goes to another sheet of its stock, in the size that this has', async () => {
  const { laying, asked } = await bench(two())
  laying.pick('a', false)
  const to = async (what: () => unknown) => {
    const [c] = await asked(what)
    assert.ok(c?.do === 'layPieces')
    const { sheet, size } = c.pieces[0]!
    return [sheet, size]
  }
  assert.deepEqual(await to(() => laying.onto(1)), [1, 'a5'])
  assert.deepEqual(await to(laying.apart), [2, 'letter'], 'scraps do not count')
  laying.pick('s', false)
  assert.deepEqual(await to(() => laying.move(1, 0)), [0, undefined], 'off its scrap, onto the first sheet')
})

test('what is laid by hand can be loosened, what is gone is not chosen', async () => {
  const list = two()
  const { laying, asked } = await bench(list)
  laying.pick('k', false)
  assert.ok(!laying.byHand.value)
  list[3]!.pieces[0]!.byHand = true
  laying.pick('gone', true)
  assert.deepEqual(
    laying.chosen.value.map((c) => c.piece.id),
    ['k'],
  )
  assert.deepEqual(await asked(laying.loosen), [{ do: 'loosenPieces', pieces: ['k', 'gone'] }])
})
