import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'
import { addressesOnly } from './addressesOnly.ts'
import { askedEarly } from './askedEarly.ts'
import { scriptsEarly } from './firstScripts.ts'
import { fontsEarly } from './fontsEarly.ts'

const comeIn = '/src/comeIn.ts'

export default defineConfig({
  plugins: [
    addressesOnly(),
    askedEarly(),
    // Elements are made in the units of whoever looks at them (`src/units/told.ts`).
    react({ jsxImportSource: '#units' }),
    scriptsEarly([comeIn]),
    fontsEarly([
      'source-sans-3-latin-wght-normal',
      'literata-latin-wght-normal',
      'literata-latin-wght-italic',
    ]),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'sw.ts',
      injectRegister: false,
      injectManifest: {
        // The page itself is kept as the server gives it, with its nonce. Of the fonts, the scripts of the garden's words.
        globPatterns: ['assets/*.{js,css}', 'assets/*-latin-wght-*.woff2', '*.{svg,png}'],
        // Documents are read only where they can be sent.
        globIgnores: ['assets/pdf-*.js'],
        maximumFileSizeToCacheInBytes: 3_000_000,
      },
      manifest: {
        name: 'Seasoned Border',
        short_name: 'Border',
        description: 'Established beds and containers, kept good year after year.',
        start_url: '/',
        display: 'standalone',
        background_color: '#efede7',
        theme_color: '#6b2c5c',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
    }),
  ],
  html: { cspNonce: '__CSP_NONCE__' },
  worker: { format: 'es' },
  build: {
    target: 'es2023',
    chunkSizeWarningLimit: 900,
    manifest: true,
    // Fonts stay files: the content policy takes no fonts from data addresses.
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: {
        // What the page itself needs is one file beside its own.
        codeSplitting: {
          groups: [
            {
              name: 'first',
              priority: 1,
              tags: ['$initial'],
              test: (id) => !/main\.tsx$|index\.html$/.test(id),
            },
            // With all that these import; a file each takes a slow device some ten milliseconds.
            { name: 'garden', test: (id) => id.endsWith(comeIn) },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:5180' } },
})
