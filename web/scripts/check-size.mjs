// The first load of scripts stays under 365 kB compressed.
import { readdir, readFile } from 'node:fs/promises'
import { gzipSync } from 'node:zlib'

const LIMIT = 365_000
const dist = new URL('../dist/assets/', import.meta.url)
/** Chunks that come when a person goes to a station, works on a photo, or looks at a folded card. */
const later = /^(three|(Base|Check|Sheets|Machine|Assembly)Station|PhotoRoom)-/
let sum = 0
for (const name of await readdir(dist)) {
  if (name.endsWith('.js') && !later.test(name)) sum += gzipSync(await readFile(new URL(name, dist))).length
}
if (sum > LIMIT) {
  console.error(`Scripts are ${sum} bytes compressed; the limit is ${LIMIT}.`)
  process.exit(1)
}
