import { gzipSync } from 'node:zlib';
import { atMost, inColdBrowser, type Figure } from './harness';

/** JavaScript that the first screen fetches, compressed, with its workers. */
export function weight({ demo }: { demo: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const bodies: Promise<{ name: string; size: number }>[] = [];
    context.on('response', (response) => {
      if (!/\.js(\?|$)/.test(response.url())) return;
      bodies.push(response.body().then((body) => ({ name: response.url().split('/').at(-1) ?? '', size: gzipSync(body).length })));
    });
    const page = context.pages()[0] ?? (await context.newPage());
    await page.goto(new URL('/live', demo).href);
    await page.locator('#entry').waitFor();
    await page.locator('canvas').first().waitFor();
    await page.waitForLoadState('networkidle');
    const scripts = (await Promise.all(bodies)).sort((one, other) => other.size - one.size);
    const total = scripts.reduce((sum, { size }) => sum + size, 0);
    const heaviest = scripts.slice(0, 3).map(({ name, size }) => `${name} ${(size / 1024).toFixed(0)} KB`);
    return [
      atMost(260, {
        name: 'weight',
        value: total / 1024,
        unit: 'KB gzip',
        worst: `${scripts.length} scripts, heaviest ${heaviest.join(', ')}`,
      }),
    ];
  });
}
