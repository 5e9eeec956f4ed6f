// Writes src/api/types.ts from docs/api.schema.json, which the program prints.
import { readFile, writeFile } from 'node:fs/promises'
import { compile } from 'json-schema-to-typescript'

const schema = JSON.parse(await readFile(new URL('../../docs/api.schema.json', import.meta.url), 'utf8'))
const text = await compile(schema, 'API', {
  bannerComment: '// Made from docs/api.schema.json by “make types”. Not to be changed by hand.',
  unreachableDefinitions: true,
  additionalProperties: false,
  ignoreMinAndMaxItems: false,
  style: { semi: false, singleQuote: true, printWidth: 120 },
})
const tidy = text
  .replace(/\/\*\*\n \* This interface was referenced by[^]*?\*\/\n/g, '')
  .replace(/ {3}\* @minItems 6\n {3}\* @maxItems 6\n/g, '   * the six numbers of SVG’s matrix()\n')
await writeFile(new URL('../src/api/types.ts', import.meta.url), tidy)
