import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import { compression } from 'vite-plugin-compression2'
import vuetify from 'vite-plugin-vuetify'

export default defineConfig({
  plugins: [
    vue(),
    vuetify({ autoImport: true }),
    compression({ algorithms: ['gzip'], include: /\.(js|css|svg)$/, threshold: 1000 }),
  ],
  build: { outDir: '../levelrun/web_dist', emptyOutDir: true, chunkSizeWarningLimit: 600 },
  server: { proxy: { '/api': 'http://127.0.0.1:8765' } },
  test: { environment: 'happy-dom', include: ['tests/**/*.test.ts'], server: { deps: { inline: ['vuetify'] } } },
})
