import { atMost, inColdBrowser, median, type Figure } from './harness';
import type { InkTimes, Pair } from './pages/ink/main';

/** A reading accepted until stored twice, beside a bare put and a bare line of a private file, both at once, in the same page; and the 10,000th of a run beside its 10th. */
export function ink({ ink: address }: { ink: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await page.goto(new URL('/live', address).href);
    const times = await page.evaluate(() => (window as unknown as { measure: () => Promise<InkTimes> }).measure());
    // Storage drifts by more than what is measured: each is taken beside the bare put next to it, and the median is of those ratios.
    const ratio = (pairs: readonly Pair[]) => median(pairs.map(({ logged, bare }) => logged / bare));
    const beside = (pairs: readonly Pair[]) =>
      `${median(pairs.map(({ logged }) => logged)).toFixed(2)} ms beside put and line ${median(pairs.map(({ bare }) => bare)).toFixed(2)} ms`;
    return [
      atMost(1.3, {
        name: 'ink',
        value: ratio(times.all),
        unit: 'ratio',
        worst: `logged ${beside(times.all)}, medians of ${times.all.length}`,
      }),
      atMost(1.2, {
        name: 'ink-10000',
        value: ratio(times.late) / ratio(times.early),
        unit: 'ratio',
        worst: `10,000th ${beside(times.late)}; 10th ${beside(times.early)}; medians of ${times.late.length}`,
      }),
    ];
  });
}
