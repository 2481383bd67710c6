import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { cpSync } from 'node:fs';
import { join } from 'node:path';
import { defineConfig, type Plugin } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** Folders of pdf.js that it asks for at run time; the application serves them itself. */
const PDF_FOLDERS = ['cmaps', 'standard_fonts', 'wasm', 'iccs'];

function copyPdfAssets(): Plugin {
  return {
    name: 'copy-pdf-assets',
    writeBundle({ dir = '' }) {
      const root = import.meta.dirname;
      for (const folder of PDF_FOLDERS)
        cpSync(join(root, 'node_modules/pdfjs-dist', folder), join(dir, 'pdf', folder), { recursive: true });
    },
  };
}

/** Small modules that the first place needs and most others too. */
const SHARED =
  /\/core\/(?:model\/(?:work|look|ids|own-ids|remark|source|short-mark|facts)|tally\/(?:decided|tally)|text\/(?:stems|ascending|words|word-spans|word-classes)|scores\/fraction|reading\/need|plan\/(?:estimates|tasks|in-need|likeness)|assignment\/jobs|marked-again\/gains|rubric\/(?:result|link|behind)|saying\/saying-of)\.ts$|\/app\/shared\/controls\/Controls\.tsx$|\/stemmer\//;

/** Dictionaries, which are looked into once a draft is looked over. */
const DICTIONARIES = { en: 'dictionary-en', 'en-gb': 'dictionary-en-gb' };

function copyDictionaries(): Plugin {
  return {
    name: 'copy-dictionaries',
    writeBundle({ dir = '' }) {
      const root = join(import.meta.dirname, 'node_modules');
      for (const [name, from] of Object.entries(DICTIONARIES))
        for (const ending of ['aff', 'dic'])
          cpSync(join(root, from, `index.${ending}`), join(dir, 'dictionaries', `${name}.${ending}`));
    },
  };
}

/** pdfkit reads pictures with transparency by an inflater of our own: see there. */
function inflateHere(): Plugin {
  return {
    name: 'inflate-here',
    enforce: 'pre',
    resolveId: (source, importer) =>
      source === 'fflate' && importer?.includes('/png-js/') === true
        ? join(import.meta.dirname, 'app/workers/inflate-here.ts')
        : null,
  };
}

/** The interface: built from app/ into dist/app, served by the server from there. */
export default defineConfig({
  root: 'app',
  plugins: [
    react(),
    tailwind(),
    copyPdfAssets(),
    copyDictionaries(),
    // The application itself is kept in the browser, so that it opens and works while the server doesn't answer.
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: null,
      manifest: {
        name: 'Juncture',
        short_name: 'Juncture',
        description: 'Take marked work apart and put better work together.',
        lang: 'en',
        start_url: '/',
        scope: '/',
        display: 'standalone',
        background_color: '#faf7f0',
        theme_color: '#faf7f0',
        icons: [{ src: '/sign.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: [
          '**/*.{html,js,mjs,css,svg,woff2,woff,model}',
          'pdf/standard_fonts/*',
          'dictionaries/*',
          'pdf/wasm/*',
          'pdf/iccs/*',
        ],
        maximumFileSizeToCacheInBytes: 4_000_000,
        clientsClaim: true,
        skipWaiting: true,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/desk\//],
        runtimeCaching: [{ urlPattern: /\/pdf\//, handler: 'CacheFirst' }],
      },
    }),
  ],
  build: {
    outDir: '../dist/app',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1600,
    assetsInlineLimit: 0,
    rolldownOptions: {
      // The desk's plain page of a quiz asks for its script by this name.
      input: { index: 'app/index.html', sitting: 'app/sitting.ts' },
      output: {
        // What most places share comes in one file: each small one of its own takes half a kilobyte more.
        codeSplitting: { groups: [{ name: 'shared', test: SHARED }] },
        entryFileNames: ({ name }) => (name === 'sitting' ? 'sitting.js' : 'assets/[name]-[hash].js'),
      },
    },
  },
  worker: { format: 'es', plugins: () => [inflateHere()] },
});
