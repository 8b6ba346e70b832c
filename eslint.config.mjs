import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

export default tseslint.config(
  {
    ignores: ['**/dist/**', '**/node_modules/**', 'reports/**', 'test-results/**', '.dependency-cruiser.cjs'],
  },
  {
    files: ['**/*.{ts,tsx}'],
    extends: [tseslint.configs.strictTypeChecked],
    languageOptions: {
      parserOptions: {
        // One program for all rooms: five of them took half as long again.
        project: ['tsconfig.lint.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      // Numbers in sentences are the point of this program.
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      // A field is left out of an object by naming it with an underscore.
      '@typescript-eslint/no-unused-vars': [
        'error',
        { ignoreRestSiblings: true, varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      'no-console': 'error',
      'no-restricted-imports': [
        'error',
        { paths: [{ name: 'zod', message: 'Import z from core/quantity/schema, where it is set up.' }] },
      ],
    },
  },
  { files: ['app/src/**/*.{ts,tsx}'], ...hooks.configs.flat['recommended-latest'] },
  { files: ['core/src/quantity/schema.ts'], rules: { 'no-restricted-imports': 'off' } },
  {
    files: ['gateway/src/**', 'standins/src/busProbe/main.ts', 'bench/**', 'scripts/**', 'e2e/**'],
    rules: { 'no-console': 'off' },
  },
);
