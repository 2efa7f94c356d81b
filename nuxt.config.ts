import { join } from 'node:path';
import vuetify from 'vite-plugin-vuetify';
import {
  bundleBuildsWorker,
  bundleCompareWorker,
  bundleExtractWorker,
  bundleJudgeWorker,
  bundlePagesWorker,
  bundlePicturesWorker,
  bundleTablesWorker,
} from './scripts/worker-bundles.mjs';

const decorators = { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } };

export default defineNuxtConfig({
  ...(process.env.ARMBAND_BUILD_DIR ? { buildDir: process.env.ARMBAND_BUILD_DIR } : {}),
  compatibilityDate: '2026-11-01',
  modules: ['@pinia/nuxt', 'nuxt-auth-utils', 'nuxt-security', '@nuxt/eslint'],
  ssr: true,
  // single-page rendering; plain `ssr: false` breaks `nuxt dev` in this version
  routeRules: {
    '/**': { ssr: false },
    '/_nuxt/**': { headers: { 'Cross-Origin-Embedder-Policy': 'credentialless' } },
  },
  telemetry: false,
  devtools: { enabled: false },
  // folders are for people: a component is called by its own name
  components: [{ path: '~/components', pathPrefix: false }],
  // the reset's layer comes first, so that Vuetify's layers stand above it
  css: ['~/theme/reset.css', 'vuetify/styles', '~/theme/main.css'],
  build: { transpile: ['vuetify'] },
  app: {
    head: {
      title: 'Armband',
      htmlAttrs: { lang: 'en' },
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
      meta: [{ name: 'robots', content: 'noindex' }],
    },
  },
  vite: {
    // fonts as files: the content security policy takes none from data: addresses
    build: { assetsInlineLimit: 0 },
    plugins: [vuetify({ autoImport: true })],
    esbuild: { tsconfigRaw: decorators },
  },
  hooks: {
    // the threads are programs of their own, so they are bundled beside the server
    'nitro:init': (nitro) => {
      nitro.hooks.hook('compiled', async () => {
        await Promise.all([
          bundleBuildsWorker(join(nitro.options.output.serverDir, 'builds-worker.mjs')),
          bundleCompareWorker(join(nitro.options.output.serverDir, 'compare-worker.mjs')),
          bundleExtractWorker(join(nitro.options.output.serverDir, 'extract-worker.mjs')),
          bundleJudgeWorker(join(nitro.options.output.serverDir, 'judge-worker.mjs')),
          bundlePagesWorker(join(nitro.options.output.serverDir, 'pages-worker.mjs')),
          bundlePicturesWorker(join(nitro.options.output.serverDir, 'pictures-worker.mjs')),
          bundleTablesWorker(join(nitro.options.output.serverDir, 'tables-worker.mjs')),
        ]);
      });
    },
  },
  nitro: {
    errorHandler: '~~/server/platform/http/error-page',
    // Node 20 has big integers, which the default target does not
    esbuild: { options: { tsconfigRaw: decorators, target: 'es2022' } },
    typescript: { tsConfig: { ...decorators, include: ['../core/**/*', '../probe/**/*'] } },
    // class-validator's decorators need reflect-metadata, which tree shaking would drop
    moduleSideEffects: [
      'reflect-metadata',
      ...['validation', 'record', 'brief', 'site', 'host-profile', 'checklist'].map(
        (name) => new URL(`./core/entry/${name}.ts`, import.meta.url).pathname,
      ),
      new URL('./server/platform/http/validation.ts', import.meta.url).pathname,
    ],
  },
  typescript: {
    strict: true,
    tsConfig: { ...decorators, include: ['../core/**/*'] },
    nodeTsConfig: decorators,
    sharedTsConfig: decorators,
  },
  runtimeConfig: {
    session: {
      name: 'armband-session',
      password: '',
      maxAge: 60 * 60 * 24 * 7,
      cookie: { httpOnly: true, sameSite: 'lax', secure: false },
    },
  },
  security: {
    corsHandler: false,
    rateLimiter: false,
    // each route counts what it reads
    requestSizeLimiter: false,
    xssValidator: false,
    headers: {
      contentSecurityPolicy: {
        'default-src': ["'self'"],
        'base-uri': ["'none'"],
        'object-src': ["'none'"],
        'frame-ancestors': ["'none'"],
        'form-action': ["'self'"],
        'script-src': ["'self'", "'nonce-{{nonce}}'"],
        // Vuetify writes its theme into a style element
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:'],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'upgrade-insecure-requests': false,
      },
      // set by the guard where the application stands behind https
      strictTransportSecurity: false,
    },
  },
});
