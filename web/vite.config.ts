import vue from '@vitejs/plugin-vue'
import { createHash } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/** What stands on lines of its own in a template is still parted by a space on the page, as in any HTML; one space, not an indent. */
const TEXT = 2
function oneSpace(node: { type: number; content?: unknown }): void {
  if (node.type === TEXT && typeof node.content === 'string') node.content = node.content.replace(/\s+/g, ' ')
}

const WORKER = 'worker.js'
/** Older browsers' form of the fonts: none that can keep files on a device needs it. */
const NOT_KEPT = /\.woff$/

const PACKED = /\.(js|css|svg|json)$/

/** The worker that keeps the product's files on a device is told which they are. */
const namesItsFiles: Plugin = {
  name: 'names-its-files',
  apply: 'build',
  generateBundle: {
    order: 'post', // when nothing is left out any more
    handler(_options, bundle) {
      const worker = bundle[WORKER]
      if (worker?.type !== 'chunk') throw new Error(`no ${WORKER}`)
      const files = Object.keys(bundle).filter((name) => name.startsWith('assets/') && !NOT_KEPT.test(name))
      const build = createHash('sha256').update(files.join()).digest('hex')
      const built = { files: files.map((name) => `/static/${name}`), build }
      worker.code = `const BUILT=${JSON.stringify(built)};\n${worker.code}`
    },
  },
}

/** Scripts and styles lie packed beside themselves, and go out so to whoever can unpack them: a phone in the yard waits for each byte. */
const packsItsFiles: Plugin = {
  name: 'packs-its-files',
  apply: 'build',
  writeBundle({ dir }, bundle) {
    for (const name of Object.keys(bundle).filter((one) => PACKED.test(one))) {
      const file = `${dir}/${name}`
      const content = readFileSync(file)
      writeFileSync(`${file}.gz`, gzipSync(content, { level: 9 }))
      writeFileSync(`${file}.br`, brotliCompressSync(content))
    }
  },
}

const MOCKED = 'src/**/*.mocked.spec.ts'

export default defineConfig({
  plugins: [vue({ template: { compilerOptions: { whitespace: 'preserve', nodeTransforms: [oneSpace] } } }), namesItsFiles, packsItsFiles],
  base: '/static/',
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  // Fonts as files, not as data: the content security policy allows only our own.
  build: {
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
    rollupOptions: {
      input: { index: 'index.html', worker: 'src/offline/worker.ts' },
      output: { entryFileNames: ({ name }) => (name === 'worker' ? WORKER : 'assets/[name]-[hash].js') },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  test: {
    environment: 'jsdom',
    // Most of the time goes into windows: one for each worker will do, but where modules are replaced.
    projects: [
      { extends: true, test: { name: 'plain', include: ['src/**/*.spec.ts'], exclude: [MOCKED], isolate: false } },
      { extends: true, test: { name: 'mocked', include: [MOCKED] } },
    ],
  },
})
