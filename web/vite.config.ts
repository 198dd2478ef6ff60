import vue from '@vitejs/plugin-vue'
import subsetFont from 'subset-font'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'
import { compression } from 'vite-plugin-compression2'
import vuetify from 'vite-plugin-vuetify'

/** What the program's faces have to show: Latin letters with their marks, and the signs of the trade. */
const LETTERS =
  String.fromCharCode(...Array.from({ length: 95 }, (_, i) => 32 + i)) +
  'àáâäåæçèéêëìíîïñòóôöøùúûüßÀÄÅÆÇÉÈÑÖØÜ'
const SIGNS = '′″–—…’‘“”·×÷°±½¼¾µ²³•≤≥−'

/** Fonts with the letters above only: a third of their weight is never shown. */
const fonts = (): Plugin => ({
  name: 'level-run-fonts',
  apply: 'build',
  async generateBundle(_, bundle) {
    for (const file of Object.values(bundle)) {
      if (file.type !== 'asset' || !file.fileName.endsWith('.woff2')) continue
      const shown = file.fileName.includes('source-sans') ? '′' : LETTERS + SIGNS
      file.source = await subsetFont(Buffer.from(file.source), shown, { targetFormat: 'woff2' })
    }
  },
})

export default defineConfig({
  plugins: [
    vue(),
    fonts(),
    vuetify({ autoImport: true }),
    compression({ algorithms: ['gzip'], include: /\.(js|css|svg)$/, threshold: 1000 }),
  ],
  build: { outDir: '../levelrun/web_dist', emptyOutDir: true, chunkSizeWarningLimit: 600 },
  server: { proxy: { '/api': 'http://127.0.0.1:8765' } },
  test: {
    environment: 'happy-dom',
    include: ['tests/**/*.test.ts'],
    server: { deps: { inline: ['vuetify'] } },
  },
})
