import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', 'test-results/**', 'playwright-report/**'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    rules: {
      // Reading typed arrays by an index that is in range by construction.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'no-console': ['error', { allow: ['error', 'warn', 'info'] }],
      eqeqeq: 'error',
    },
  },
  { files: ['**/*.mjs', '*.config.js', 'ops/*.cjs'], languageOptions: { globals: globals.node } },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'warn' },
  },
  { files: ['bench/**', 'ops/**', 'cli/**'], rules: { 'no-console': 'off' } },
  { files: ['*/src/**/*.{ts,tsx}', 'ops/*.ts'], rules: { 'max-params': ['error', 4] } },
  {
    // Arithmetic on coordinates, called for every corner of every mesh: figures one by one, without an object for each call.
    files: [
      'core/src/mesh/{arrangement,box,builder,face,orient,retriangulate}.ts',
      'core/src/reveal/{corners,ears}.ts',
      'core/src/profile/{free,panels}.ts',
      'core/src/model/planes-under.ts',
      'core/src/texture/paint.ts',
    ],
    rules: { 'max-params': 'off' },
  },
);
