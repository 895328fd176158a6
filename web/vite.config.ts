import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

/** What stands on lines of its own in a template is still parted by a space on the page, as in any HTML; one space, not an indent. */
const TEXT = 2
function oneSpace(node: { type: number; content?: unknown }): void {
  if (node.type === TEXT && typeof node.content === 'string') node.content = node.content.replace(/\s+/g, ' ')
}

const MOCKED = 'src/**/*.mocked.spec.ts'

export default defineConfig({
  plugins: [vue({ template: { compilerOptions: { whitespace: 'preserve', nodeTransforms: [oneSpace] } } })],
  base: '/static/',
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  // Fonts as files, not as data: the content security policy allows only our own.
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
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
