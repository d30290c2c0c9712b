import vue from 'eslint-plugin-vue'
import typescript from 'typescript-eslint'

export default [
  { ignores: ['target/', 'node_modules/'] },
  ...typescript.configs.recommended,
  ...vue.configs['flat/essential'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: typescript.parser } } },
]
