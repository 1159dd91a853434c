import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { emptyOutDir: true, outDir: 'dist', assetsInlineLimit: 0, chunkSizeWarningLimit: 1200 },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:4870', changeOrigin: true, headers: { Origin: 'http://127.0.0.1:4870' } } } },
})
