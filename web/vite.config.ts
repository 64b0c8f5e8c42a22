import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

/** Shared memory, by which workers are told to stop, needs a page that is isolated from other origins. */
const isolation = { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' }

export default defineConfig({
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  // What a browser keeps of figures is of one build: models may have changed with the next.
  define: { __BUILD__: JSON.stringify(new Date().toISOString()) },
  resolve: {
    alias: Object.fromEntries(
      // What packages ask for only outside a browser.
      ['fs', 'node:module'].map((name) => [name, fileURLToPath(new URL('predictions/noFiles.ts', import.meta.url))]),
    ),
  },
  // Small fonts are files as well: the page lets none be written into its styles.
  build: { outDir: '../dist/web', emptyOutDir: true, target: 'es2023', sourcemap: true, chunkSizeWarningLimit: 1500, assetsInlineLimit: 0 },
  server: {
    headers: isolation,
    // The application must be running (npm start); its host check wants its own name.
    proxy: { '/api': { target: 'http://localhost:4820', changeOrigin: true, headers: { origin: 'http://localhost:4820' } } },
  },
})
