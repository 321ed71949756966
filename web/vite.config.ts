import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react()],
  html: { cspNonce: '__CSP_NONCE__' },
  worker: { format: 'es' },
  build: {
    target: 'es2023',
    chunkSizeWarningLimit: 900,
    // Fonts stay files: the content policy takes no fonts from data addresses.
    assetsInlineLimit: 0,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:5180' } },
})
