import { atMost, inColdBrowser, median, type Figure } from './harness';

const ROUNDS = 5;

type Round = Record<'parquet' | 'writer' | 'csv' | 'join' | 'held', number>;

/** A million samples of a run, in a worker: to Parquet beside its writer alone on the same columns, and to CSV beside one loop that joins them. */
export function exportFigures({ files }: { files: string }): Promise<Figure[]> {
  return inColdBrowser(async (context) => {
    const page = context.pages()[0] ?? (await context.newPage());
    await page.goto(files);
    const rounds: Round[] = [];
    for (let round = 0; round < ROUNDS; round += 1) rounds.push(await page.evaluate<Round>('exportsBeside()'));
    const most = await page.evaluate<number>('heldOfMost()');
    const held = Math.max(...rounds.map((each) => each.held));
    const ms = (what: keyof Round) => median(rounds.map((each) => each[what])).toFixed(0);
    return [
      atMost(1.5, {
        name: 'export Parquet',
        value: median(rounds.map(({ parquet, writer }) => parquet / writer)),
        unit: 'ratio',
        worst: `a million samples ${ms('parquet')} ms beside the writer alone, ${ms('writer')} ms, in a worker; medians of ${ROUNDS}`,
      }),
      atMost(1.5, {
        name: 'export CSV',
        value: median(rounds.map(({ csv, join }) => csv / join)),
        unit: 'ratio',
        worst: `a million samples ${ms('csv')} ms beside a loop that joins them, ${ms('join')} ms, in a worker; medians of ${ROUNDS}`,
      }),
      atMost(1.2, {
        name: 'export, bytes held',
        value: most / held,
        unit: 'ratio',
        worst: `of the most values that a run may have beside a million: ${(most / 1e6).toFixed(1)} and ${(held / 1e6).toFixed(1)} MB of the file at once`,
      }),
    ];
  });
}
