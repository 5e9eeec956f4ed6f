// The first load of scripts stays under 400 kB compressed.
import { readdir, readFile } from 'node:fs/promises'
import { gzipSync } from 'node:zlib'

const LIMIT = 400_000
const dist = new URL('../dist/assets/', import.meta.url)
let sum = 0
// Every chunk counts, but for those that are named as loaded later on.
for (const name of await readdir(dist)) {
  if (name.endsWith('.js') && !name.startsWith('three-')) sum += gzipSync(await readFile(new URL(name, dist))).length
}
if (sum > LIMIT) {
  console.error(`Scripts are ${sum} bytes compressed; the limit is ${LIMIT}.`)
  process.exit(1)
}
