import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

/** The program on this machine: whether it opens without a network, and whether a newer one waits. It never takes the place of this one by itself. */
export const useOffline = defineStore('offline', () => {
  const isReady = ref(false);
  const waiting = shallowRef<ServiceWorker>();

  /** Keeps the program for when there is no network. Browsers that cannot, or a page that is not safe, go on without. */
  async function keep(): Promise<void> {
    if (!('serviceWorker' in navigator)) return;
    const registration = await navigator.serviceWorker.register('/sw.js').catch(() => undefined);
    if (!registration) return;
    const look = () => {
      isReady.value = registration.active !== null;
      // The first one ever has nothing to take the place of.
      if (registration.active && registration.waiting) waiting.value = registration.waiting;
    };
    registration.addEventListener('updatefound', () => registration.installing?.addEventListener('statechange', look));
    void navigator.serviceWorker.ready.then(look);
    look();
  }

  /** Opens the newer program. Only ever called by a person, and not while a run is live. */
  function takeNewer(): void {
    if (!waiting.value) return;
    navigator.serviceWorker.addEventListener('controllerchange', () => {
      location.reload();
    });
    waiting.value.postMessage({ type: 'SKIP_WAITING' });
  }

  return { isReady, waiting, keep, takeNewer };
});
