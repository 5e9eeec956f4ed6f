// Builds every src/**/*.test.ts for Node and runs them with its own test runner.
import { spawnSync } from 'node:child_process'
import { readdir, rm } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { build } from 'vite'
import vue from '@vitejs/plugin-vue'

const root = fileURLToPath(new URL('..', import.meta.url))
const out = fileURLToPath(new URL('../node_modules/.tests', import.meta.url))
const tests = (await readdir(root + 'src', { recursive: true })).filter((f) => f.endsWith('.test.ts'))
await rm(out, { recursive: true, force: true })
await build({
  root,
  configFile: false,
  logLevel: 'error',
  plugins: [vue()],
  build: {
    ssr: true,
    outDir: out,
    copyPublicDir: false,
    rolldownOptions: { input: tests.map((f) => root + 'src/' + f) },
  },
})
const files = (await readdir(out)).filter((f) => f.endsWith('.test.js')).map((f) => `${out}/${f}`)
const { status } = spawnSync(process.execPath, ['--test', '--test-reporter=dot', ...files], { stdio: 'inherit' })
process.exit(status ?? 1)
