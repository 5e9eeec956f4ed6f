// The interface writes measures as Go does: both are held to one table.
import assert from 'node:assert/strict'
import { readFile } from 'node:fs/promises'
import ts from 'typescript'

const source = await readFile(new URL('../src/parts/measure.ts', import.meta.url), 'utf8')
const { outputText } = ts.transpileModule(source, {
  compilerOptions: { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2022 },
})
const { format, ago } = await import('data:text/javascript,' + encodeURIComponent(outputText))
const table = JSON.parse(await readFile(new URL('../../core/measure/testdata/format.json', import.meta.url), 'utf8'))
for (const { mm, unit, text } of table) assert.equal(format(mm, unit), text, `${mm} ${unit}`)

const now = new Date(2026, 5, 15, 9, 0).getTime()
const before = (ms) => ago(new Date(now - ms).toISOString(), now)
assert.equal(before(5e3), 'just now')
assert.equal(before(60e3 * 5), '5 minutes ago')
assert.equal(before(3600e3 * 3), 'today')
assert.equal(before(3600e3 * 12), 'yesterday')
assert.equal(before(86400e3 * 3), '3 days ago')
assert.equal(before(86400e3 * 30), '16 May')
