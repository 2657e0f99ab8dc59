import 'vuetify/styles/core';
import { createApp, h } from 'vue';
import { createVuetify } from 'vuetify';
import { VApp } from 'vuetify/components/VApp';
import { VBtn } from 'vuetify/components/VBtn';
import { VTextField } from 'vuetify/components/VTextField';

/** The least that a Vuetify page can be: a field and a button, beside which the program’s own start is measured. */
const cspNonce = document.querySelector<HTMLMetaElement>('meta[name="inkpath-nonce"]')?.content ?? '';
const page = { render: () => h(VApp, () => [h(VTextField, { id: 'entry', label: 'Reading' }), h(VBtn, () => 'Log')]) };
const show = () =>
  createApp(page)
    .use(createVuetify({ theme: { cspNonce } }))
    .mount('#app');

/** Any page that keeps something has to open a database and read a value before it can show it. */
function readFirst(): void {
  const opening = indexedDB.open('bare', 1);
  opening.onupgradeneeded = () => opening.result.createObjectStore('kept');
  opening.onsuccess = () => {
    opening.result.transaction('kept').objectStore('kept').get('value').onsuccess = show;
  };
}

if (location.search === '?database') readFirst();
else show();
