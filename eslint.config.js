// @ts-check
import next from '@next/eslint-plugin-next';
import hooks from 'eslint-plugin-react-hooks';
import { defineConfig } from 'eslint/config';
import tseslint from 'typescript-eslint';

export default defineConfig(
  { ignores: ['**/node_modules/', '**/.next/', '.barys/', '**/next-env.d.ts'] },
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [tseslint.configs.strictTypeChecked],
    languageOptions: { parserOptions: { project: ['./tsconfig.json', './apps/web/tsconfig.json'] } },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      // Numbers and dates read well in templates; objects there are caught.
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true },
      ],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/no-invalid-void-type': ['error', { allowAsThisParameter: true }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    extends: [hooks.configs.flat['recommended-latest'], next.configs['core-web-vitals']],
    settings: { next: { rootDir: 'apps/web' } },
  },
  {
    files: ['packages/store/src/**', 'apps/web/**'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-console': 'error' },
  },
  {
    // A matcher that is named and not called checks nothing.
    files: ['**/*.test.ts', 'e2e/**/*.ts'],
    rules: { '@typescript-eslint/no-unused-expressions': 'error', 'no-empty-pattern': 'off' },
  },
);
