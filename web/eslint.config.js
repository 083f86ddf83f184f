import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

// Imports go one way: each layer may use itself and those before it.
const layers = ['api', 'lib', 'composables', 'components', 'features', 'screens']

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.d.ts', 'src/components.d.ts'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/essential'],
  {
    files: ['src/**/*.{ts,vue}'],
    languageOptions: { parserOptions: { parser: tseslint.parser, extraFileExtensions: ['.vue'] } },
    rules: {
      'vue/multi-word-component-names': 'off',
      'no-console': 'error',
    },
  },
  ...layers.map((name, k) => ({
    files: [`src/${name}/**/*.{ts,vue}`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            ...layers.slice(k + 1).map((above) => ({
              group: [`@/${above}/**`, `**/${above}/**`],
              message: `${name} may not import from ${above}: see docs/architecture.md.`,
            })),
            { group: ['../../*'], message: 'Write @/… when leaving the folder.' },
          ],
        },
      ],
    },
  })),
)
