import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'
import pluginVue from 'eslint-plugin-vue'

export default defineConfigWithVueTs(
  { ignores: ['dist/**', 'src/api/schema.d.ts'] },
  pluginVue.configs['flat/recommended'],
  vueTsConfigs.strict,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      // Layout is the editor's; these rules would fight over line breaks.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      // A feature is met through its index.ts; inside itself it imports by relative path.
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: ['@/features/*/*'], message: "Import a feature through its index.ts." }] },
      ],
    },
  },
  {
    // Unit tests look inside a feature.
    files: ['tests/**'],
    rules: { 'no-restricted-imports': 'off' },
  },
  {
    files: ['src/shared/**', 'src/api/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: ['@/features/*', '@/app/*'], message: 'shared and api know no feature.' }] },
      ],
    },
  },
)
