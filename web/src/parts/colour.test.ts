import assert from 'node:assert/strict'
import { test } from 'node:test'
import { isPale, luminance } from './colour'

test('luminance is that of the standard', () => {
  assert.equal(luminance('#000000'), 0)
  assert.ok(Math.abs(luminance('#ffffff') - 1) < 1e-9)
  assert.ok(Math.abs(luminance('#808080') - 0.2158605) < 1e-6)
  assert.ok(luminance('#00ff00') > luminance('#ff0000'))
})

test('what is hardly seen on light paper is pale', () => {
  for (const c of ['#ffffff', '#fff6e0', '#fffdf6']) assert.ok(isPale(c), c)
  for (const c of ['#a8432a', '#e2a42b', '#cdd8ba']) assert.ok(!isPale(c), c)
})
