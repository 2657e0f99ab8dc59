import js from '@eslint/js';
import vue from 'eslint-plugin-vue';
import typescript from 'typescript-eslint';

export default typescript.config(
  { ignores: ['dist/', '.cache/', 'test-results/', 'node_modules/'] },
  js.configs.recommended,
  ...typescript.configs.strictTypeChecked,
  ...vue.configs['flat/recommended'],
  {
    languageOptions: { parserOptions: { parser: typescript.parser, project: './tsconfig.json', extraFileExtensions: ['.vue'] } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      // There are no enums here, and looking for their misuse takes longer than all the rest.
      'no-restricted-syntax': ['error', { selector: 'TSEnumDeclaration', message: 'Say a union of words instead.' }],
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      // Layout is prettier's.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
    },
  },
  // Types in .vue files are vue-tsc's: eslint's program would be made anew for each of them, which took half of all its time.
  { files: ['**/*.vue'], ...typescript.configs.disableTypeChecked },
  { files: ['**/*.vue'], rules: { 'no-undef': 'off' } },
  // What a .vue file exports is known to vue-tsc, not to eslint's program.
  {
    files: ['app/**'],
    rules: { '@typescript-eslint/no-unsafe-assignment': 'off', '@typescript-eslint/no-unsafe-argument': 'off' },
  },
  // Tests patch the browser's own methods.
  { files: ['e2e/**', '**/*.test.ts'], rules: { '@typescript-eslint/unbound-method': 'off' } },
  {
    files: ['**/*.mjs'],
    ...typescript.configs.disableTypeChecked,
    languageOptions: {
      ...typescript.configs.disableTypeChecked.languageOptions,
      globals: {
        console: 'readonly',
        process: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        performance: 'readonly',
        document: 'readonly',
      },
    },
  },
);
