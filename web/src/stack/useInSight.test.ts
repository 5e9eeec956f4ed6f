import assert from 'node:assert/strict'
import { test } from 'node:test'
import { effectScope, ref } from 'vue'
import { ROW } from './layout'
import { useInSight } from './useInSight'

/** A port that shows ten rows of a list. */
function list(count: number) {
  const port = ref({ scrollTop: 0, clientHeight: 10 * ROW, addEventListener() {}, removeEventListener() {} })
  const sight = effectScope().run(() => useInSight(port as never, ref({}) as never, () => count))!
  return { port, sight }
}

test('a short list is there whole', () => {
  const { sight } = list(80)
  assert.ok(sight.has.value(0) && sight.has.value(79))
})

test('of a long list only the rows in sight, and some beside them, are there', () => {
  const { port, sight } = list(500)
  sight.look()
  assert.ok(sight.has.value(0) && sight.has.value(22) && !sight.has.value(23))
  port.value.scrollTop = 200 * ROW
  sight.look()
  assert.ok(!sight.has.value(187) && sight.has.value(188) && sight.has.value(222) && !sight.has.value(223))
})

test('a row is brought into sight, and what is in sight stays where it is', () => {
  const { port, sight } = list(500)
  const inSight = (row: number) =>
    row * ROW >= port.value.scrollTop && (row + 1) * ROW <= port.value.scrollTop + port.value.clientHeight
  sight.reveal(3)
  assert.equal(port.value.scrollTop, 0)
  for (const row of [300, 299, 10, 499, 0]) {
    sight.reveal(row)
    assert.ok(inSight(row), String(row))
    assert.ok(sight.has.value(row))
  }
  const still = port.value.scrollTop
  sight.reveal(-1)
  assert.equal(port.value.scrollTop, still, 'a row that is not there')
})
