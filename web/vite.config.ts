import { createHmac } from 'node:crypto'
import { readFileSync } from 'node:fs'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

// make dev tells where the server is and where its data lie: the page comes from here then, so its session cookie
// has to be put in on the way.
const server = process.env.CAPSTAN_ADDR ?? '127.0.0.1:4870'
const data = process.env.CAPSTAN_DATA ?? '../data'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { emptyOutDir: true, outDir: 'dist', assetsInlineLimit: 0, chunkSizeWarningLimit: 1200 },
  server: {
    proxy: {
      '/api': {
        target: `http://${server}`,
        changeOrigin: true,
        configure: (proxy) =>
          proxy.on('proxyReq', (request) => {
            const session = createHmac('sha256', readFileSync(`${data}/session`))
              .update('this machine alone')
              .digest('hex')
            request.setHeader('Cookie', `capstan-session-${server.split(':').pop()}=${session}`)
            request.setHeader('Origin', `http://${server}`)
          }),
      },
    },
  },
})
