import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** The interface: built from app/ into dist/app, served by the server from there. */
export default defineConfig({
  root: 'app',
  plugins: [react(), tailwind()],
  build: { outDir: '../dist/app', emptyOutDir: true, chunkSizeWarningLimit: 1600, assetsInlineLimit: 0 },
  worker: { format: 'es' },
});
