import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { readRun, type ReadRun } from '../curve/figures';
import { inkOf } from '../ink/build';
import { exampleHeader } from '../ink/example';
import { foldRun } from '../ink/fold';
import { mannerNow, setManner } from '../quantity/manner';
import { tableHtml, tableTsv, type PlainTable } from '../quantity/plainTable';
import { figureTable, matrixTable } from './figureTable';
import { matrixOf } from './matrix';
import { columnsOf } from './measures';
import { setupsOf } from './setups';

const USUAL_MANNER = mannerNow();
afterEach(() => {
  setManner(USUAL_MANNER);
});

/** A run of so many minutes from 5 % to full, read every so many; with watts, and warm by hand. */
function runOf(name: string, full: number, every: number, lag = 0): ReadRun {
  const charger = { id: name, name, kind: 'adapter' as const, watts: 20 };
  const header = exampleHeader({ id: `${name}-${full}-${every}-${lag}`, charger, cadence: { kind: 'fixed', every: every * 60 } });
  const times = Array.from({ length: Math.ceil(full / every) + 2 }, (_, index) => index * every);
  return readRun(
    foldRun(
      header,
      inkOf(
        header,
        times.map((minutes) => ({
          seconds: minutes * 60 + lag,
          percent: Math.min(100, Math.floor(5 + (95 * minutes) / full)),
          watts: minutes < full ? 18.25 - minutes / 20 : 0.4,
          celsius: 24 + Math.min(9, minutes / 7),
        })),
      ),
    ),
  );
}

function tableOf(all: readonly ReadRun[]) {
  const setups = setupsOf(all);
  const columns = columnsOf(setups, '%', { from: 10, to: 100 });
  const names = setups.map(({ runs }) => runs[0]?.run.header.charger.name ?? '');
  const [measures, cells] = [columns.map(({ measure }) => measure), columns.map((each) => each.cells)];
  return { setups, measures, cells, table: figureTable('Figures', names, measures, cells) };
}

/** A table that was pasted, by row and head. */
function pasted(text: string): Record<string, string>[] {
  const [heads = [], ...rows] = text.split('\n').map((line) => line.split('\t'));
  return rows.map((row) => Object.fromEntries(heads.map((head, at) => [head, row[at] ?? ''])));
}

/** The number that a figure says: minutes of a time, else as it stands. */
function numberIn(told: string): number {
  const hours = /(\d+) h(?: (\d+))?/.exec(told);
  const [minutes, seconds] = [/(\d+) min/.exec(told), /(\d+) s\b/.exec(told)];
  if (!hours && !minutes && !seconds) return Number(/-?\d+(\.\d+)?/.exec(told.replace('−', '-'))?.[0]);
  return Number(hours?.[1] ?? 0) * 60 + Number(hours?.[2] ?? minutes?.[1] ?? 0) + Number(seconds?.[1] ?? 0) / 60;
}

describe('a comparison that is handed on', () => {
  it('has the same figures as its cells, each within its bounds, whatever was read', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ full: fc.integer({ min: 40, max: 300 }), every: fc.integer({ min: 1, max: 30 }), twice: fc.boolean() }), {
          minLength: 2,
          maxLength: 5,
        }),
        (runs) => {
          const all = runs.flatMap(({ full, every, twice }, index) =>
            [0, ...(twice ? [20] : [])].map((lag) => runOf(`charger ${index}`, full, every, lag)),
          );
          const { measures, cells, table } = tableOf(all);
          const rows = pasted(tableTsv(table));
          let compared = 0;
          for (const [at, { title, better }] of measures.entries())
            for (const [index, cell] of (cells[at] ?? []).entries()) {
              const row = rows[index] ?? {};
              if (better) expect(row[`${title}: rank`]).toBe(cell.place ?? '');
              if (row[title] === '') continue;
              compared += 1;
              const value = Number(row[title]);
              expect([title, cell.value, Math.abs(value - numberIn(cell.value ?? '')) < 0.02]).toEqual([title, cell.value, true]);
              expect(Number(row[`${title}: lower`])).toBeLessThanOrEqual(value);
              expect(Number(row[`${title}: upper`])).toBeGreaterThanOrEqual(value);
              // A margin that is told is the one that is handed on: never a surer one.
              const told = /^± (\d+(?:\.\d+)?)/.exec(cell.range)?.[1];
              if (told !== undefined && title.startsWith('Gained'))
                expect([title, cell.range, Math.abs(Number(row[`${title}: upper`]) - value - Number(told)) < 0.01]).toEqual([
                  title,
                  cell.range,
                  true,
                ]);
            }
          expect(compared).toBeGreaterThan(0);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('never sets a rank beside a figure in one cell: a matrix has a row for each device and charger', () => {
    const { setups, measures } = tableOf([runOf('slow', 120, 5), runOf('fast', 60, 5)]);
    const measure = measures.find(({ id }) => id === 'level-80');
    if (!measure) throw new Error('no time to 80 %');
    const rows = pasted(tableTsv(matrixTable(matrixOf(setups, measure), measure)));
    expect(rows.map((row) => [row.Charger, row[`${measure.title}: rank`], row[`${measure.title}: unit`]])).toEqual([
      ['slow', '2', 'min'],
      ['fast', '1', 'min'],
    ]);
    expect(Object.values(rows[0] ?? {}).some((cell) => /^\d+=?\d+ (min|h)/.test(cell))).toBe(false);
  });
});

describe('a table on the clipboard', () => {
  const table: PlainTable = {
    caption: 'Runs & <more>',
    heads: ['Setup', 'Watts'],
    rows: [
      ['=1+1', 12.5],
      ['a\tb\nc', undefined],
      ['<script>alert("x")</script>', -3],
    ],
  };

  it('is text that a spreadsheet takes cell for cell, and runs nothing of', () => {
    expect(tableTsv(table)).toBe('Setup\tWatts\n\'=1+1\t12.5\na b c\t\n<script>alert("x")</script>\t-3');
    setManner({ ...USUAL_MANNER, decimal: ',' });
    expect(tableTsv(table).split('\n')[1]).toBe("'=1+1\t12,5");
  });

  it('is HTML of which nothing is markup but the table', () => {
    const html = tableHtml(table);
    expect(html).toContain('<caption>Runs &amp; &lt;more&gt;</caption>');
    expect(html).toContain('<th scope="row">&lt;script&gt;alert(&quot;x&quot;)&lt;/script&gt;</th><td align="right">-3</td>');
    expect(html.match(/<tr>/g)).toHaveLength(4);
  });
});
