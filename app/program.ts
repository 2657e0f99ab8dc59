import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '@fontsource/noto-sans-symbols/symbols-400.css';
import 'vuetify/styles/core';
import './frame/paper.css';
import './frame/kit.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './frame/App.vue';
import { openLogbook } from './frame/openLogbook';
import { createRoutes } from './frame/router';
import { afterPaint } from './kit/afterPaint';
import { report, watchFailures } from './kit/failures';
import { askBrowser } from './kit/manner';
import { createTheme } from './kit/theme';
import type { ReadAhead } from './ledger/readAhead';

/** Opens the logbook, and shows the program once it is open: the frame is made meanwhile. @param ahead what was read of it while this was fetched */
export function begin(ahead: ReadAhead): void {
  const nonce = document.querySelector<HTMLMetaElement>('meta[name="inkpath-nonce"]')?.content ?? '';
  const pinia = createPinia();
  const opening = openLogbook(pinia, ahead);
  const app = createApp(App, { opening }).use(pinia).use(createTheme(nonce)).use(createRoutes());
  app.config.errorHandler = report;
  watchFailures();
  app.mount('#app');
  void opening.then(() => {
    afterPaint(() => {
      askBrowser();
    });
  });
}
