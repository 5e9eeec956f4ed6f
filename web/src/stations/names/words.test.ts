import assert from 'node:assert/strict'
import { test } from 'node:test'
import { parts, stretch, told } from './words'

test('words are cut into what can be pointed at', () => {
  const fields = [
    { from: 5, to: 9, column: 'Name' },
    { from: 9, to: 9, column: 'Guest', before: ' and ' },
  ]
  const text = 'Dear Noor,\ncome – 😀 x'
  const cut = parts({ text, fields })
  assert.deepEqual(
    cut.map((p) => [p.kind, p.text]),
    [
      ['word', 'Dear'],
      ['gap', ' '],
      ['field', 'Noor'],
      ['field', ''],
      ['gap', ','],
      ['line', '\n'],
      ['word', 'come'],
      ['gap', ' – 😀 '],
      ['word', 'x'],
    ],
  )
  let at = 0
  for (const p of cut) {
    assert.equal(p.from, at, 'every character is in one part, in order')
    at = p.to
  }
  assert.equal(at, Array.from(text).length)
  assert.deepEqual(
    fields.map((f) => told(f)),
    ['Name', 'and Guest, if any'],
  )
})

test('a word stands for all of what the list says about it', () => {
  const text = 'Dear Odalys\nFernsby of plot 14'
  const values = ['Odalys Fernsby', 'plot 14', '14', '']
  assert.deepEqual(stretch(text, { from: 12, to: 19 }, values), [5, 19])
  assert.deepEqual(stretch(text, { from: 5, to: 11 }, values), [5, 19])
  assert.deepEqual(stretch(text, { from: 28, to: 30 }, values), [23, 30])
  assert.deepEqual(stretch(text, { from: 0, to: 4 }, values), [0, 4])
})
