import { atMost, inColdBrowser, median, type Figure } from './harness';
import type { ImportTimes } from './pages/import/main';

const ROWS = 1_000_000;
const ROUNDS = 3;

/** A million rows of a meter’s CSV to stored typed columns in a worker, beside Papa Parse alone in that worker. */
export function importFigures({ import: address }: { import: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await page.goto(address);
    const times = await page.evaluate(
      ([rows, rounds]) =>
        (window as unknown as { measure: (rows: number, rounds: number) => Promise<ImportTimes[]> }).measure(rows ?? 0, rounds ?? 1),
      [ROWS, ROUNDS],
    );
    const [mine, papa] = [median(times.map((each) => each.mine)), median(times.map((each) => each.papa))];
    const longest = Math.max(...times.map((each) => each.longest));
    const worst = `${ROWS} rows ${mine.toFixed(2)} s beside ${papa.toFixed(2)} s, medians of ${ROUNDS}; the page answered within ${longest.toFixed(0)} ms`;
    return [
      atMost(1.4, { name: 'import', value: median(times.map((each) => each.mine / each.papa)), unit: 'ratio', worst }),
      atMost(50, { name: 'import, longest block', value: longest, unit: 'ms', worst }),
    ];
  });
}
