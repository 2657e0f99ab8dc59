import { atMost, inColdBrowser, median, type Figure } from './harness';

const ROUNDS = 9;

/** Notes the time at which the field is there. A text, for what a compiler adds to a function is not in the page. */
const WATCH = `(function look() {
  if (document.querySelector('#entry:not(:disabled)')) window.usableAt = performance.now();
  else requestAnimationFrame(look);
})()`;

/** Milliseconds from navigation until the field can be typed in, in a browser that has never been there. */
function untilUsable(address: string): Promise<number> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await page.addInitScript(WATCH);
    await page.goto(new URL('/live', address).href);
    const found = await page.waitForFunction(() => (window as unknown as { usableAt?: number }).usableAt);
    return (await found.jsonValue()) ?? Number.NaN;
  });
}

/** Cold until the demo can be used, beside a bare Vuetify page built and served the same way that opens a database and reads one value. */
export async function start(addresses: { demo: string; bare: string }): Promise<Figure[]> {
  const [demo, reads, bare] = [[] as number[], [] as number[], [] as number[]];
  for (let round = 0; round < ROUNDS; round += 1) {
    bare.push(await untilUsable(addresses.bare));
    reads.push(await untilUsable(`${addresses.bare}?database`));
    demo.push(await untilUsable(addresses.demo));
  }
  const [own, least, alone] = [median(demo), median(reads), median(bare)];
  const worst = `demo ${own.toFixed(0)} ms (slowest ${Math.max(...demo).toFixed(0)}) beside a page that reads ${least.toFixed(0)} ms, medians of ${ROUNDS}; beside the page alone (${alone.toFixed(0)} ms) ${(own / alone).toFixed(2)}`;
  return [atMost(1.3, { name: 'start', value: own / least, unit: 'ratio', worst })];
}
