import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '@fontsource/noto-sans-symbols/symbols-400.css';
import 'vuetify/styles/core';
import './frame/paper.css';
import { createPinia } from 'pinia';
import { createApp, h } from 'vue';
import App from './frame/App.vue';
import NoStorage from './frame/NoStorage.vue';
import { openLogbook } from './frame/openLogbook';
import { createRoutes } from './frame/router';
import { useSettings } from './frame/settings';
import { createTheme } from './frame/theme';

const nonce = document.querySelector<HTMLMetaElement>('meta[name="inkpath-nonce"]')?.content ?? '';
const pinia = createPinia();

try {
  await openLogbook(pinia);
  const theme = createTheme(useSettings(pinia).theme, nonce);
  createApp(App).use(pinia).use(theme).use(createRoutes()).mount('#app');
} catch (trouble) {
  console.error(trouble);
  createApp({ render: () => h(NoStorage, { trouble }) })
    .use(createTheme('paper', nonce))
    .mount('#app');
}
