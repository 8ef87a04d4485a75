import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

/** The studio. The meeting and the driver have their own, in scripts/build.mjs. */
export default defineConfig({
  root: 'app',
  plugins: [vue(), tailwindcss()],
  build: {
    outDir: '../dist/app',
    emptyOutDir: true,
    target: 'chrome120',
    chunkSizeWarningLimit: 1200,
    assetsInlineLimit: 0,
    // The studio, the clean window of its feed, and the window of notes.
    rolldownOptions: {
      input: ['app/index.html', 'app/output/index.html', 'app/notes/index.html'],
      // What every page needs of others' code changes seldom: it stays in the browser's cache when the studio is renewed.
      output: {
        codeSplitting: {
          groups: [
            { name: 'vue', test: /node_modules[\\/](@vue|vue|vue-router|vue-i18n|@intlify|pinia)[\\/]/ },
            { name: 'zod', test: /node_modules[\\/]zod[\\/]/ },
          ],
        },
      },
    },
  },
  worker: { format: 'es' },
})
