// Node 20 has no Object.groupBy, which a plug-in of @nuxt/eslint calls
Object.groupBy ??= (items, key) => {
  const out = Object.create(null);
  let i = 0;
  for (const item of items) (out[key(item, i++)] ??= []).push(item);
  return out;
};
const { default: withNuxt } = await import('./.nuxt/eslint.config.mjs');
const { default: layoutByPrettier } = await import('eslint-config-prettier');

const { ROOMS } = await import('./scripts/import-rules.mjs');

/** What may import what (CONTRIBUTING.md): breaking it fails the lint step. */
const MAY = Object.fromEntries([...ROOMS].map(([room, allowed]) => [room, [...allowed]]));
const OWN = Object.keys(MAY);
const NODE = ['node:*'];

const rules = Object.entries(MAY).map(([room, allowed]) => {
  const closed = OWN.filter((r) => !allowed.includes(r));
  const group = closed.flatMap((r) => [`**/${r}/**`, `~~/${r}/**`]);
  return {
    files: [`${room}/**/*.{ts,vue}`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group, message: `${room} may import only ${allowed.join(', ')}.`, allowTypeImports: false },
            // a pattern that begins with # would be read as a comment
            {
              regex: `^#(?:${closed.join('|')})/`,
              message: `${room} may import only ${allowed.join(', ')}.`,
              allowTypeImports: false,
            },
            ...(room === 'core'
              ? [
                  { group: NODE, message: 'core has no I/O.' },
                  {
                    regex: '^(?:vue|nuxt|vuetify|sequelize|h3|#imports|#app)(?:/|$)',
                    message: 'core has no interface code.',
                  },
                ]
              : []),
          ],
        },
      ],
    },
  };
});

/** Decision 007: in Node 20 its compiled form refuses addresses with an umlaut. */
const NO_CAN_PARSE = {
  object: 'URL',
  property: 'canParse',
  message: 'Use parseUrl of core/extract/address (docs/decisions/007).',
};

export default withNuxt(
  {
    ignores: [
      '.output/**',
      '.build/**',
      'dist/**',
      '.nuxt/**',
      '.data/**',
      '.demo/**',
      '.dev/**',
      '.test/**',
      'docs/**',
      'test-results/**',
    ],
  },
  ...rules,
  { files: ['**/*.{ts,mts,vue,mjs}'], rules: { 'no-restricted-properties': ['error', NO_CAN_PARSE] } },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'process', 'fetch', 'window', 'document', 'Buffer'],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.object.name="Date"][callee.property.name="now"]',
          message: 'core has no clock: time comes in as an argument.',
        },
        {
          selector: 'NewExpression[callee.name="Date"][arguments.length=0]',
          message: 'core has no clock: time comes in as an argument.',
        },
      ],
    },
  },
  {
    files: ['**/*.test.ts', 'tests/**/*.ts'],
    rules: { 'no-restricted-imports': 'off' },
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      'no-control-regex': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/no-multiple-template-root': 'off',
      'vue/require-default-prop': 'off',
      // how long a file is says little; how much a reader must hold in mind says much
      complexity: ['error', 15],
      'max-depth': ['error', 4],
      'max-params': ['error', 5],
      'max-statements-per-line': ['error', { max: 1 }],
    },
  },
  layoutByPrettier,
);
