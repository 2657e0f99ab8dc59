import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';
import vuetify from 'vite-plugin-vuetify';

/** What the first screen needs anyway comes as one file: two dozen small ones take longer to fetch than to run. */
const FIRST = new RegExp(
  [
    'node_modules/(@vue|vue|vue-router|pinia|localforage|nanoid|tinykeys)/',
    'node_modules/vuetify/lib/(framework|composables|util|iconsets|components/(VApp|VBtn|VIcon|VDefaultsProvider|VProgress|VLayout))',
    'app/(frame/(?!Help|Lost|Shortcut|vFocus)|ledger|bench/shelf|curve/logbook|run/(lanes|dueLine|DueLine|RunView))',
    'core/(quantity|margin|method/cadence\\.|ink/(fold|track|version)|curve|run|exchange/(importError|joinInk|migrate|logbook\\.))',
    'demo/|vite/preload-helper|plugin-vue:export-helper|rolldown/runtime',
  ].join('|'),
);

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  resolve: { alias: { '@core': fileURLToPath(new URL('core/index.ts', import.meta.url)) } },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    rolldownOptions: { output: { codeSplitting: { groups: [{ name: 'first', test: FIRST }] } } },
  },
  test: { include: ['{core,app,server,demo,scripts,benchmarks}/**/*.test.ts'] },
});
