import angular from 'angular-eslint';
import prettier from 'eslint-config-prettier';
import tseslint from 'typescript-eslint';

const strictness = {
  '@typescript-eslint/no-unnecessary-type-assertion': 'error',
  '@typescript-eslint/no-explicit-any': 'error',
  '@typescript-eslint/no-non-null-assertion': 'error',
  '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
  '@typescript-eslint/consistent-type-imports': 'error',
  '@typescript-eslint/no-floating-promises': 'error',
  '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
  eqeqeq: 'error',
};

export default tseslint.config(
  { ignores: ['**/node_modules/', 'dist/', '.angular/', '.sombra/', 'test-results/', 'coverage/', '**/*.cjs'] },
  {
    files: ['{core,contract,server,demo,e2e,bench}/**/*.ts', 'playwright*.config.ts'],
    extends: [...tseslint.configs.recommended],
    languageOptions: { parserOptions: { project: './tsconfig.json', tsconfigRootDir: import.meta.dirname } },
    rules: strictness,
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'console', 'process', 'window', 'document', 'fetch', 'setTimeout', 'Intl'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Randomness is an argument.' },
        { object: 'Date', property: 'now', message: 'Time is an argument.' },
      ],
    },
  },
  {
    // Only repositories speak to the database.
    files: ['server/src/*/*.ts'],
    ignores: ['**/*repository.ts', '**/*.test.ts', 'server/src/platform/**', 'server/src/demo/big-town.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.name=/^(db|trx)$/]',
          message: 'A table is asked in a repository.',
        },
        {
          selector: 'CallExpression[callee.property.name=/^(raw|batchInsert)$/][callee.object.name=/^(db|trx)$/]',
          message: 'SQL stands in a repository.',
        },
      ],
    },
  },
  {
    // The bundler fetches an index that names anything itself with all it lists, for every page that asks it for one thing.
    files: ['core/src/**/index.ts', 'contract/src/index.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "ExportNamedDeclaration[exportKind='value']",
          message: 'An index lists whole files; single names go through named.ts beside it.',
        },
      ],
    },
  },
  {
    files: ['web/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    extends: [...tseslint.configs.recommended, ...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    languageOptions: { parserOptions: { project: './web/tsconfig.app.json', tsconfigRootDir: import.meta.dirname } },
    rules: {
      ...strictness,
      // Injected classes are values to Angular even where they are only named as types.
      '@typescript-eslint/consistent-type-imports': 'off',
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 's', style: 'kebab-case' }],
      // Class names say what a component is; the suffix would only repeat it.
      '@angular-eslint/component-class-suffix': 'off',
    },
  },
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: { '@angular-eslint/template/no-any': 'error' },
  },
  prettier,
);
