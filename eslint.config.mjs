import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const pureCore = ['Math.random', 'Date.now'].map((call) => {
  const [object, property] = call.split('.');
  return { object, property, message: 'core is pure: pass time and randomness in' };
});

export default tseslint.config(
  { ignores: ['.next*/**', '.data/**', 'node_modules/**', 'next-env.d.ts', 'public/**'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/no-non-null-assertion': 'off',
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    files: ['src/ui/**', 'src/app/**'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['src/core/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-properties': ['error', ...pureCore],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'performance'],
    },
  },
  {
    files: ['scripts/**', 'bench/**', '*.mjs', '*.cjs'],
    rules: { 'no-console': 'off', '@typescript-eslint/no-require-imports': 'off' },
  },
);
