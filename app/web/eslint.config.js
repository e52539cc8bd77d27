import globals from 'globals';

// Sarnik's own modules, as the browser is given them, and the scripts of the build.
export default [
  {
    files: ['src/main/resources/static/js/**/*.js'],
    languageOptions: { ecmaVersion: 2023, sourceType: 'module', globals: globals.browser },
  },
  {
    files: ['web/**/*.mjs', 'web/eslint.config.js'],
    languageOptions: { ecmaVersion: 2023, sourceType: 'module', globals: globals.node },
  },
  {
    rules: {
      'no-undef': 'error',
      'no-unused-vars': ['error', { ignoreRestSiblings: true }],
      'no-redeclare': 'error',
      'no-unreachable': 'error',
      'no-const-assign': 'error',
      'no-dupe-keys': 'error',
      'no-self-assign': 'error',
      'no-self-compare': 'error',
      'no-fallthrough': 'error',
      'no-var': 'error',
      'prefer-const': ['error', { destructuring: 'all' }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-eval': 'error',
      'no-implied-eval': 'error',
    },
  },
];
