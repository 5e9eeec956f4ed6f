import assert from 'node:assert/strict'
import { test } from 'node:test'
import table from '../../../core/ground/measure/testdata/format.json'
import { ago, format, formatArea, formatSize, formatTime, formatUnit, lead, type Unit } from './measure'

test('measures are written as Go writes them', () => {
  for (const { mm, unit, text } of table) assert.equal(format(mm, unit as Unit), text, `${mm} ${unit}`)
  assert.equal(formatSize(127, 177.8, 'in'), '5 × 7 in')
  assert.equal(formatArea(25.4 * 25.4 * 41.2, 'in'), '41 in²')
  assert.equal(formatArea(1234, 'mm'), '12 cm²')
})

test('small amounts read back as they were typed', () => {
  const said: [number, string][] = [
    [0.4, '1/64 in'],
    [0.3, '0.3 mm'],
    [0.8, '1/32 in'],
    [1, '1 mm'],
    [2, '5/64 in'],
    [3.175, '⅛ in'],
    [0, '0 in'],
    [-0.3, '-0.3 mm'],
    [5, '3/16 in'],
  ]
  for (const [mm, text] of said) assert.equal(formatUnit(mm, 'in'), text)
  assert.equal(formatUnit(0.4, 'mm'), '0.4 mm')
})

test('sentences lead with the unit that is chosen', () => {
  const said =
    '“A” is 13 × 1 in (330.2 × 25.4 mm) and 2 ½ in (63.5 mm) too large; it lies 0.3 mm off, ⅛ in (3.2 mm) deep.'
  assert.equal(lead(said, 'in'), said)
  assert.equal(
    lead(said, 'mm'),
    '“A” is 330.2 × 25.4 mm (13 × 1 in) and 63.5 mm (2 ½ in) too large; it lies 0.3 mm off, 3.2 mm (⅛ in) deep.',
  )
  assert.equal(lead('It ends 1 15/32 in (37.3 mm) from the edge.', 'mm'), 'It ends 37.3 mm (1 15/32 in) from the edge.')
  assert.equal(lead('No measure in (a bracket).', 'mm'), 'No measure in (a bracket).')
})

test('times are minutes and seconds', () => {
  assert.equal(formatTime(0), '0:00')
  assert.equal(formatTime(59.6), '1:00')
  assert.equal(formatTime(125), '2:05')
  assert.equal(formatTime(-3), '0:00')
})

test('how long ago is said in words', () => {
  const now = new Date(2026, 5, 15, 9, 0).getTime()
  const before = (ms: number) => ago(new Date(now - ms).toISOString(), now)
  assert.equal(before(5e3), 'just now')
  assert.equal(before(60e3), 'a minute ago')
  assert.equal(before(60e3 * 5), '5 minutes ago')
  assert.equal(before(3600e3 * 3), 'today')
  assert.equal(before(3600e3 * 12), 'yesterday')
  assert.equal(before(86400e3 * 3), '3 days ago')
  assert.equal(before(86400e3 * 30), '16 May')
})
