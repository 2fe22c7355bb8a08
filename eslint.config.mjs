import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import prettier from 'eslint-config-prettier';
import tseslint from 'typescript-eslint';

const pureCore = ['Math.random', 'Date.now'].map((call) => {
  const [object, property] = call.split('.');
  return { object, property, message: 'core is pure: pass time and randomness in' };
});

const TESTS = ['**/*.test.ts', '**/*.test.tsx', '**/hookups/**', 'e2e/**'];

/** A sentence that tells somebody to change a rig. */
const ADVICE =
  '(^|[.;:] |, or )(use|put|take|turn|bring|select|set|choose|move|swap|exchange|connect|plug|pull|' +
  'leave|keep|shorten|wire|buffer|tell|start|go|play|hang|lift|add|give|send|let|make|lower|raise|' +
  'reverse|replace|bypass|feed|run|remove) (?!of )[a-z]';

// What needs types to be judged is in .oxlintrc.json, where it takes a seventh of the time.
/** Two are joined so and three are not: a list is said by allOf or anyOf of core/units. */
const LISTS = {
  selector: 'CallExpression[callee.property.name="join"][arguments.0.value=/^ (and|or) $/]',
  message: 'three of them read wrong: use allOf or anyOf of core/units',
};

export default tseslint.config(
  {
    ignores: [
      '.next*/**',
      '.data/**',
      'bin/**',
      'node_modules/**',
      'next-env.d.ts',
      'public/**',
      '.test-groups/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    files: ['src/ui/**', 'src/app/**'],
    plugins: { 'react-hooks': reactHooks, ...jsxA11y.flatConfigs.recommended.plugins },
    rules: {
      ...jsxA11y.flatConfigs.recommended.rules,
      // A field that a press brings up takes the focus; that is what the press was for.
      'jsx-a11y/no-autofocus': ['error', { ignoreNonDOM: true }],
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
    },
  },
  {
    files: ['src/ui/**', 'src/app/**'],
    ignores: TESTS,
    rules: {
      // The compiler of components reads what a function reads as soon as it is drawn: what may not be there yet
      // is asked for, not asserted.
      '@typescript-eslint/no-non-null-assertion': 'error',
    },
  },
  {
    files: ['src/ui/**'],
    ignores: TESTS,
    rules: {
      // A field with a value of its own writes what it once held over what others set since.
      'no-restricted-syntax': [
        'error',
        LISTS,
        {
          selector:
            'JSXOpeningElement[name.name=/^(TextInput|NumberInput|Textarea)$/] > ' +
            'JSXAttribute[name.name="defaultValue"]',
          message: 'use CommitText, CommitLines or CommitNumber of ui/look',
        },
        {
          // What a rig holds can be forty: sounds, devices, sets. Lists of constants cannot grow.
          selector:
            'JSXOpeningElement[name.name=/^(Select|MultiSelect)$/]' +
            ':has(JSXAttribute[name.name="data"] MemberExpression[property.name=/^(map|flatMap)$/]' +
            ':not([object.name=/^[A-Z_]+$/]):not([object.callee.object.name="Object"]))' +
            ':not(:has(JSXAttribute[name.name="searchable"]))',
          message: 'a list that can grow long is searched: say searchable',
        },
        {
          // Components are compiled: one that reads such a thing while it is drawn may show what it once was.
          selector:
            'Program > :matches(VariableDeclaration, ExportNamedDeclaration > VariableDeclaration)' +
            ':matches([kind="let"], :has(> VariableDeclarator > NewExpression.init[callee.name=/^(Weak)?Map$/]))',
          message: 'what changes and is shown stands in a store or in state, not in a module',
        },
      ],
    },
  },
  {
    files: ['src/core/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-properties': ['error', ...pureCore],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'performance'],
      'no-restricted-syntax': [
        'error',
        LISTS,
        ...['Literal[value=', 'TemplateElement[value.cooked='].map((text) => ({
          // A "why" says what is. What to do about it is a fix: tried on a copy, shown with its outcome.
          selector: `Property[key.name='why'] ${text}/${ADVICE}/i]`,
          message: 'advice in a "why" was not tried: make it a fix, or say what is',
        })),
      ],
    },
  },
  {
    files: ['scripts/**', 'bench/**', '*.mjs', '*.cjs'],
    rules: { 'no-console': 'off', '@typescript-eslint/no-require-imports': 'off' },
  },
  prettier,
  // Prettier breaks lines at 100; what it cannot break is broken by hand. (Off in its own list.)
  { rules: { 'max-len': ['error', { code: 120, ignoreUrls: true, ignoreRegExpLiterals: true }] } },
  // Made-up rigs, tests and the writer of documents hold long words as data.
  { files: ['src/core/demo/**', 'scripts/write-docs.ts', ...TESTS], rules: { 'max-len': 'off' } },
);
