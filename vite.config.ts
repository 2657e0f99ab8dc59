import type { Plugin } from 'vite';
import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';
import vuetify from 'vite-plugin-vuetify';

/** What the first screen needs anyway comes as one file: two dozen small ones take longer to fetch than to run. */
const FIRST = new RegExp(
  [
    'node_modules/(@vue|vue|vue-router|pinia|nanoid|tinykeys)/',
    'app/(frame/(?!Help|Lost|Shortcut|vFocus)|ledger/(?!databases|storageTrouble|warm)|bench/shelf|curve/logbook|run/(lanes|dueLine|DueLine|RunView|LiveLane)|strip/(PenNib|pens))',
    'core/(quantity|bench/(battery|label|offer|portName|ports|sharing)|power|simulate|margin|method/cadence\\.|ink/(events|fold|track|version)|curve|run|exchange/(fromSchema1|importError|joinInk|migrate|logbook\\.))',
    'demo/|plugin-vue:export-helper',
  ].join('|'),
);

/** Names in the page what `app/main.ts` goes on to import, styles too, so that all is fetched beside it and not after it. */
const preloadProgram: Plugin = {
  name: 'preload-program',
  transformIndexHtml: {
    order: 'post',
    handler(_html, { bundle = {} }) {
      const chunks = Object.values(bundle).filter((each) => each.type === 'chunk');
      const program = chunks.find(({ facadeModuleId }) => facadeModuleId?.endsWith('/app/program.ts'));
      const files = program ? [program.fileName, ...program.imports] : [];
      const styles = chunks.flatMap(({ fileName, viteMetadata }) =>
        files.includes(fileName) ? [...(viteMetadata?.importedCss ?? [])] : [],
      );
      return [
        ...files.map((file) => ({ tag: 'link', attrs: { rel: 'modulepreload', crossorigin: true, href: `/${file}` } })),
        ...styles.map((file) => ({ tag: 'link', attrs: { rel: 'stylesheet', crossorigin: true, href: `/${file}` } })),
      ];
    },
  },
};

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), preloadProgram],
  resolve: { alias: { '@core': fileURLToPath(new URL('core/index.ts', import.meta.url)) } },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            {
              name: 'storage',
              test: /node_modules\/localforage|app\/ledger\/(databases|storageTrouble)|vite\/preload-helper/,
              priority: 2,
            },
            { name: 'first', test: FIRST, priority: 1 },
          ],
        },
      },
    },
  },
  // Give-up times only: a busy machine is no reason to fail.
  test: { include: ['{core,app,server,demo,scripts,benchmarks}/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000 },
});
