import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import { compiledWords } from './words.ts'

export default defineConfig({
  plugins: [compiledWords()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: { include: ['tests/**/*.test.ts'], reporters: ['default'] },
})
