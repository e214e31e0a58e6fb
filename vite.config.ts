import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [vue()],
  base: '/build/',
  publicDir: false,
  resolve: { alias: { '@': fileURLToPath(new URL('./ui', import.meta.url)) } },
  // `./cartella dev`: what is not of the interface comes from the desk, so that a page has one origin, as it has later.
  server: {
    host: '127.0.0.1',
    port: Number(process.env.DEV_PORT ?? 8012),
    strictPort: true,
    proxy: { '^/(?!build/)': { target: `http://127.0.0.1:${process.env.WEB_PORT ?? 8010}` } },
  },
  build: {
    outDir: 'public/build',
    manifest: 'manifest.json',
    emptyOutDir: true,
    // Fonts stay files: the content policy lets none in from a data address.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1500,
    // The engine by itself as well, with its names: for the measuring of it and its tests.
    rollupOptions: {
      input: { main: 'ui/main.ts', engine: 'ui/player/engine/index.ts' },
      preserveEntrySignatures: 'exports-only',
    },
  },
})
