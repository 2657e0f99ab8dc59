import type { Entry } from '@core';

export type ListName = 'shelf' | 'methods' | 'studies';
/** What tabs tell each other: new ink of a live run, or that a list has changed. */
export type Message = { about: 'ink'; runId: string; entry: Entry } | { about: 'runs' | ListName };

const channel = new BroadcastChannel('inkpath');

export function tellTabs(message: Message): void {
  channel.postMessage(message);
}

/** Listens to the other tabs of this logbook. */
export function onTabs(listen: (message: Message) => void): void {
  channel.addEventListener('message', ({ data }: MessageEvent<Message>) => {
    listen(data);
  });
}
