import pluginVue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

export default [
  { ignores: ['src/api/schema.d.ts'] },
  ...tseslint.configs.recommended,
  ...pluginVue.configs['flat/essential'],
  { files: ['src/**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
]
