import { fileURLToPath } from 'node:url'

const core = fileURLToPath(new URL('./core/index.ts', import.meta.url))
const shared = fileURLToPath(new URL('./shared', import.meta.url))

export default defineNuxtConfig({
  modules: ['@nuxt/ui', '@pinia/nuxt', '@nuxt/eslint'],
  // The house is folded and judged in the browser, also without a connection: there is nothing to render on the server.
  ssr: false,
  compatibilityDate: '2026-01-01',
  telemetry: false,
  devtools: { enabled: false },
  components: [{ path: '~/components', pathPrefix: false }],
  css: ['~/assets/main.css'],
  ui: { fonts: false },
  icon: { provider: 'none', clientBundle: { scan: true, icons: ['lucide:undo-2', 'lucide:redo-2', 'lucide:sun', 'lucide:moon', 'lucide:keyboard', 'lucide:plus', 'lucide:printer', 'lucide:download', 'lucide:upload', 'lucide:x', 'lucide:chevron-down', 'lucide:chevron-right', 'lucide:loader-circle', 'lucide:check', 'lucide:trash-2', 'lucide:rotate-ccw', 'lucide:eye', 'lucide:folder-open', 'lucide:search', 'lucide:triangle-alert', 'lucide:panel-right', 'lucide:plug', 'lucide:list-tree', 'lucide:file-text', 'lucide:door-open', 'lucide:monitor'] } },
  colorMode: { preference: 'system' },
  alias: { '#core': core, '#shared': shared },
  vite: { worker: { format: 'es' } },
  typescript: { strict: true, typeCheck: false, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  eslint: { config: { stylistic: { indent: 2, quotes: 'single', semi: false } } },
  app: { head: { title: 'Corvit', htmlAttrs: { lang: 'en' }, meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1, viewport-fit=cover' }, { name: 'description', content: 'A second opinion on existing residential wiring' }] } },
})
