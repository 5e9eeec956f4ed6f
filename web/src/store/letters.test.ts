import assert from 'node:assert/strict'
import { beforeEach, test } from 'node:test'
import type { Command } from '../api/types'
import { answering, freshStores, settled } from '../testing/answers'
import { useCard } from './card'
import { useLetters } from './letters'

/** A card with the words “one TWO”, whose second word has an ink of its own. */
async function words() {
  const doc = {
    id: 'i1',
    name: 'Words',
    kind: 'lettering',
    words: { text: 'one TWO', font: 'nunito-400', runs: [{ from: 4, to: 7, colour: '#a8432a' }] },
  }
  const view = {
    id: 'c1',
    revision: 1,
    findings: [],
    card: { faces: [{ id: 'front', items: [doc] }] },
    scene: { net: { faces: [] }, faces: [{ id: 'front', items: [{ id: 'i1', name: 'Words', kind: 'lettering' }] }] },
  }
  const sent: Command[][] = []
  answering((a) => {
    if (a.path === '/api/cards/c1') return { json: view }
    if (a.path === '/api/cards/c1/changes') {
      sent.push((a.body as { commands: Command[] }).commands)
      return { json: { ...view, revision: 1 + sent.length } }
    }
    return { status: 500 }
  })
  await useCard().open('c1')
  return { letters: useLetters(), sent }
}
beforeEach(freshStores)

test('what was typed is kept by one command, and nothing by none', async () => {
  const { letters } = await words()
  assert.deepEqual(letters.commands, [])
  letters.begin('i1', 'one TWO')
  assert.deepEqual(letters.commands, [])
  letters.text = 'one TWO more'
  assert.deepEqual(letters.commands, [{ do: 'setText', id: 'i1', text: 'one TWO more' }])
  letters.text = '   '
  assert.deepEqual(letters.commands, [], 'words are never empty')
  letters.text = 'other'
  letters.end()
  assert.deepEqual(letters.commands, [])
})

test('the style of the first chosen letter is told', async () => {
  const { letters } = await words()
  letters.begin('i1', 'one TWO')
  assert.equal(letters.chosen, false)
  letters.choose(6, 4)
  assert.deepEqual([letters.from, letters.to, letters.chosen], [4, 6, true])
  assert.equal(letters.style.colour, '#a8432a')
  letters.choose(0, 3)
  assert.equal(letters.style.colour, undefined)
})

test('a style goes to the chosen letters, after what was typed, and else to all', async () => {
  const { letters, sent } = await words()
  letters.begin('i1', 'one TWO')
  letters.text = 'one TWO!'
  letters.choose(4, 8)
  letters.restyle('i1', { stand: 'raised' })
  await settled()
  assert.deepEqual(sent[0], [
    { do: 'setText', id: 'i1', text: 'one TWO!' },
    { do: 'styleLetters', id: 'i1', from: 4, to: 8, stand: 'raised' },
  ])
  letters.end()
  letters.restyle('i1', { scale: 2 })
  await settled()
  assert.deepEqual(sent[1], [{ do: 'styleLetters', id: 'i1', from: 0, to: 7, scale: 2 }])
})
