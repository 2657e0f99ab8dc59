import { readonly, ref } from 'vue';

const time = ref(Date.now());
let ticking = false;

/** The wall clock in epoch milliseconds, told twice a second for as long as the page lives. */
export function useNow() {
  if (!ticking) {
    ticking = true;
    const worker = new Worker(new URL('../workers/ticks.ts', import.meta.url), { type: 'module' });
    worker.onmessage = () => {
      time.value = Date.now();
    };
  }
  return readonly(time);
}
