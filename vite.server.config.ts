import { defineConfig } from 'vite';

/** The server, the command line, the demo's builder and the picture-taker: bundled for Node into dist/server. */
export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist/server',
    emptyOutDir: true,
    target: 'node20',
    rolldownOptions: {
      input: {
        main: 'demo/main.ts',
        juncture: 'server/juncture.ts',
        'bench-read-marked-pdf': 'bench/read-marked-pdf.ts',
        'bench-arrivals': 'bench/arrivals.ts',
        'bench-standing': 'bench/standing.ts',
        'bench-reading': 'bench/reading.ts',
        'bench-words': 'bench/words.ts',
        'bench-overlap': 'bench/overlap.ts',
        'bench-looking': 'bench/looking.ts',
        'bench-growth': 'bench/growth.ts',
        'bench-following': 'bench/following.ts',
        'bench-planning': 'bench/planning.ts',
        'bench-exporting': 'bench/exporting.ts',
        'bench-typing': 'bench/typing.ts',
        'train-saying': 'bench/train-saying.ts',
        'take-screenshots': 'e2e/take-screenshots.ts',
      },
    },
  },
});
