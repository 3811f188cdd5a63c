import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build as bundle } from 'esbuild'

const core = fileURLToPath(new URL('./core/index.ts', import.meta.url))
const shared = fileURLToPath(new URL('./shared', import.meta.url))

// Files of the build pass no middleware, so what holds for every answer stands here.
const routeRules = {
  '/**': {
    headers: {
      'x-content-type-options': 'nosniff',
      'x-frame-options': 'DENY',
      'referrer-policy': 'no-referrer',
      'cross-origin-opener-policy': 'same-origin',
      'cross-origin-resource-policy': 'same-origin',
      'permissions-policy': 'camera=(self), microphone=(self), geolocation=()',
    },
  },
}

export default defineNuxtConfig({
  modules: ['@nuxt/ui', '@pinia/nuxt', '@nuxt/eslint', 'nuxt-auth-utils', '@vite-pwa/nuxt'],
  auth: { webAuthn: true },
  // The house is folded and judged in the browser, also without a connection: there is nothing to render on the server.
  ssr: false,
  // Nothing reads the maps of what is built, which took a fifth of the time.
  $production: { sourcemap: false },
  experimental: {
    // The service worker keeps every page's code on the device already. Loading it for each link in sight would also
    // run it, which takes a phone as long as the page itself; a finger on the link is soon enough.
    defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } },
  },
  compatibilityDate: '2026-01-01',
  telemetry: false,
  devtools: { enabled: false },
  components: [{ path: '~/components', pathPrefix: false }],
  css: ['~/assets/main.css'],
  ui: { fonts: false },
  icon: {
    provider: 'none',
    clientBundle: {
      scan: true,
      icons: [
        'lucide:undo-2',
        'lucide:footprints',
        'lucide:toggle-left',
        'lucide:lightbulb',
        'lucide:rows-3',
        'lucide:list-checks',
        'lucide:calculator',
        'lucide:scissors',
        'lucide:hard-hat',
        'lucide:radio',
        'lucide:flag',
        'lucide:timer',
        'lucide:route',
        'lucide:gauge',
        'lucide:graduation-cap',
        'lucide:play',
        'lucide:pause',
        'lucide:magnet',
        'lucide:waypoints',
        'lucide:book-open',
        'lucide:ellipsis',
        'lucide:copy-check',
        'lucide:redo-2',
        'lucide:sun',
        'lucide:moon',
        'lucide:keyboard',
        'lucide:plus',
        'lucide:printer',
        'lucide:download',
        'lucide:upload',
        'lucide:x',
        'lucide:chevron-down',
        'lucide:chevron-right',
        'lucide:loader-circle',
        'lucide:check',
        'lucide:trash-2',
        'lucide:rotate-ccw',
        'lucide:eye',
        'lucide:folder-open',
        'lucide:search',
        'lucide:triangle-alert',
        'lucide:panel-right',
        'lucide:plug',
        'lucide:list-tree',
        'lucide:file-text',
        'lucide:door-open',
        'lucide:monitor',
        'lucide:key-round',
        'lucide:users',
        'lucide:user',
        'lucide:history',
        'lucide:archive',
        'lucide:log-out',
        'lucide:share-2',
        'lucide:menu',
        'lucide:cloud-off',
        'lucide:cloud-upload',
        'lucide:ellipsis-vertical',
        'lucide:chevron-left',
        'lucide:camera',
        'lucide:move-up-right',
        'lucide:circle',
        'lucide:type',
        'lucide:minus',
      ],
    },
  },
  colorMode: { preference: 'system' },
  alias: { '#core': core, '#shared': shared },
  vite: { worker: { format: 'es' } },
  pwa: {
    strategies: 'injectManifest',
    srcDir: 'service-worker',
    filename: 'sw.ts',
    registerType: 'autoUpdate',
    manifest: {
      name: 'Corvit',
      short_name: 'Corvit',
      description: 'A second opinion on existing residential wiring',
      display: 'standalone',
      start_url: '/',
      background_color: '#f5f0e8',
      theme_color: '#f5f0e8',
      icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
    },
    injectManifest: {
      globPatterns: ['**/*.{js,css,woff2,svg}'],
      maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
    },
    client: { installPrompt: false },
  },
  runtimeConfig: {
    session: {
      name: 'corvit-session',
      maxAge: 60 * 60 * 24 * 30,
      password: '',
      // Whether it needs a secure line is known only when somebody asks (server/utils/people.ts).
      cookie: { sameSite: 'strict', httpOnly: true, secure: false },
    },
  },
  hooks: {
    'nitro:config'(config: { errorHandler?: string; routeRules?: object }) {
      config.errorHandler = fileURLToPath(new URL('./server/error.ts', import.meta.url))
      config.routeRules = { ...config.routeRules, ...routeRules }
    },
    // Heavy work runs in worker threads, which need a file of their own beside the server's.
    'nitro:init'(nitro) {
      nitro.hooks.hook('compiled', async () => {
        const outfile = join(nitro.options.output.serverDir, 'heavy.mjs')
        await bundle({
          entryPoints: [fileURLToPath(new URL('./server/heavy/worker.ts', import.meta.url))],
          bundle: true,
          platform: 'node',
          format: 'esm',
          target: 'node20',
          outfile,
          logLevel: 'error',
          external: ['better-sqlite3', 'sharp'],
          loader: { '.ttf': 'binary' },
          banner: {
            js: [
              "import { createRequire as requireFrom } from 'node:module'",
              'const require = requireFrom(import.meta.url)',
              // Packages of the older kind look for their folder.
              'const __dirname = import.meta.dirname',
            ].join('\n'),
          },
        })
        if (nitro.options.dev) process.env.CORVIT_HEAVY = outfile
      })
    },
  },
  typescript: {
    strict: true,
    typeCheck: false,
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } },
  },
  eslint: { config: { stylistic: false } },
  app: {
    head: {
      title: 'Corvit',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1, viewport-fit=cover' },
        { name: 'description', content: 'A second opinion on existing residential wiring' },
      ],
    },
  },
})
