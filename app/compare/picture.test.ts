import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldRun, inkOf } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { columnsOf, setupsOf } from '@core/compare';
import { readRun } from '../../core/curve/figures';
import { barsBody } from '../strip/barsPicture';
import { scatterBody } from './scatter';
import type { WordBox } from '../strip/layers/drawing';
import { recording } from '../strip/layers/recording';
import { plotBody } from '../strip/plot';
import { asSeen, drawPicture, GROUNDS, pictureSvg, PICTURE_SHAPES, stripBody, wrapped, type PictureShape } from '../strip/picture';
import { tableBody } from '../strip/tablePicture';
import { traceOf } from '../strip/trace';

const runOf = (name: string, full: number) => {
  const header = exampleHeader({ id: `${name}-${full}`, charger: { id: name, name, kind: 'adapter', watts: 20 } });
  const times = Array.from({ length: 20 }, (_, index) => index * Math.ceil(full / 15));
  return foldRun(
    header,
    inkOf(
      header,
      times.map((minutes) => ({
        seconds: minutes * 60,
        percent: Math.min(100, Math.floor(2 + (98 * minutes) / full)),
        watts: 20 - minutes / 20,
      })),
    ),
  );
};
const names = fc.uniqueArray(
  fc.constantFrom(
    'Cobble 12',
    'Quern 65',
    'A charger with a long name of sixty characters, more or less',
    'مثال شاحن',
    '充電器の名前',
    'x'.repeat(60),
  ),
  { minLength: 1, maxLength: 6 },
);
const shapes = fc.oneof(
  fc.constantFrom(...PICTURE_SHAPES),
  fc.record({ width: fc.integer({ min: 200, max: 1800 }), height: fc.integer({ min: 120, max: 1200 }) }).map(asSeen),
);
const texts = fc.record({
  title: fc.constantFrom(
    '7 runs of Sedge 5',
    'x'.repeat(200),
    'Sedge 5 with a name that is long enough to be wrapped in every shape there is, and once more',
  ),
  lines: fc.array(
    fc.constantFrom(
      'Fastest to full: Quern 30, Quern 65 or Cobble 20; these readings cannot tell them apart.',
      'For the money: Cobble 20, £25.',
    ),
    { maxLength: 4 },
  ),
  foot: fc.constantFrom(
    '',
    'Sure to at least 19 in 20, by what was read and how far runs vary. By the time to 100 %, of 7 runs. 1 Dec 2026',
  ),
});

/** No two words of a picture meet, and none is cut. */
function expectApart(boxes: readonly WordBox[], { width, height }: PictureShape): void {
  for (const [index, one] of boxes.entries()) {
    expect([one.text, one.left >= -0.5, one.right <= width + 0.5, one.top >= -0.5, one.bottom <= height + 0.5]).toEqual([
      one.text,
      true,
      true,
      true,
      true,
    ]);
    for (const other of boxes.slice(index + 1)) {
      const isApart =
        one.right <= other.left + 0.6 || other.right <= one.left + 0.6 || one.bottom <= other.top + 0.6 || other.bottom <= one.top + 0.6;
      expect([one.text, other.text, isApart]).toEqual([one.text, other.text, true]);
    }
  }
}

/** With every test run a third of what `npm run thorough` draws. */
const third = (whole: number) => (process.env.THOROUGH ? whole : Math.round(whole / 3));

describe('a picture', () => {
  it('of a strip has no words on each other or cut, in any shape, with any words about it', () => {
    fc.assert(
      fc.property(names, shapes, texts, fc.constantFrom(...GROUNDS), (all, shape, text, ground) => {
        const traces = all.map((name, index) => traceOf(runOf(name, 60 + 20 * index), name, index));
        const body = stripBody(traces, { size: 'sheet', until: 9000, penned: traces.length > 1 });
        expectApart(drawPicture(recording(), shape, text, ground, body), shape);
      }),
      { numRuns: third(80) },
    );
  });

  it('of bars has each name, figure and rank at a place of its own, whatever is drawn', () => {
    fc.assert(
      fc.property(names, shapes, texts, fc.integer({ min: 1, max: 6 }), (all, shape, text, count) => {
        const setups = setupsOf(all.map((name, index) => readRun(runOf(name, 60 + 20 * index))));
        const columns = columnsOf(setups, '%', { from: 10, to: 100 })
          .filter(({ measure }) => measure.better)
          .slice(0, count);
        const blocks = columns.map(({ measure, cells }) => ({
          measure,
          top: Math.max(1, ...cells.map(({ mean }) => mean?.value ?? 0)) * 1.1,
          groups: [{ of: 'Sedge 5', bars: all.map((name, index) => ({ name, cell: cells[index], pen: index })) }],
        }));
        expectApart(drawPicture(recording(), shape, text, 'paper', barsBody(blocks)), shape);
      }),
      { numRuns: third(80) },
    );
  });

  it('of lines against axes has every line named, and no two words that meet', () => {
    const line = fc.record({
      name: fc.constantFrom('Cobble 12', 'Quern 65 with a long name of its own', 'x'.repeat(60), 'مثال شاحن'),
      values: fc.array(fc.double({ min: -20, max: 140, noNaN: true }), { minLength: 2, maxLength: 30 }),
      isRight: fc.boolean(),
      hasMargin: fc.boolean(),
    });
    const axis = (title: string) => ({ title, min: -20, max: 140, step: 20, write: (value: number) => `${value} W` });
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 12 }), shapes, texts, (all, shape, text) => {
        const to = recording();
        const body = plotBody({
          across: { title: 'level, %', min: 0, max: 100, step: 10, write: String },
          left: axis('watts at the cable'),
          right: all.some(({ isRight }) => isRight) ? axis('rise, °C') : undefined,
          lines: all.map(({ name, values, isRight, hasMargin }, pen) => ({
            ...{ name, pen, isRight },
            points: values.map((value, index) => [(100 * index) / (values.length - 1), value]),
            ...(hasMargin && { margins: values.map(() => 3) }),
          })),
        });
        const boxes = drawPicture(to, shape, text, 'paper', body);
        expectApart(boxes, shape);
        for (const drawn of to.drawn) if (drawn.kind === 'line') expect(drawn.points.flat().every(Number.isFinite)).toBe(true);
        expect(to.drawn.filter(({ kind }) => kind === 'area')).toHaveLength(all.filter(({ hasMargin }) => hasMargin).length);
        const called = new Set(all.map(({ name }) => name));
        if (called.size > 1 && shape.width >= 540 && shape.height >= 540)
          expect(boxes.filter(({ text: said, layer }) => layer !== 'text' && /^(Cobble|Quern|xx|مثال)/.test(said))).toHaveLength(
            called.size,
          );
      }),
      { numRuns: third(120) },
    );
  });

  it('of a scatter has no name on another, on a nib or on a whisker, wherever its points lie', () => {
    const points = fc.array(
      fc.record({
        name: fc.constantFrom('Cobble 12', 'Quern 65 with a long name of its own', 'x'.repeat(60)),
        x: fc.integer({ min: 0, max: 90 }),
        y: fc.integer({ min: 600, max: 20_000 }),
        xMargin: fc.constantFrom(0, 2),
        yMargin: fc.integer({ min: 0, max: 900 }),
        isOn: fc.boolean(),
      }),
      { minLength: 1, maxLength: 14 },
    );
    fc.assert(
      fc.property(points, shapes, texts, (all, shape, text) => {
        const to = recording();
        const numbered = all.map((each, index) => ({ ...each, index }));
        const body = scatterBody({
          points: numbered,
          pens: all.map((_, index) => index),
          across: 'price of what is not at home yet',
          write: (x) => `€${x}`,
        });
        const boxes = drawPicture(to, shape, text, 'paper', body);
        expectApart(boxes, shape);
        const named = boxes.filter(({ text: said, layer }) => layer === 'scatter' && /^(Cobble|Quern|xx)/.test(said));
        for (const drawn of to.drawn)
          if (drawn.kind === 'nib' && all.length <= 8)
            for (const { left, right, top, bottom } of named)
              expect(drawn.x > left && drawn.x < right && drawn.y > top && drawn.y < bottom).toBe(false);
        // With room enough a few are all named.
        if (all.length <= 2 && shape.width >= 720 && shape.height >= 540) expect(named).toHaveLength(all.length);
      }),
      { numRuns: third(120) },
    );
  });

  it('of a table has each cell in its column, as many rows as there is room for, and says how many more', () => {
    const cells = fc.constantFrom('57 min; 51–56 min', 'rank 1=: 2 h 03; 2 h 00–2 h 06', '—', 'x'.repeat(40), '');
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 60 }),
        shapes,
        texts,
        fc.infiniteStream(cells),
        (columns, rows, shape, text, stream) => {
          const table = {
            caption: 'x',
            heads: Array.from({ length: columns }, (_, index) => `Head ${index}`),
            rows: Array.from({ length: rows }, () => Array.from({ length: columns }, () => stream.next().value as string)),
          };
          expectApart(drawPicture(recording(), shape, text, 'paper', tableBody(table)), shape);
        },
      ),
      { numRuns: third(80) },
    );
    const [square] = PICTURE_SHAPES;
    if (!square) throw new Error('a shape');
    const long = { caption: 'x', heads: ['Setup', 'Time'], rows: Array.from({ length: 90 }, (_, index) => [`setup ${index}`, '57 min']) };
    const said = drawPicture(recording(), square, { title: 'x', lines: [], foot: '' }, 'paper', tableBody(long)).map(({ text }) => text);
    const drawn = said.filter((each) => each.startsWith('setup')).length;
    expect(said.at(-1)).toBe(`and ${90 - drawn} more`);
  });

  it('without a ground has nothing behind it; with one the whole of it is covered', () => {
    const [shape] = PICTURE_SHAPES;
    if (!shape) throw new Error('a shape');
    const groundOf = (ground: (typeof GROUNDS)[number]) => {
      const to = recording();
      drawPicture(to, shape, { title: 'x', lines: [], foot: '' }, ground, () => []);
      return to.drawn.filter((each) => each.kind === 'rect').map(({ at, fill }) => [at.right, at.bottom, fill]);
    };
    expect([groundOf('paper'), groundOf('dark'), groundOf('transparent')]).toEqual([[[720, 720, '#FCF9F1']], [[720, 720, '#171B21']], []]);
  });

  it('as SVG has the size of its shape, and what it is of as its title', () => {
    const shape = PICTURE_SHAPES.find(({ id }) => id === 'large');
    if (!shape) throw new Error('a shape');
    const svg = pictureSvg(
      { shape, text: { title: 'A & <b>', lines: ['one'], foot: 'foot' }, ground: 'paper', body: () => [] },
      (text) => text.length * 8,
    );
    expect(svg).toMatch(/^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg" width="3840" height="2160" viewBox="0 0 960 540"/);
    expect(svg).toContain('<title>A &amp; &lt;b&gt;</title><desc>one foot</desc>');
  });
});

it('wraps a text at its blanks, breaks what is too long, and cuts what is too much', () => {
  const to = recording();
  const look = { colour: '', size: 10, family: 'words' } as const;
  expect(wrapped(to, 'one two three four', 56, look, 9)).toEqual(['one two', 'three four']);
  expect(wrapped(to, 'x'.repeat(25), 56, look, 9)).toEqual(['x'.repeat(10), 'x'.repeat(10), 'x'.repeat(5)]);
  expect(wrapped(to, 'one two three four five', 56, look, 2)).toEqual(['one two', 'three fou…']);
});
