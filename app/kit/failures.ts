import { shallowRef } from 'vue';

/** Something that the program did not foresee, wherever it came from. It is shown, never swallowed; what was stored is not touched by it. */
export interface Failure {
  /** In a sentence. */
  says: string;
  /** For whoever mends it. */
  details: string;
}

/** The last failure that nobody has dealt with yet. */
export const failure = shallowRef<Failure>();

/** What browsers tell of themselves and that is none. */
const HARMLESS = /^ResizeObserver loop/;

/** Makes a failure of whatever was thrown. */
export function failureFrom(error: unknown): Failure {
  const message = (error instanceof Error && error.message ? error.message : String(error)).trim();
  const says = /[.!?]$/.test(message) ? message : `${message}.`;
  return { says, details: error instanceof Error ? (error.stack ?? error.name) : typeof error };
}

/** Shows a failure to the person, with a way on. */
export function report(error: unknown): void {
  const found = failureFrom(error);
  if (HARMLESS.test(found.says)) return;
  console.error(error);
  failure.value = found;
}

/** Listens for what nobody caught: in the page, in promises. */
export function watchFailures(): void {
  addEventListener('error', (event) => {
    if (event instanceof ErrorEvent) report(event.error ?? event.message);
  });
  addEventListener('unhandledrejection', ({ reason }: PromiseRejectionEvent) => {
    report(reason);
  });
}

/** Starts a worker; what fails in it ends where all failures do. */
export function reportErrors(worker: Worker): Worker {
  worker.addEventListener('error', (event) => {
    report(new Error(event.message || 'A part of the program could not be started. Reload the page; nothing stored is lost.'));
  });
  return worker;
}
