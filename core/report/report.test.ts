import fc from 'fast-check';
import MarkdownIt from 'markdown-it';
import { parse, type DefaultTreeAdapterMap } from 'parse5';
import { describe, expect, it } from 'vitest';
import { finishedRuns, STUDIES } from '../../demo/finished';
import { CABLES, CHARGERS, DEVICES } from '../../demo/saltmarsh';
import type { Judged } from '../advise/question';
import { columnsOf } from '../compare/measures';
import { setupsOf } from '../compare/setups';
import { readRun } from '../curve/figures';
import { workloads } from '../curve/workloads';
import type { Entry } from '../ink/entry';
import { foldRun } from '../ink/fold';
import { SCHEMA } from '../ink/version';
import { SCHOOLS } from '../method/schools';
import { setManner, mannerNow } from '../quantity/manner';
import { compose, madeOf, usualBlocks } from './compose';
import { causeIn, corrected, toldIn } from './corrections';
import { hasChanged, linked, placesOf, stateOf } from './figures';
import { pageHtml } from './html';
import { pageMarkdown } from './markdown';
import { lettersLacking, pageOf, type PiecePage } from './page';
import { textOf } from './paragraph';
import { pieceSchema, type Piece } from './pieceSchema';
import { figureSaid, scriptOf, scriptText, wordsSaid } from './script';
import { writeUp } from './writeUp';

type StoredRun = ReturnType<typeof finishedRuns>[number];
const foldStored = ({ header, entries, samples, logs }: StoredRun) => foldRun(header, entries, samples, logs);

const STUDY = STUDIES[0]?.id ?? '';
const OF_STUDY = finishedRuns().filter(({ header }) => header.study?.id === STUDY && header.device.id === 'sedge-5');
const DAY = (at: number) => new Date(at).toISOString().slice(0, 10);

function judgedOf(runs: readonly StoredRun[]): Judged[] {
  return runs.map((run) => {
    const record = foldStored(run);
    return { ...readRun(record), workloads: workloads(record), percent: record.tracks.percent };
  });
}

const pieceOf = (runs: readonly StoredRun[], changes: Partial<Piece> = {}): Piece => ({
  schema: SCHEMA,
  id: 'piece',
  name: 'Five chargers',
  at: 1,
  runs: runs.map(({ header }) => header.id),
  blocks: usualBlocks(),
  ...changes,
});

const written = (runs: readonly StoredRun[], piece: Piece = pieceOf(runs)) =>
  writeUp(piece, {
    judged: judgedOf(runs),
    shelf: { devices: DEVICES, chargers: CHARGERS, cables: CABLES },
    methods: SCHOOLS,
    day: DAY,
  });

const TWIN = { caption: 'Levels', heads: ['After', 'A'], rows: [['0 min', 2]] };
function pageIn(piece: Piece, runs: readonly StoredRun[]): PiecePage {
  const now = written(runs, piece);
  return pageOf({ title: piece.name, about: now.about, dated: 'A draft.' }, compose(piece, now), now.known, ({ title }) => ({
    light: '<svg viewBox="0 0 1 1"></svg>',
    dark: '<svg viewBox="0 0 1 1"></svg>',
    says: title,
    twin: TWIN,
  }));
}

/** A run with a reading struck: the first that shows so many percent or more. */
function struck(run: StoredRun, from: number, written_: number): StoredRun {
  const target = run.entries.find((each) => each.kind === 'reading' && (each.percent ?? 0) >= from);
  const last = run.entries.at(-1);
  if (!target || !last) throw new Error('There is nothing to strike.');
  const strike: Entry = {
    kind: 'strike',
    seq: last.seq + 1,
    id: 'struck',
    at: last.at,
    written: written_,
    target: target.id,
    reason: 'misread',
  };
  return { ...run, entries: [...run.entries, strike] };
}

type Node = DefaultTreeAdapterMap['node'];
function everyNode(node: Node, see: (node: Node) => void): void {
  see(node);
  if ('childNodes' in node) for (const child of node.childNodes) everyNode(child, see);
}
/** Elements of a page by their names, and the text that it shows. */
function seenIn(html: string): { tags: Map<string, number>; attributes: Set<string>; text: string } {
  const tags = new Map<string, number>();
  const attributes = new Set<string>();
  let text = '';
  everyNode(parse(html), (node) => {
    tags.set(node.nodeName, (tags.get(node.nodeName) ?? 0) + 1);
    if ('attrs' in node) for (const { name } of node.attrs) attributes.add(name);
    if (node.nodeName === '#text' && 'value' in node && node.parentNode?.nodeName !== 'style') text += node.value;
  });
  return { tags, attributes, text };
}

describe('what is written up of the demo’s study', () => {
  const now = written(OF_STUDY);

  it('answers in at most five sentences, and says how sure', () => {
    const short = (now.words.short ?? []).map(textOf);
    expect(short.length).toBeGreaterThan(2);
    expect(short.length).toBeLessThanOrEqual(6);
    expect(short.at(-1)).toMatch(/^How sure: /);
    expect(short[0]).toContain('cannot tell them apart');
    // Whoever is in the tie has its figure there, and nobody else.
    const tied = (now.words.short?.[0]?.parts ?? []).flatMap(({ ref = '' }) => now.known.get(ref)?.names ?? []);
    expect(tied).toEqual(['Cobble 20', 'Quern 30', 'Quern 65']);
    expect(tied).toEqual([...tied].sort((one, other) => (short[0] ?? '').indexOf(one) - (short[0] ?? '').indexOf(other)));
    expect(placesOf('Quern 30 and Quern 3', 'Quern 3')).toEqual([13]);
  });

  it('says of what was copied from a notebook once when it was read, and of gear that is only named nothing that nobody knows', () => {
    const marks = [
      [600, 1200, 1800, 2640],
      [600, 1200, 1800, 2700],
      [600, 1200, 1300],
    ];
    const runs = OF_STUDY.slice(0, 3).map(({ header, ...run }, index) => ({
      ...run,
      header: {
        ...header,
        device: { id: header.device.id, name: 'Sedge 5', kind: 'other' as const },
        cable: { id: 'c', name: 'c-c', chargerEnd: 'not known' as const, deviceEnd: 'not known' as const, marker: 'none' as const },
        source: 'paper' as const,
        cadence: { kind: 'marks' as const, at: marks[index] ?? [] },
      },
    }));
    const { words } = written(runs);
    const all = (id: 'done' | 'repeat' | 'gear') => (words[id] ?? []).map(textOf);
    const read = 'Read at 10, 20 and 30 min, as far as it went, and at its end';
    expect(all('done')[0]).toContain(`. ${read}. At plug-in`);
    expect(all('repeat')).toContain(`${read}; write the moment down with what you read.`);
    expect(all('gear')).toEqual(expect.arrayContaining(['Sedge 5.', 'c-c.']));
    // Read alike, the end is a mark as the others are; and of others it is told how many were read so.
    const alike = written(runs.slice(1).map((run) => ({ ...run, header: { ...run.header, cadence: { kind: 'marks', at: [600, 1200] } } })));
    expect(textOf(alike.words.done?.[0] ?? { parts: [] })).toContain('. Read at 10 and 20 min. At plug-in');
    const odd = written([
      ...runs.slice(0, 2),
      { ...runs[2], header: { ...runs[2]?.header, cadence: { kind: 'fixed', every: 300 } } } as StoredRun,
    ]);
    expect(textOf(odd.words.done?.[0] ?? { parts: [] })).toContain(`. ${read} (2 of 3 runs). Read every 5 min (1 of 3 runs). At`);
  });

  it('has every figure of its tables as a comparison has it, each with its margin', () => {
    const setups = setupsOf(judgedOf(OF_STUDY));
    const columns = columnsOf(setups, '%');
    let compared = 0;
    for (const table of [now.tables.times, now.tables.power])
      for (const [row, { cells }] of (table?.rows ?? []).entries())
        for (const [at, { value, margin, ref }] of cells.entries()) {
          const column = columns.find(({ measure }) => measure.id === table?.columns[at]?.id);
          expect([value, margin]).toEqual([column?.cells[row]?.value ?? '—', column?.cells[row]?.range.split(' · ')[0] ?? '']);
          if (ref === undefined) continue;
          compared += 1;
          expect(now.known.get(ref)).toMatchObject({ text: value, margin });
        }
    expect(compared).toBeGreaterThan(60);
  });

  it('refers to figures in its sentences: each says what it is now, of setups that the sentence names', () => {
    let count = 0;
    for (const paragraph of Object.values(now.words).flat())
      for (const { ref, text } of paragraph.parts) {
        if (ref === undefined) continue;
        count += 1;
        const figure = now.known.get(ref);
        expect(figure?.text).toBe(text);
        for (const name of figure?.names ?? []) expect(textOf(paragraph)).toContain(name);
      }
    expect(count).toBeGreaterThan(4);
    // A mark is no figure, and a sentence is never another for it.
    const known = [...now.known.values()];
    const [figure] = known.filter(({ ref }) => ref.endsWith('/level-80'));
    const sentence = `${figure?.names[0] ?? ''} takes ${figure?.text ?? ''} to 80 %, and is read in ${figure?.text ?? ''}.`;
    const parts = linked(sentence, known);
    expect(parts.map(({ text }) => text).join('')).toBe(sentence);
    expect(parts.filter(({ ref }) => ref !== undefined)).toEqual([{ text: figure?.text, ref: figure?.ref }]);
  });

  it('says how it was done from what was done: days, cadence, what was struck, what came late, labels', () => {
    const done = (now.words.done ?? []).map(textOf).join('\n');
    expect(done).toContain(`${OF_STUDY.length} runs of Sedge 5, 2026-10-05`);
    expect(done).toContain('Read every 5 min');
    expect(done).toMatch(/24 % at 25 min was struck, for read the tablet beside it/);
    const gear = (now.words.gear ?? []).map(textOf).join('\n');
    expect(gear).toMatch(/Quern 30 \(adapter\): Watts 30 W · Ports/);
    expect(gear).not.toContain('[object');
    expect((now.words.limits ?? []).map(textOf).join('\n')).toContain('were run once');
  });

  it('is a piece that can be kept', () => {
    const piece = pieceOf(OF_STUDY);
    expect(pieceSchema.validateSync(piece)).toEqual(piece);
  });
});

describe('words that a person wrote', () => {
  const before = written(OF_STUDY);
  const words = before.words.short ?? [];
  const mine = [{ as: 'text' as const, parts: [{ text: 'Take it: ' }, ...(words[0]?.parts ?? [])] }];
  const piece = pieceOf(OF_STUDY, { blocks: [{ id: 'short', words: mine, made: madeOf(words) }] });
  const figure = mine[0]?.parts.find(({ ref }) => ref?.endsWith('/level-100'));
  const [first] = before.setups.filter(({ id }) => figure?.ref?.startsWith(id));
  const changed = OF_STUDY.map((run) => (first?.runs.includes(run.header.id) ? struck(struck(run, 100, 2), 99, 3) : run));

  it('stand as they are while nothing changes', () => {
    const [block] = compose(piece, before);
    expect(block).toMatchObject({ id: 'short', isOwn: true, isStale: false, words: mine });
    expect(hasChanged(mine, before.known)).toBe(false);
  });

  it('are kept when ink changes, and the figure in them that changed is marked', () => {
    const after = written(changed, piece);
    const [block] = compose(piece, after);
    expect(block).toMatchObject({ isOwn: true, isStale: true, words: mine });
    const state = figure && stateOf(figure, after.known);
    expect(state?.is).toBe('changed');
    const kept = figure && { ...figure, kept: after.known.get(figure.ref ?? '')?.text };
    expect(kept && stateOf(kept, after.known).is).toBe('as written');
    // Of another setup nothing is marked.
    const others = mine[0]?.parts.filter(({ ref }) => ref !== undefined && !ref.startsWith(first?.id ?? '—')) ?? [];
    expect(others.length).toBeGreaterThan(0);
    for (const other of others)
      if (after.known.get(other.ref ?? '')?.text === other.text) expect(stateOf(other, after.known).is).toBe('as written');
  });

  it('say so where the run of a figure is gone, and the rest stands', () => {
    const left = OF_STUDY.filter(({ header }) => !first?.runs.includes(header.id));
    const after = written(left, piece);
    expect(figure && stateOf(figure, after.known)).toEqual({ is: 'gone' });
    const blocks = compose(piece, after);
    expect(blocks.find(({ id }) => id === 'times')?.table?.rows.length).toBe(before.setups.length - 1);
    const none = compose(piece, written([], piece));
    expect(none.filter(({ isEmpty, id }) => isEmpty === undefined && id !== 'cautions').map(({ id }) => id)).toEqual(['short']);
  });
});

describe('what was published', () => {
  const piece = pieceOf(OF_STUDY);
  const before = written(OF_STUDY, piece);
  const told = toldIn(compose(piece, before), before);
  const published: Piece = { ...piece, published: { at: 10, text: '' }, told };
  const quern = OF_STUDY.find(({ header }) => header.charger.id === 'quern-65');
  const changed = OF_STUDY.map((run) => (run === quern ? struck(run, 80, 20) : run));
  const after = written(changed, published);
  let ids = 0;
  const correct = (one: Piece, now: ReturnType<typeof written>, runs: readonly StoredRun[]) => {
    const records = runs.map(foldStored);
    const cause = (some: readonly string[]) =>
      causeIn(
        records.filter(({ header }) => some.includes(header.id)),
        10,
      );
    return corrected(one, toldIn(compose(one, now), now), now, cause, 30, () => `c${(ids += 1)}`);
  };

  it('needs no correction while nothing changes; a draft never does', () => {
    expect(correct(published, before, OF_STUDY)).toBeUndefined();
    expect(correct(piece, after, changed)).toBeUndefined();
  });

  it('is corrected in a dated line that says what was given, why, and what it is; once', () => {
    const next = correct(published, after, changed);
    const lines = next?.corrections ?? [];
    expect(lines.length).toBeGreaterThan(0);
    const of80 = lines.find(({ text }) => text.startsWith('time to 80 % of Quern 65'));
    expect(of80?.at).toBe(30);
    expect(of80?.text).toMatch(/was given as 54 min \(51–56 min\); a reading was struck; it is .*\.$/);
    expect(next && correct(next, after, changed)).toBeUndefined();
    expect(next && pieceSchema.isValidSync(next)).toBe(true);
    // And it stands in the piece.
    const blocks = next ? compose(next, written(changed, next)) : [];
    expect(blocks.find(({ id }) => id === 'corrections')?.words.map(textOf)).toContain(`${DAY(30)}: ${of80?.text ?? ''}`);
  });

  it('is told in full where a run is left out', () => {
    const left = OF_STUDY.filter((run) => run !== quern);
    const lines = correct(published, written(left, published), left)?.corrections?.map(({ text }) => text) ?? [];
    expect(lines.some((text) => /^time to 80 % of Quern 65 was given as .*; it is told no more\.$/.test(text))).toBe(true);
  });
});

const HOSTILE = [
  '<script>alert(1)</script>',
  '"><img src=x onerror=alert(1)>',
  '](javascript:alert(1))',
  '| a | b |',
  '**bold** _it_ `code` # head',
  '=1+1 @me www.example.org http://example.org',
  '&lt;b&gt; &amp; \\',
  '1. one',
];

describe('as readers get it', () => {
  const runs = OF_STUDY.map((run, index) => ({
    ...run,
    header: {
      ...run.header,
      charger: { ...run.header.charger, name: `${run.header.charger.name} ${HOSTILE[index % HOSTILE.length] ?? ''}` },
    },
  }));
  const mine = HOSTILE.map((text) => ({ as: 'item' as const, parts: [{ text, bold: true as const }] }));
  const piece = pieceOf(runs, {
    name: 'A <b>piece</b> & more',
    blocks: usualBlocks().map((block) => (block.id === 'cautions' ? { ...block, words: mine, title: '<i>Mind</i>' } : block)),
  });
  const page = pageIn(piece, runs);
  const tables = page.blocks.flatMap(({ table }) => (table ? [table] : []));
  const cells = tables.flatMap(({ rows }) =>
    rows.flatMap((row) => [row.name, ...row.cells.flatMap(({ value, margin }) => [value, margin])]),
  );

  it('a web page shows every name and edit as text, with no element or address of theirs', () => {
    const { tags, attributes, text } = seenIn(pageHtml(page));
    for (const name of [...HOSTILE, piece.name, ...cells]) expect(text).toContain(name);
    expect(['script', 'img', 'b', 'i', 'a', 'iframe', 'link'].filter((tag) => tags.has(tag))).toEqual([]);
    expect([...attributes].filter((name) => /^on|href|src$/.test(name))).toEqual([]);
    expect(tags.get('h1')).toBe(1);
    expect(pageHtml(page)).toContain("default-src 'none'");
  });

  it('Markdown parses to the same tables, and every name and edit is text in it', () => {
    const html = new MarkdownIt({ html: true, linkify: true }).render(pageMarkdown(page));
    const { tags, text } = seenIn(html);
    const squeezed = (some: string) => some.replace(/\s+/g, ' ');
    for (const name of [...HOSTILE, piece.name, ...cells]) expect(squeezed(text)).toContain(squeezed(name));
    expect(['script', 'b', 'i', 'a', 'iframe', 'code'].filter((tag) => tags.has(tag))).toEqual([]);
    expect(tags.get('img')).toBe(page.blocks.filter(({ picture }) => picture).length);
    // Each table with its heading row, and each picture with its twin.
    const rows = tables.reduce((sum, each) => sum + each.rows.length + 1, 0) + page.blocks.filter(({ picture }) => picture).length * 2;
    expect([tags.get('table'), tags.get('tr')]).toEqual([page.blocks.filter(({ table, picture }) => table ?? picture).length, rows]);
  });

  it('names letters that its type lacks', () => {
    expect(lettersLacking({ ...page, title: 'Ω ⎓ → ≤ Ж λ é 20 % ± “a” … 漢' })).toEqual(['漢']);
  });

  it('a block that is hidden or has nothing in it is in no form', () => {
    const less = pageIn(
      { ...piece, blocks: piece.blocks.map((each) => (each.id === 'times' ? { ...each, hidden: true as const } : each)) },
      runs,
    );
    expect(less.blocks.map(({ id }) => id)).not.toContain('times');
    expect(less.blocks.map(({ id }) => id)).not.toContain('corrections');
  });
});

describe('a script', () => {
  const MINUTES = /(?:(\d+) hours?)?(?: and )?(?:(\d+) minutes?)?/;
  const minutesOf = (said: string): number => {
    if (said === 'half an hour') return 30;
    const [, hours = '0', minutes = '0'] = MINUTES.exec(said) ?? [];
    return Number(hours) * 60 + Number(minutes);
  };
  const spelled = (minutes: number) =>
    minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;

  it('says no time and no amount as surer than it is: what is said holds all that is written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 1400 }), fc.integer({ min: 1, max: 60 }), (minutes, half) => {
        const said = figureSaid({ text: spelled(minutes), margin: `± ${spelled(half)}` });
        const [, value = '', off = ''] = /^about (.*), give or take (.*)$/.exec(said) ?? [];
        expect(minutesOf(value) - minutesOf(off)).toBeLessThanOrEqual(minutes - half);
        expect(minutesOf(value) + minutesOf(off)).toBeGreaterThanOrEqual(minutes + half);
        expect(minutesOf(off)).toBeLessThanOrEqual(1.5 * half + 1);
      }),
    );
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3000 }), fc.integer({ min: 1, max: 400 }), (tenths, off) => {
        const said = figureSaid({ text: `${tenths / 10} W`, margin: `± ${off / 10} W` });
        const [, value = 0, margin = 0] = (/^about ([\d.]+) watts?, give or take ([\d.]+) watts?$/.exec(said) ?? []).map(Number);
        expect(value - margin).toBeLessThanOrEqual(tenths / 10 - off / 10 + 1e-9);
        expect(value + margin).toBeGreaterThanOrEqual(tenths / 10 + off / 10 - 1e-9);
      }),
    );
  });

  it('has units as words, whatever the decimal sign', () => {
    expect(figureSaid({ text: '54 min', margin: '51–56 min' })).toBe('about 54 minutes, give or take 3 minutes');
    expect(figureSaid({ text: '2 h 21', margin: '2 h 16–2 h 28' })).toBe('about 2 hours and 20 minutes, give or take 8 minutes');
    expect(figureSaid({ text: '38 ± 4 min', margin: '' })).toBe('38, give or take 4 minutes');
    expect(figureSaid({ text: 'not reached', margin: 'not by 5 h 56' })).toBe('not reached, not by 5 hours 56 minutes');
    expect(wordsSaid('20 W · 9 V⎓2 A')).toBe('20 watts, 9 volts⎓2 amps');
    const manner = mannerNow();
    setManner({ ...manner, decimal: ',' });
    expect(figureSaid({ text: '18,5 W', margin: '± 0,5 W' })).toBe('about 18,5 watts, give or take 0,5 watts');
    setManner(manner);
  });

  it('is as long as its words at 150 a minute, with the time at which each part comes', () => {
    const page = pageIn(pieceOf(OF_STUDY), OF_STUDY);
    const { blocks, seconds } = scriptOf(page);
    expect(blocks.map(({ at }) => at)).toEqual([...blocks.map(({ at }) => at)].sort((one, other) => one - other));
    const words = blocks.flatMap(({ paragraphs }) => paragraphs.filter((each) => !each.startsWith('['))).join(' ');
    const count = `${page.title} ${words}`.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word)).length;
    expect(seconds).toBeCloseTo((count / 150) * 60, 6);
    expect(scriptText(page)).not.toMatch(/±|\d %|\d min\b|\d W\b/);
  });
});
