import { expect, it, vi } from 'vitest';
import { remoteOf, WorkerLost } from './remote';

/** A worker that never answers. */
class Silent extends EventTarget {
  postMessage = vi.fn();
  terminate = vi.fn();
}
interface Api {
  work: (what: string) => string;
}

it('a call of a worker that dies fails, and so does every later one: nobody waits for ever', async () => {
  const worker = new Silent();
  const lost = vi.fn();
  const remote = remoteOf<Api>(worker as unknown as Worker, lost);
  const waiting = remote.work('one');
  worker.dispatchEvent(Object.assign(new Event('error'), { message: 'out of memory' }));
  await expect(waiting).rejects.toThrow(WorkerLost);
  await expect(remote.work('another')).rejects.toThrow('out of memory');
  expect(lost).toHaveBeenCalledWith('out of memory');
  expect(worker.terminate).toHaveBeenCalledOnce();
});
