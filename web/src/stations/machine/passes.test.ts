import assert from 'node:assert/strict'
import { test } from 'node:test'
import { passViews } from './passes'

const passes = [
  {
    name: 'Score',
    tool: 2,
    lines: ['M0 0L1 1'],
    length: 100,
    seconds: 2,
    speed: 60,
    force: 60,
    between: 20,
    travel: 150,
    moves: '',
  },
  {
    name: 'Outlines',
    tool: 3,
    lines: ['M0 0', 'M1 1'],
    length: 300,
    seconds: 98,
    speed: 60,
    force: 110,
    between: 20,
    travel: 150,
    moves: '',
  },
]

test('progress is shared out by the time of the passes', () => {
  const shares = (p: number) => passViews(passes, p).map((v) => v.share)
  assert.deepEqual(shares(0), [0, 0])
  assert.deepEqual(shares(0.01), [0.5, 0])
  assert.deepEqual(shares(0.02), [1, 0])
  assert.deepEqual(shares(1), [1, 1])
})

test('passes say what they are', () => {
  const [score, outlines] = passViews(passes, 0)
  assert.equal(score?.what, '1 line · scoring tip')
  assert.equal(outlines?.what, '2 paths · blade')
  assert.equal(outlines?.time, '1:38')
  assert.equal(score?.weight, 4, 'a short pass is still to be seen')
  assert.deepEqual(passViews([], 0.5), [])
})
