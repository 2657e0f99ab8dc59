import type { Plugin } from 'vite';
import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';
import { VitePWA } from 'vite-plugin-pwa';
import vuetify from 'vite-plugin-vuetify';

/** Names in the page what `app/main.ts` goes on to import, styles too, so that all is fetched beside it and not after it. */
const preloadProgram: Plugin = {
  name: 'preload-program',
  transformIndexHtml: {
    order: 'post',
    handler(_html, { bundle = {} }) {
      const chunks = Object.values(bundle).filter((each) => each.type === 'chunk');
      const program = chunks.find(({ moduleIds }) => moduleIds.some((id) => id.endsWith('/app/program.ts')));
      // Pages that the benchmarks measure beside have no program.
      if (!program) return [];
      const entry = chunks.find(({ isEntry }) => isEntry);
      if (entry?.imports.includes(program.fileName))
        throw new Error(`${entry.fileName} waits for ${program.fileName}: what it needs of it belongs into the group "storage".`);
      const files = [program.fileName, ...program.imports];
      const schemas = chunks.find(({ fileName, moduleIds }) => files.includes(fileName) && moduleIds.some((id) => id.includes('/yup/')));
      if (schemas)
        throw new Error(`${schemas.fileName}, which the first screen waits for, imports a schema: move what it needs beside it.`);
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

/**
 * Vuetify looks Vue over by `import * as Vue`, for an export that only Vue 3.6 has: so all of Vue would be fetched, hydration and custom elements too.
 * Told which function it means, it leaves the rest out.
 */
const namedVue: Plugin = {
  name: 'named-vue',
  transform(code, id) {
    if (!id.includes('@vuetify/v0/dist/utilities/instance')) return undefined;
    const named = code
      .replace('import * as Vue from "vue";', 'import { getCurrentInstance } from "vue";')
      .replace(/function getInstanceCompat\(\) \{[^}]*\}/, 'const getInstanceCompat = () => getCurrentInstance();');
    if (named.includes('Vue.')) throw new Error(`${id} is not as it was: look whether it still needs all of Vue.`);
    return { code: named, map: null };
  },
};

/** Keeps the whole program on the machine, so that it opens without a network. A newer one waits until it is asked for (app/frame/offline.ts). */
const offline = VitePWA({
  registerType: 'prompt',
  injectRegister: false,
  manifest: {
    name: 'Inkpath Log',
    short_name: 'Inkpath',
    description: 'Plan, log, read and compare how devices charge.',
    start_url: '/live',
    display: 'standalone',
    background_color: '#FCF9F1',
    theme_color: '#FCF9F1',
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,png,woff,woff2}'],
    maximumFileSizeToCacheInBytes: 6_000_000,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/inkpath/],
    cleanupOutdatedCaches: true,
  },
});

/** Everything but what makes it work offline: the benchmarks' pages are built with this. */
export const inTab = defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), namedVue, preloadProgram],
  resolve: {
    alias: [
      { find: /^@core\/(\w+)$/, replacement: fileURLToPath(new URL('core/$1/index.ts', import.meta.url)) },
      // Zips where it is: its workers would be made of an address that our policy forbids.
      {
        find: /^\.\.\/zip\/zipToArrayBuffer\.js$/,
        replacement: fileURLToPath(new URL('app/exports/zipHere.ts', import.meta.url)),
      },
    ],
  },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      output: {
        codeSplitting: {
          // Each is a module and all that it needs at once: one file, for two dozen small ones take longer to fetch than to run.
          groups: [
            // The helper by which it fetches the program too: in the program’s file, nothing would be read before all of that was there.
            { name: 'storage', test: /app\/ledger\/readAhead|vite\/preload-helper/, priority: 2 },
            { name: 'first', test: /app\/program/, priority: 1 },
          ],
        },
      },
    },
  },
  // Give-up times only: a busy machine is no reason to fail.
  test: {
    setupFiles: ['scripts/drawn.ts'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // All cores: one that is left free, as is usual, is half of them on a machine of two.
    maxWorkers: '100%',
    projects: [
      // Tests of the app put stand-ins in the place of browser and modules, so each file has a world of its own. The rest share one, which spares
      // reading the program anew for each.
      { extends: true, test: { name: 'app', include: ['app/**/*.test.ts'] } },
      {
        extends: true,
        test: { name: 'core', include: ['{core,server,demo,scripts,benchmarks,truth,fleet}/**/*.test.ts'], isolate: false },
      },
    ],
  },
});

export default defineConfig({ ...inTab, plugins: [...(inTab.plugins ?? []), offline] });
