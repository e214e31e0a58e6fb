import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [vue()],
  base: '/build/',
  publicDir: false,
  resolve: { alias: { '@': fileURLToPath(new URL('./ui', import.meta.url)) } },
  build: {
    outDir: 'public/build',
    manifest: 'manifest.json',
    emptyOutDir: true,
    // Fonts stay files: the content policy lets none in from a data address.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1500,
    rollupOptions: { input: 'ui/main.ts' },
  },
})
