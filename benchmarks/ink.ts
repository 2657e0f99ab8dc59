import { atMost, inColdBrowser, median, type Figure } from './harness';
import type { InkTimes } from './pages/ink/main';

/** A reading accepted until stored, beside a bare put in the same page; and the 10,000th of a run beside its 10th. */
export function ink({ ink: address }: { ink: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await page.goto(address);
    const times = await page.evaluate(() => (window as unknown as { measure: () => Promise<InkTimes> }).measure());
    const [logged = 0, bare = 1, early = 0, earlyBare = 1, late = 0, lateBare = 1] = [
      times.logged,
      times.bare,
      times.early,
      times.earlyBare,
      times.late,
      times.lateBare,
    ].map(median);
    const beside = (one: number, other: number) => `${one.toFixed(2)} ms beside put ${other.toFixed(2)} ms`;
    return [
      atMost(1.3, {
        name: 'ink',
        value: logged / bare,
        unit: 'ratio',
        worst: `logged ${beside(logged, bare)}, medians of ${times.logged.length}`,
      }),
      // Storage drifts under ten thousand writes, with or without us: each is taken beside the bare put next to it.
      atMost(1.2, {
        name: 'ink-10000',
        value: late / lateBare / (early / earlyBare),
        unit: 'ratio',
        worst: `10,000th ${beside(late, lateBare)}; 10th ${beside(early, earlyBare)}; medians of ${times.late.length}`,
      }),
    ];
  });
}
