import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, test, type Page } from '@playwright/test';
import { CHROMIUM_ARGS } from '../playwright.config';
import { PORTS } from '../server/serve';

/** Browsers that were not killed yet: a test that fails leaves none behind. */
const running = new Set<ChildProcess>();
test.afterEach(() => {
  for (const { pid } of running) if (pid) process.kill(-pid, 'SIGKILL');
  running.clear();
});

/** Where a browser keeps what it stores, over every life of it. */
export const newProfile = (): string => mkdtempSync(join(tmpdir(), 'inkpath-profile-'));

/** A browser of its own process, so that it can be killed as a crash or a dead battery would. Its pages go to the tests’ own address. */
export async function browse(profile: string): Promise<{ page: Page; kill: () => Promise<void> }> {
  const path = process.env.CHROMIUM_WHOLE ?? '/usr/bin/chromium';
  const child: ChildProcess = spawn(
    path,
    [...CHROMIUM_ARGS, '--headless=new', '--remote-debugging-port=0', `--user-data-dir=${profile}`, 'about:blank'],
    {
      detached: true,
      stdio: ['ignore', 'ignore', 'pipe'],
    },
  );
  const address = await new Promise<string>((resolve, reject) => {
    let heard = '';
    child.stderr?.on('data', (chunk: Buffer) => {
      heard += chunk.toString();
      const found = /DevTools listening on (ws:\S+)/.exec(heard)?.[1];
      if (found) resolve(found);
    });
    child.on('exit', () => reject(new Error(`Chromium ended at once: ${heard}`)));
  });
  const browser = await chromium.connectOverCDP(address);
  const context = browser.contexts()[0] ?? (await browser.newContext());
  running.add(child);
  const kill = () =>
    new Promise<void>((resolve) => {
      running.delete(child);
      child.removeAllListeners('exit').on('exit', () => resolve());
      process.kill(-(child.pid ?? 0), 'SIGKILL');
    });
  const page = await context.newPage();
  const goto = page.goto.bind(page);
  page.goto = (path, options) => goto(path.startsWith('/') ? `http://127.0.0.1:${PORTS.test}${path}` : path, options);
  return { page, kill };
}
