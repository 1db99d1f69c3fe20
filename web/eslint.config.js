import boundaries from 'eslint-plugin-boundaries';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['dist', 'scripts', 'src/shared/api/schema.d.ts', 'eslint.config.js', 'vite.config.ts'] },
  ...ts.configs.strictTypeChecked,
  a11y.flatConfigs.recommended,
  hooks.configs.flat['recommended-latest'],
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    plugins: { boundaries },
    settings: {
      'import/resolver': { node: { extensions: ['.ts', '.tsx'] } },
      'boundaries/elements': [
        { type: 'app', pattern: 'src/app' },
        { type: 'feature', pattern: 'src/features/*', capture: ['feature'] },
        { type: 'shared', pattern: 'src/shared' },
      ],
    },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      // A handler that does one thing says it on one line.
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      // Event handlers that start a mutation do not wait for it; its errors are shown by the mutation.
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            {
              from: { element: { type: 'app' } },
              allow: [{ to: { element: { type: ['app', 'feature', 'shared'] } } }],
            },
            {
              from: { element: { type: 'feature' } },
              allow: [
                { to: { element: { type: 'shared' } } },
                {
                  to: {
                    element: { type: 'feature', captured: { feature: '{{from.element.captured.feature}}' } },
                  },
                },
              ],
            },
            { from: { element: { type: 'shared' } }, allow: [{ to: { element: { type: 'shared' } } }] },
          ],
        },
      ],
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: ['**/schema', '**/schema.d'], message: 'Use the types of shared/api.' }] },
      ],
    },
  },
  {
    // Hooks know the API; views know hooks.
    files: ['src/**/*.tsx'],
    ignores: ['src/**/*.spec.tsx', 'src/shared/testing/**', 'src/app/App.tsx', 'src/features/guest/tests.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [{ name: '@tanstack/react-query', message: 'Ask in a hook, in a file of its own.' }],
          patterns: [
            { group: ['**/schema', '**/schema.d'], message: 'Use the types of shared/api.' },
            {
              group: ['**/shared/api', '../api'],
              importNames: ['api', 'keys', 'changed', 'unwrap'],
              message: 'Ask in a hook, in a file of its own.',
            },
          ],
        },
      ],
    },
  },
  {
    // What a person reads is a message of shared/texts.
    files: ['src/**/*.tsx'],
    ignores: ['src/**/*.spec.tsx', 'src/shared/testing/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          'JSXText[value=/[a-z]{2}/i]',
          'JSXElement > JSXExpressionContainer > Literal[value=/[a-z]{2}/i]',
          'JSXElement > JSXExpressionContainer > :matches(ConditionalExpression, LogicalExpression) > Literal[value=/[a-z]{2}/i]',
          ...['Literal[value=/[a-z]{2}/i]', 'TemplateElement[value.raw=/[a-z]{2}/i]'].flatMap((text) =>
            [
              '>',
              '> JSXExpressionContainer >',
              '> JSXExpressionContainer > TemplateLiteral >',
              '> JSXExpressionContainer > ConditionalExpression >',
            ].map(
              (within) =>
                `JSXAttribute[name.name=/^(aria-label|label|title|placeholder|helperText|alt)$/] ${within} ${text}`,
            ),
          ),
        ].map((selector) => ({ selector, message: 'Say it through t() or rich() of shared/texts.' })),
      ],
    },
  },
  {
    files: ['src/shared/api/**', 'src/main.tsx'],
    rules: { 'no-restricted-imports': 'off' },
  },
);
