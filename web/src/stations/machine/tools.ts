// The tools of a cutter by the number of their holder, as people call them.
const tools: Record<number, string> = { 1: 'pen', 2: 'scoring tip', 3: 'blade', 4: 'light blade' }

export const toolName = (n: number | undefined) => (n ? (tools[n] ?? `tool ${n}`) : '')
