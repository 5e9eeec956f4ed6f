// Fields that are being read, which may take an answer of the program: what acts on their
// values waits for them.
const now = new Set<Promise<void>>()

/** Notes a field that is being read. */
export async function reading(field: Promise<void>) {
  now.add(field)
  await field
  now.delete(field)
}

/** Resolves once all fields are read. */
export const settled = () => Promise.all(now)
