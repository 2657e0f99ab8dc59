import 'vuetify/styles/core';
import { createApp, h } from 'vue';
import { createVuetify } from 'vuetify';
import { VApp } from 'vuetify/components/VApp';
import { VBtn } from 'vuetify/components/VBtn';
import { VTextField } from 'vuetify/components/VTextField';

/** The least that a Vuetify page can be: a field and a button, beside which the program’s own start is measured. */
const cspNonce = document.querySelector<HTMLMetaElement>('meta[name="inkpath-nonce"]')?.content ?? '';
const page = { render: () => h(VApp, () => [h(VTextField, { id: 'entry', label: 'Reading' }), h(VBtn, () => 'Log')]) };
createApp(page)
  .use(createVuetify({ theme: { cspNonce } }))
  .mount('#app');
