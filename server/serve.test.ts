import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { createServer, request } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import { appOf, PORTS, serve, type Door } from './serve';

const folder = mkdtempSync(join(tmpdir(), 'inkpath-'));
mkdirSync(join(folder, 'assets'));
writeFileSync(join(folder, 'index.html'), '<meta name="inkpath" content="own"><meta name="inkpath-nonce" content="">');
writeFileSync(join(folder, 'assets', 'app.js'), 'export {}');

const closers: (() => unknown)[] = [];
afterEach(() => Promise.all(closers.splice(0).map((close) => close())));

/** The app on any free port, for looking at its answers. */
function answering(door?: Door): Promise<string> {
  const server = createServer(appOf(folder, 'demo', door));
  closers.push(() => new Promise((resolve) => server.close(resolve)));
  return new Promise((resolve) =>
    server.listen(0, '127.0.0.1', () => resolve(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`)),
  );
}

/** Asks under a name of one's choice. */
function asked(address: string, place: string, host: string): Promise<{ status: number; text: string; policy: string }> {
  return new Promise((resolve, reject) => {
    request(`${address}${place}`, { headers: { host } }, (response) => {
      let text = '';
      response
        .on('data', (part: Buffer) => (text += part.toString()))
        .on('end', () => {
          resolve({ status: response.statusCode ?? 0, text, policy: String(response.headers['content-security-policy']) });
        });
    })
      .on('error', reject)
      .end();
  });
}

describe('what the server answers', () => {
  it('is the page for every place, told which logbook it is and given a fresh nonce', async () => {
    const address = await answering();
    const [one, other] = await Promise.all([fetch(address), fetch(`${address}curve/some-run`)]);
    const [text, again] = [await one.text(), await other.text()];
    expect(text).toContain('name="inkpath" content="demo"');
    const nonce = /inkpath-nonce" content="([^"]+)"/.exec(text)?.[1] ?? '';
    expect(one.headers.get('content-security-policy')).toContain(`style-src 'self' 'nonce-${nonce}'`);
    expect(again).not.toContain(nonce);
  });

  it('is the whole page by its name too, for it is kept for when there is no network', async () => {
    const text = await (await fetch(`${await answering()}index.html`)).text();
    expect(text).toContain('name="inkpath" content="demo"');
    expect(text).not.toContain('name="inkpath-nonce" content=""');
  });

  it('says in a sentence that its folder was moved', async () => {
    const server = createServer(appOf(join(folder, 'moved'), 'demo'));
    closers.push(() => new Promise((resolve) => server.close(resolve)));
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const answer = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/live`);
    expect([answer.status, await answer.text()]).toEqual([503, expect.stringMatching(/was moved or taken away/)]);
  });

  it('is closed to everything from elsewhere', async () => {
    const headers = (await fetch(await answering())).headers;
    const policy = headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'none'");
    expect(policy).not.toMatch(/unsafe|https:/);
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-powered-by')).toBeNull();
  });

  it('keeps built files for good, and does not pass a page off as a missing one', async () => {
    const address = await answering();
    expect((await fetch(`${address}assets/app.js`)).headers.get('cache-control')).toContain('immutable');
    expect((await fetch(`${address}assets/gone.js`)).status).toBe(404);
  });

  it('leads another name for the same machine to the one address', async () => {
    const address = await answering({ leadTo: '127.0.0.1:9', names: new Set(['log.example']) });
    for (const place of ['run', 'inkpath']) {
      const answer = await fetch(`${address}${place}`, { redirect: 'manual' });
      expect(answer.status).toBe(308);
      expect(answer.headers.get('location')).toBe(`http://127.0.0.1:9/${place}`);
    }
    expect((await asked(address, 'run', 'log.example')).status).toBe(200);
  });

  it('goes by no name but those of this machine and those given to it, wherever it listens', async () => {
    const running = await serve(folder, 'benchmark', { host: '0.0.0.0', names: ['Studio.lan'], demoPort: 4811 });
    if (running.state !== 'listening') throw new Error(running.state);
    closers.push(running.close);
    const address = `http://127.0.0.1:${PORTS.benchmark}/`;
    for (const name of ['127.0.0.1', 'localhost', 'studio.lan', `studio.lan:${PORTS.benchmark}`])
      expect((await asked(address, 'run', name)).status).toBe(200);
    for (const place of ['run', 'inkpath', 'index.html']) {
      const answer = await asked(address, place, 'elsewhere.example');
      expect(answer.status).toBe(421);
      expect(answer.text).toMatch(/not called elsewhere.example. Start it with NAMES=/);
    }
  });

  it('answers an address that cannot be read with a sentence, and no trace of the program', async () => {
    const address = await answering();
    for (const place of ['%E0%A4%A', 'curve/%E0%A4%A']) {
      const answer = await asked(address, place, '127.0.0.1');
      expect(answer.status).toBe(400);
      expect(answer.text).toBe('This address cannot be read. Go to the start page instead.');
      expect(answer.policy).toContain("default-src 'none'");
    }
    expect((await asked(address, 'inkpath', '127.0.0.1')).policy).toContain("default-src 'none'");
  });
});

describe('the fixed address', () => {
  it('is served once; a second start finds the first', async () => {
    const first = await serve(folder, 'benchmark');
    if (first.state !== 'listening') throw new Error(first.state);
    closers.push(first.close);
    expect(await serve(folder, 'benchmark')).toEqual({ state: 'already there', address: `http://127.0.0.1:${PORTS.benchmark}/` });
  });

  it('is never given up for another port when a stranger has it', async () => {
    const stranger = createServer((_request, response) => response.end('hello'));
    closers.push(() => new Promise((resolve) => stranger.close(resolve)));
    await new Promise<void>((resolve) => stranger.listen(PORTS.benchmark, '127.0.0.1', resolve));
    expect(await serve(folder, 'benchmark')).toMatchObject({
      state: 'refused',
      why: expect.stringContaining('taken by another program') as string,
    });
  });

  it('answers what is under way before it stops', async () => {
    const running = await serve(folder, 'benchmark');
    if (running.state !== 'listening') throw new Error(running.state);
    const answered = new Promise<number>((resolve) => {
      request(running.address, (response) => {
        response.resume().on('end', () => resolve(response.statusCode ?? 0));
      }).end();
    });
    expect(await answered).toBe(200);
    await running.close();
    await expect(fetch(running.address)).rejects.toThrow();
  });

  it('ends though somebody has begun to ask and does not go on', async () => {
    const running = await serve(folder, 'benchmark');
    if (running.state !== 'listening') throw new Error(running.state);
    const slow = connect(PORTS.benchmark, '127.0.0.1');
    const ended = new Promise((resolve) => slow.on('close', resolve));
    slow.on('error', () => undefined);
    await new Promise<void>((resolve) => slow.on('connect', resolve));
    await new Promise<void>((resolve) => slow.write('GET /run HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ', () => resolve()));
    await running.close();
    await ended;
  });
});
