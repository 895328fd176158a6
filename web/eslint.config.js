import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['src/api/schema.d.ts'] },
  ts.configs.recommended,
  vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    rules: {
      // What fits at a sitting; a longer component keeps its style, its state or a part of itself in a file beside it.
      'max-lines': ['error', { max: 320, skipBlankLines: true }],
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/html-indent': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/attributes-order': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      // Controls come from one folder, so that what stands behind them can be changed there.
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: ['primevue/*', '!primevue/config'], message: 'Import it from @/design/controls.' }] },
      ],
    },
  },
  {
    files: ['src/**/*.spec.ts'],
    ignores: ['src/**/*.mocked.spec.ts'],
    rules: {
      'no-restricted-properties': ['error', { object: 'vi', property: 'mock', message: 'Call the file *.mocked.spec.ts.' }],
    },
  },
  {
    files: ['src/views/**'],
    ignores: ['src/views/gate/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "AwaitExpression > CallExpression[callee.object.name='router'][callee.property.name='push']",
          message: 'Whoever went elsewhere meanwhile is not moved: useOnward.',
        },
      ],
    },
  },
  { files: ['src/design/controls/*.ts'], rules: { 'no-restricted-imports': 'off' } },
)
