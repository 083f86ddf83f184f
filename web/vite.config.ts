import vue from '@vitejs/plugin-vue'
import Components from 'unplugin-vue-components/vite'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [
    vue({ template: { compilerOptions: { isCustomElement: (tag) => tag === 'math-field' } } }),
    Components({ resolvers: [ElementPlusResolver()], dirs: [], dts: 'src/components.d.ts' }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:8000' } },
  test: {
    environment: 'jsdom',
    server: { deps: { inline: ['element-plus'] } },
    include: ['src/**/*.test.ts'],
    testTimeout: 20_000,
    isolate: false,
    setupFiles: ['src/testing/fresh.ts'],
  },
})
