import boundaries from 'eslint-plugin-boundaries'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

// Which layer may import which: screens rest on features, features on components and the API, and so down to lib.
const layers = ['lib', 'api', 'composables', 'components', 'features', 'screens', 'app']
const below = {
  lib: ['lib'],
  api: ['api', 'lib'],
  composables: ['composables', 'lib', 'api'],
  components: ['components', 'composables', 'lib', 'api'],
  features: ['features', 'components', 'composables', 'api', 'lib'],
  screens: ['screens', 'features', 'components', 'composables', 'api', 'lib'],
  app: layers,
}

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.d.ts', 'src/components.d.ts'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/essential'],
  {
    files: ['src/**/*.{ts,vue}'],
    plugins: { boundaries },
    languageOptions: { parserOptions: { parser: tseslint.parser, extraFileExtensions: ['.vue'] } },
    settings: {
      'import/resolver': { typescript: { project: './tsconfig.json' } },
      'boundaries/elements': [
        ...layers.slice(0, -1).map((name) => ({ type: name, pattern: `src/${name}/**`, mode: 'full' })),
        { type: 'app', pattern: 'src/*', mode: 'full' },
      ],
    },
    rules: {
      'boundaries/element-types': [
        'error',
        { default: 'disallow', rules: layers.map((name) => ({ from: name, allow: below[name] })) },
      ],
      'vue/multi-word-component-names': 'off',
      'no-console': 'error',
    },
  },
)
