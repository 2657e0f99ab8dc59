import { getCurrentScope, onScopeDispose } from 'vue';
import type { Entry } from '@core/ink';

export type ListName = 'shelf' | 'methods' | 'studies' | 'comparisons' | 'pieces';
/** What tabs tell each other: new ink of a live run, or that a list has changed. */
export type Message = { about: 'ink'; runId: string; entry: Entry } | { about: 'runs' | ListName };

const channel = new BroadcastChannel('inkpath');

export function tellTabs(message: Message): void {
  channel.postMessage(message);
}

/** Listens to the other tabs of this logbook, as long as the scope lives in which it began to. @returns stops listening */
export function onTabs(listen: (message: Message) => void): () => void {
  const hear = ({ data }: MessageEvent<Message>) => {
    listen(data);
  };
  channel.addEventListener('message', hear);
  const stop = () => {
    channel.removeEventListener('message', hear);
  };
  if (getCurrentScope()) onScopeDispose(stop);
  return stop;
}
