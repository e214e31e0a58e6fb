import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./ui', import.meta.url)) } },
  test: { include: ['ui/**/*.test.ts'], environment: 'node', reporters: ['dot'] },
})
