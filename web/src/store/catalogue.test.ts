import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import { answering, freshStores, said, settled } from '../testing/answers'
import { useCatalogue } from './catalogue'

/** An upload under way, to be ended by the test. */
class Upload {
  static all: Upload[] = []
  status = 0
  statusText = ''
  responseText = ''
  upload: { onprogress?: (e: unknown) => void } = {}
  onload?: () => void
  onerror?: () => void
  onabort?: () => void
  name = ''
  open() {}
  send(form: FormData) {
    this.name = (form.get('file') as File).name
    Upload.all.push(this)
  }
  abort() {
    this.onabort?.()
  }
  async ends(status: number, answer: unknown) {
    this.status = status
    this.responseText = JSON.stringify(answer)
    this.onload?.()
    await settled()
  }
}
globalThis.XMLHttpRequest = Upload as unknown as typeof XMLHttpRequest

const files = (...names: string[]) => names.map((n) => new File([n], n))
const at = (i: number) => Upload.all[i] ?? assert.fail(`no upload ${i}`)
const names = () => Upload.all.map((u) => u.name)

beforeEach(() => {
  freshStores()
  Upload.all = []
})

test('files are brought in two at a time, each with its progress', async () => {
  const c = useCatalogue()
  const done = c.bring(files('a.jpg', 'b.jpg', 'c.jpg'))
  await settled()
  assert.deepEqual(names(), ['a.jpg', 'b.jpg'])
  at(0).upload.onprogress?.({ lengthComputable: true, loaded: 3, total: 4 })
  assert.deepEqual(
    c.incoming.map((r) => r.share),
    [0.75, 0, 0],
  )
  await at(1).ends(201, { id: 'B', name: 'b' })
  assert.deepEqual(names(), ['a.jpg', 'b.jpg', 'c.jpg'])
  await at(2).ends(201, { id: 'C', name: 'c' })
  await at(0).ends(201, { id: 'A', name: 'a' })
  assert.deepEqual(
    (await done).map((p) => p.id),
    ['B', 'C', 'A'],
  )
  assert.deepEqual(
    c.pictures.map((p) => p.id),
    ['A', 'C', 'B'],
    'the newest first',
  )
  assert.equal(c.incoming.length, 0)
})

test('one that fails says why and leaves the others alone', async () => {
  const c = useCatalogue()
  const done = c.bring(files('notes.txt', 'b.jpg'))
  await settled()
  await at(0).ends(422, { type: 'urn:sectilis:refused', detail: 'notes.txt is no picture.' })
  await at(1).ends(201, { id: 'B', name: 'b' })
  assert.equal((await done).length, 1)
  assert.deepEqual(
    c.incoming.map((r) => [r.name, r.why]),
    [['notes.txt', 'notes.txt is no picture.']],
  )
  c.dismiss(c.incoming[0]!.key)
  assert.equal(c.incoming.length, 0)
})

test('one that is dismissed is stopped, under way or waiting', async () => {
  const c = useCatalogue()
  const done = c.bring(files('a.jpg', 'b.jpg', 'c.jpg'))
  await settled()
  c.dismiss(c.incoming[2]!.key)
  c.dismiss(c.incoming[0]!.key)
  await settled()
  await at(1).ends(201, { id: 'B', name: 'b' })
  assert.deepEqual(
    (await done).map((p) => p.id),
    ['B'],
  )
  assert.deepEqual(names(), ['a.jpg', 'b.jpg'], 'what waited was never sent')
})

test('the same picture again is in the tray once', async () => {
  const c = useCatalogue()
  for (const name of ['a.jpg', 'copy of a.jpg']) {
    const done = c.bring(files(name))
    await settled()
    await Upload.all.at(-1)!.ends(201, { id: 'A', name: 'a' })
    await done
  }
  assert.equal(c.pictures.length, 1)
  assert.deepEqual(said, ['copy of a.jpg is in the tray already.'])
})

test('what is noted of a supply is kept only if the program took it', async () => {
  let refuse = false
  const asked = answering(() =>
    refuse ? { status: 422, json: { type: 'urn:sectilis:refused', detail: 'Up to 40 letters.' } } : { status: 204 },
  )
  const c = useCatalogue()
  await c.note({ kind: 'paper', id: 'oat stripe', favourite: true })
  assert.equal(asked[0]?.path, '/api/supplies/paper/oat%20stripe')
  assert.equal(c.noted('paper', 'oat stripe').favourite, true)
  assert.deepEqual(c.noted('photo', 'x'), { kind: 'photo', id: 'x' })
  refuse = true
  await assert.rejects(c.note({ kind: 'paper', id: 'oat stripe', favourite: false }), /Up to 40/)
  assert.equal(c.noted('paper', 'oat stripe').favourite, true)
})

test('favourites come first, then what was used last', () => {
  answering(() => ({ json: {} }))
  const c = useCatalogue()
  const list = ['a', 'b', 'c', 'd'].map((id) => ({ id }))
  const order = () => c.lately('paper', list).map((s) => s.id)
  assert.deepEqual(order(), ['a', 'b', 'c', 'd'])
  c.notes = new Map([
    ['paper b', { kind: 'paper', id: 'b', used: '2026-11-02T10:00:00Z' }],
    ['paper c', { kind: 'paper', id: 'c', used: '2026-11-03T10:00:00Z' }],
    ['paper d', { kind: 'paper', id: 'd', favourite: true }],
    ['photo a', { kind: 'photo', id: 'a', used: '2026-11-09T10:00:00Z' }],
  ])
  assert.deepEqual(order(), ['d', 'c', 'b', 'a'])
  const before = c.notes
  c.used('paper', 'a')
  assert.deepEqual(order(), ['d', 'a', 'c', 'b'])
  assert.deepEqual(
    c.lately('paper', list, before).map((s) => s.id),
    ['d', 'c', 'b', 'a'],
    'as it was noted then',
  )
})

test('drawings are known by the endings of the formats that are read', () => {
  const c = useCatalogue()
  assert.equal(c.isDrawing('a.svg'), false, 'before the catalogue is there')
  c.all = {
    ...c.all,
    formats: [
      { id: 'svg', name: 'SVG', extensions: ['.svg'], mime: 'image/svg+xml' },
      { id: 'hpgl', name: 'HP-GL', extensions: ['.hpgl', '.plt'], mime: 'application/vnd.hp-hpgl' },
    ],
  }
  assert.ok(c.isDrawing('Leaf.SVG') && c.isDrawing('x.plt'))
  assert.ok(!c.isDrawing('svg') && !c.isDrawing('a.svg.png'))
  assert.equal(c.drawingFiles, '.svg,image/svg+xml,.hpgl,.plt,application/vnd.hp-hpgl')
})
