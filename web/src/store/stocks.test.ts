import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import type { MeasuredStock, StockView } from '../api/types'
import { answering, freshStores, settled } from '../testing/answers'
import { useStocks } from './stocks'

beforeEach(freshStores)

const cut = { offset: 0, over: 0, rounds: 1, speed: 50, travel: 100, force: 90, light: 60, dash: 2, hold: 1 }
const follows = { cut, asUsual: cut }

/** A program with two stocks, which keeps what is sent. */
function shelf() {
  let list: StockView[] = [
    { id: 'cream', name: 'Cream', colour: '#fff6e0', weight: 300, thickness: 0.38, usual: 1.65, ...follows },
    {
      id: 'moss',
      name: 'Moss',
      colour: '#587a4a',
      weight: 216,
      thickness: 0.28,
      usual: 1.2,
      changed: true,
      ...follows,
    },
  ]
  const asked = answering((a) => {
    const sent = a.body as MeasuredStock
    if (a.method === 'GET') return { json: list }
    if (sent?.name === '')
      return { status: 422, json: { type: 'urn:sectilis:refused', detail: 'A stock has a name of up to 60 letters.' } }
    if (a.method === 'POST') {
      const made = { ...sent, id: 'own-1', own: true, usual: 1.2, ...follows }
      list = [...list, made]
      return { status: 201, json: made }
    }
    if (a.method === 'PUT') list = list.map((s) => (a.path.endsWith('/' + s.id) ? { ...s, ...sent } : s))
    return { status: 204 }
  })
  return asked
}

test('what follows from a stock is not sent back with it', async () => {
  const asked = shelf()
  const stocks = useStocks()
  await stocks.open('moss')
  assert.equal(stocks.stock?.name, 'Moss')
  await stocks.change({ thickness: 0.3 })
  const put = asked.find((a) => a.method === 'PUT')!
  assert.equal(put.path, '/api/stocks/moss')
  assert.deepEqual(put.body, { id: 'moss', name: 'Moss', colour: '#587a4a', weight: 216, thickness: 0.3 })
  assert.equal(stocks.stock?.thickness, 0.3)
})

test('changes that follow each other are each built on the one before', async () => {
  const asked = shelf()
  const stocks = useStocks()
  await stocks.open('moss')
  void stocks.change({ thickness: 0.3 })
  await stocks.change({ price: 1.5 })
  const last = asked.filter((a) => a.method === 'PUT').at(-1)!.body as MeasuredStock
  assert.equal(last.thickness, 0.3)
  assert.equal(last.price, 1.5)
})

test('one that is added is like the one that was looked at, and is looked at then', async () => {
  shelf()
  const stocks = useStocks()
  await stocks.open()
  assert.equal(stocks.chosen, 'cream', 'the first, until one is chosen')
  await stocks.add()
  assert.equal(stocks.chosen, 'own-1')
  assert.equal(stocks.stock?.colour, '#fff6e0')
  assert.equal(stocks.all.length, 3)
})

test('what is refused is told, and forgotten with the next change', async () => {
  shelf()
  const stocks = useStocks()
  await stocks.open('cream')
  await stocks.change({ name: '' })
  assert.match(stocks.wrong, /up to 60 letters/)
  assert.equal(stocks.stock?.name, 'Cream')
  await stocks.change({ name: 'Ivory' })
  await settled()
  assert.equal(stocks.wrong, '')
  assert.equal(stocks.stock?.name, 'Ivory')
})
