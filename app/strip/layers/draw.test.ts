import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldRun, inkOf } from '@core/ink';
import { negotiate } from '@core/power';
import { expectedRun } from '@core/run';
import { expectedCharge } from '@core/simulate';
import { exampleHeader, exampleStrike } from '../../../core/ink/example';
import { PALETTES } from '../../kit/theme';
import { expectedTrace, timeRules, traceOf, tracedWithPencil, type Trace } from '../trace';
import { drawStrip } from './draw';
import { tracksOf, type StripLook } from './look';
import { spreadOut } from './names';
import { recording, type Drawn } from './recording';
import { svgSurface } from './svgSurface';

const header = exampleHeader();
const look: StripLook = { size: 'sheet', theme: 'paper', until: 3600, penned: false };
const SIZE = { width: 900, height: 420 };
const strike = exampleStrike(header, 'run-1-2');
const run = foldRun(header, [
  ...inkOf(header, [
    { seconds: 0, percent: 2, watts: 9 },
    { seconds: 300, percent: 90 },
    { seconds: 600, percent: 17, watts: 18 },
  ]),
  strike,
]);
const trace = traceOf(run, 'Cobble 20', 2, { now: 1100 });

function draw(traces: readonly Trace[], changes: Partial<StripLook> = {}, size = SIZE) {
  const to = recording();
  return { ...drawStrip(to, traces, { ...look, ...changes }, size), drawn: to.drawn };
}
const of = <Kind extends Drawn['kind']>(drawn: Drawn[], kind: Kind) =>
  drawn.filter((each): each is Extract<Drawn, { kind: Kind }> => each.kind === kind);
const words = (boxes: { text: string }[]) => boxes.map(({ text }) => text);

describe('a run on the strip', () => {
  it('joins what a person read in pencil, with a nib at each, and a meter’s stream in ink', () => {
    const { drawn, frame } = draw([trace]);
    const [percent] = of(drawn, 'line');
    expect(percent).toMatchObject({ look: { colour: '#6A675F', dash: [4, 3] }, parts: 1 });
    // By scale: the last at 10 min, 17 %.
    const level = frame.trackOf('percent');
    expect(percent?.points.at(-1)?.map(Math.round)).toEqual([frame.xOf(600), level?.yOf(17) ?? 0].map(Math.round));
    expect(of(drawn, 'nib').map(({ shape }) => shape)).toEqual(['triangle', 'triangle', 'triangle', 'triangle', 'struck']);
    const streamed = draw([{ ...trace, streamed: new Set(['percent'] as const) }]).drawn;
    expect(of(streamed, 'line')[0]).toMatchObject({ look: { colour: '#0A6E52', dash: [] } });
    expect(of(streamed, 'nib').filter(({ y }) => level && y <= level.bottom && y >= level.top)).toHaveLength(1);
    // Unless somebody read beside it: pencil to and from that reading.
    const both = draw([{ ...trace, streamed: new Set(['percent'] as const), byHand: { percent: new Set([0]) } }]).drawn;
    expect(of(both, 'line').slice(0, 2)).toMatchObject([{ look: { colour: '#0A6E52' } }, { look: { colour: '#6A675F', dash: [4, 3] } }]);
  });

  it('draws lines with their pens where several must be told apart, and names each at its end', () => {
    const { drawn, boxes, frame } = draw([trace, { ...trace, id: 'other', name: 'Quern 30', pen: 8 }], { penned: true });
    const lines = of(drawn, 'line').filter(({ look: { width } }) => width === 2);
    expect(lines.map(({ look: { colour, dash } }) => [colour, dash])).toContainEqual(['#0A6E52', [2, 4]]);
    const named = boxes.filter(({ layer }) => layer === 'names');
    expect(words(named)).toEqual(['Cobble 20', 'Quern 30']);
    for (const { left } of named) expect(left).toBe(frame.namesAt);
    // On a narrow paper there is no room for them but on it.
    const narrow = draw([trace, { ...trace, id: 'other', name: 'Quern 30' }], { penned: true }, { width: 360, height: 300 });
    expect(narrow.boxes.find(({ text }) => text === 'Quern 30')?.right).toBeCloseTo(narrow.frame.right - 4);
  });

  it('keeps a struck reading as a cross, joined to nothing', () => {
    const { drawn, frame } = draw([trace]);
    expect(of(drawn, 'nib').find(({ shape }) => shape === 'struck')).toMatchObject({
      x: frame.xOf(300),
      y: frame.trackOf('percent')?.yOf(90),
    });
    expect(of(drawn, 'line').some(({ points }) => points.some(([x]) => x === frame.xOf(300)))).toBe(false);
  });

  it('shades checks that were missed, and the place of a figure, from edge to edge of their track', () => {
    expect(trace.missed).toEqual([
      { from: 150, to: 450 },
      { from: 750, to: 1050 },
    ]);
    const { drawn, frame, boxes } = draw([trace], { band: { from: 300, to: 600, label: '80 %', level: 80 } });
    const { due } = PALETTES.paper;
    expect(of(drawn, 'rect').filter(({ fill }) => fill === `${due}14`)).toHaveLength(2);
    const band = of(drawn, 'rect').filter(({ fill }) => fill === `${due}1F`);
    expect(band.map(({ at }) => [at.left, at.right])).toEqual(Array.from({ length: 2 }, () => [frame.xOf(300), frame.xOf(600)]));
    const at = frame.trackOf('percent')?.yOf(80);
    expect(of(drawn, 'line').some(({ points }) => points.every(([, y]) => y === at))).toBe(true);
    expect(words(boxes)).toContain('missed, 2 stretches');
  });

  it('stands the words of events that came together side by side, each at its own place', () => {
    const events = [600, 620, 640, 1200].map((at) => ({ at, says: `at ${at}` }));
    const { boxes, drawn, frame } = draw([{ ...trace, missed: [], events }]);
    const told = boxes.filter(({ layer }) => layer === 'marks');
    expect(words(told)).toEqual(['at 600', 'at 620', 'at 640', 'at 1200']);
    for (const at of [600, 1200])
      expect(of(drawn, 'line').filter(({ points, look: { dash } }) => points[0]?.[0] === frame.xOf(at) && dash?.[0] === 1)).toHaveLength(1);
  });

  it('has a track only for what was read, and percent alone in a row', () => {
    expect(tracksOf([trace], { size: 'sheet' })).toEqual(['percent', 'watts']);
    expect(tracksOf([trace], { size: 'row' })).toEqual(['percent']);
    expect(draw([trace], { size: 'row' }, { width: 200, height: 40 }).boxes).toEqual([]);
  });
});

describe('what is expected', () => {
  it('is pencil from the first level seen, dotted, under the ink', () => {
    const { expected, dots } = tracedWithPencil(run);
    expect(expected?.percent?.[0]).toEqual([0, 2.5]);
    expect(expected?.watts?.length).toBeGreaterThan(20);
    expect(dots.percent).toHaveLength(2);
    const { drawn, boxes } = draw([{ ...trace, expected }]);
    const lines = of(drawn, 'line').map(({ look: { dash } }) => dash?.join(' '));
    expect(lines.indexOf('1.5 3.5')).toBeLessThan(lines.indexOf('4 3'));
    expect(words(boxes)).toEqual(expect.arrayContaining(['expected', 'between readings']));
  });

  it('begins where a device first showed a level, and is not there where none was seen', () => {
    const late = foldRun(header, inkOf(header, [{ seconds: 300, percent: 4 }]));
    expect(expectedRun(late)?.seconds[0]).toBe(300);
    expect(expectedRun(foldRun(header, []))).toBeUndefined();
  });

  it('can stand on a strip of its own, before anything was run', () => {
    const expected = expectedCharge(negotiate(header), 2);
    if (!expected) throw new Error('a charge to expect');
    const alone = expectedTrace('x', 'Sedge 5 on Cobble 20', 0, expected);
    expect(tracksOf([alone], { size: 'sheet' })).toEqual(['percent', 'watts']);
    expect(alone.end).toBe(expected.length);
  });
});

it('draws no line across watts that were not seen, and says so', () => {
  const rows = [0, 60, 120, 180, 900, 960].map((seconds) => ({ seconds, percent: 2 + seconds / 60, watts: 18 }));
  const gap = traceOf(foldRun({ ...header, cadence: undefined }, inkOf(header, rows)), 'Cobble 20', 0);
  expect(gap.unseen).toEqual([{ from: 180, to: 900 }]);
  const { drawn, boxes, frame } = draw([gap]);
  const at = frame.trackOf('watts')?.yOf(18) ?? 0;
  const watts = of(drawn, 'line').find(({ points }) => points.every(([, y]) => Math.abs(y - at) < 0.01));
  expect([watts?.parts, watts?.points.length]).toEqual([2, 6]);
  expect(words(boxes)).toContain('unseen');
});

it('rules the paper finely enough to read and coarsely enough to be calm', () => {
  for (const until of [600, 3600, 7200, 36_000, 200_000]) {
    const { fine, coarse } = timeRules(until);
    expect(until / fine).toBeLessThanOrEqual(24);
    expect(coarse % fine).toBe(0);
  }
});

describe('the words of a strip', () => {
  const names = fc.array(
    fc.constantFrom(
      'Cobble 12',
      'Quern 65',
      'x'.repeat(60),
      'A charger with a long name of sixty characters, more or less',
      'مثال شاحن',
      '充電器の名前',
    ),
    {
      minLength: 1,
      maxLength: 14,
    },
  );
  const traces = fc
    .record({
      names,
      ends: fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 14, maxLength: 14 }),
      events: fc.array(fc.integer({ min: 0, max: 3600 }), { maxLength: 9 }),
    })
    .map(({ names: all, ends, events }): Trace[] =>
      all.map((name, index) => ({
        ...trace,
        id: `${index}`,
        name: `${name} ${index}`,
        pen: index,
        dots: {
          percent: Array.from({ length: 12 }, (_, row) => [row * 300, ((ends[index] ?? 50) * row) / 11] as const).map(([at, value]) => [
            at,
            value,
          ]),
          watts: Array.from({ length: 12 }, (_, row) => [row * 300, 5 + row] as const).map(([at, value]) => [at, value]),
        },
        events: events.map((at) => ({ at, says: 'volts stepped: handshake' })),
      })),
    );
  const sizes = fc.record({ width: fc.constantFrom(240, 390, 800, 1280, 1920), height: fc.constantFrom(130, 210, 420, 1080) });

  it('never lie on each other, nor beyond its edges, however it is drawn, at whatever size', () => {
    fc.assert(
      fc.property(traces, sizes, fc.constantFrom('sheet', 'lane'), (all, size, drawnAs) => {
        const { boxes } = draw(all, { size: drawnAs, penned: all.length > 1 }, size);
        for (const [index, one] of boxes.entries()) {
          expect([one.text, one.left >= -0.5, one.right <= size.width + 0.5, one.top >= -1, one.bottom <= size.height + 1]).toEqual([
            one.text,
            ...[true, true, true, true],
          ]);
          for (const other of boxes.slice(index + 1)) {
            const isApart =
              one.right <= other.left + 0.5 ||
              other.right <= one.left + 0.5 ||
              one.bottom <= other.top + 0.5 ||
              other.bottom <= one.top + 0.5;
            expect([one.text, other.text, isApart]).toEqual([one.text, other.text, true]);
          }
        }
      }),
      { numRuns: 150 },
    );
  });

  it('are the same in an SVG, where nothing of them is markup', () => {
    const to = svgSurface((text, { size }) => text.length * size * 0.6);
    const { boxes } = drawStrip(
      to,
      [
        { ...trace, name: '<b>&"', pen: 0 },
        { ...trace, id: 'b', name: 'Quern 30', pen: 1 },
      ],
      { ...look, penned: true },
      SIZE,
    );
    const texts = [...to.body().matchAll(/<text[^>]*>([^<]*)<\/text>/g)].map(([, text]) => text);
    expect(texts).toEqual(
      boxes.map(({ text }) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')),
    );
    expect(to.body()).not.toMatch(/NaN|undefined|<b>/);
  });
});

it('lets no two names of lines collide, keeps their order, and moves none that had room', () => {
  const paper = { low: 0, high: 400 };
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 400, noNaN: true }), { minLength: 1, maxLength: 25 }), (wanted) => {
      const placed = spreadOut(wanted, 13, paper);
      const order = wanted.map((_, index) => index).sort((one, other) => (wanted[one] ?? 0) - (wanted[other] ?? 0));
      for (const [at, index] of order.entries()) {
        const [here, next] = [placed[index] ?? 0, placed[order[at + 1] ?? -1] ?? Infinity];
        expect(next - here).toBeGreaterThan(12.99);
        expect(here).toBeGreaterThan(-0.01);
        expect(here).toBeLessThan(400.01);
      }
    }),
  );
  expect(spreadOut([10, 200, 390], 13, paper)).toEqual([10, 200, 390]);
});
