import '@fontsource/atkinson-hyperlegible/400.css'
import '@fontsource/atkinson-hyperlegible/700.css'
import 'katex/dist/katex.min.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import './styles/theme.css'

createApp(App).use(createPinia()).use(router).mount('#app')

// the page itself without a connection; where it comes neither by HTTPS nor from this machine, browsers have none
if ('serviceWorker' in navigator && import.meta.env.PROD)
  void navigator.serviceWorker
    .register('/sw.js')
    .then(() => navigator.serviceWorker.ready)
    .then(keepAssets)
    .catch(() => undefined)

/** The page and what it was made of came before there was anybody to keep them. */
async function keepAssets(): Promise<void> {
  const shell = await caches.open('uchuu-shell-1') // as public/sw.js names it
  const loaded = performance.getEntriesByType('resource').map((each) => new URL(each.name).pathname)
  const assets = new Set(loaded.filter((path) => path.startsWith('/assets/')))
  for (const path of ['/', ...assets]) if (path === '/' || !(await shell.match(path))) await shell.add(path)
}
