import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'
import vuetify from 'vite-plugin-vuetify'
import { compiledWords } from './words.ts'

export default defineConfig({
  plugins: [
    compiledWords(),
    vue(),
    vuetify({ autoImport: true }),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'worker.ts',
      manifest: false,
      injectRegister: false,
      registerType: 'prompt',
      injectManifest: { globPatterns: ['**/*.{js,css,html,woff2}'] },
    }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { target: 'es2022', modulePreload: { polyfill: false } },
  server: { proxy: { '/api': 'http://127.0.0.1:8470' } },
})
