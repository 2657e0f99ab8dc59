import { wrap, type Endpoint, type Remote } from 'comlink';

/** Calls of a worker that has died would wait for ever: they fail instead. What is awaited of it says that it was lost. */
export class WorkerLost extends Error {
  override name = 'WorkerLost';
}

/**
 * The far side of a worker.
 *
 * @param onLost told once, when something in it failed that nobody caught: it is ended then
 * @param by     the port by which it is asked, where that is not the worker itself
 */
export function remoteOf<Api>(worker: Worker, onLost: (why: string) => void = () => undefined, by: Endpoint = worker): Remote<Api> {
  let lose: (reason: Error) => void = () => undefined;
  const lost = new Promise<never>((_, reject) => (lose = reject));
  lost.catch(() => undefined);
  const end = (why: string) => {
    worker.terminate();
    lose(new WorkerLost(why));
    onLost(why);
  };
  worker.addEventListener('error', (event) => {
    end(event.message || 'A part of the program could not be started. Reload the page; nothing stored is lost.');
  });
  worker.addEventListener('messageerror', () => {
    end('A part of the program answered what could not be read. Reload the page; nothing stored is lost.');
  });
  const remote = wrap<Api>(by) as unknown as Record<string, (...args: unknown[]) => Promise<unknown>>;
  return new Proxy(remote, {
    get: (there, name) =>
      typeof name === 'string' && name !== 'then' ? (...args: unknown[]) => Promise.race([there[name]?.(...args), lost]) : undefined,
  }) as unknown as Remote<Api>;
}
