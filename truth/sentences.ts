import { judge, USUAL_WISHES, type Finding } from '../core/advise';
import { setupsOf } from '../core/compare';
import type { ReadRun } from '../core/curve';
import { seeded } from '../core/simulate/seeded';
import { tells, type Seen } from './rule';
import { LEVELS, MARK, runOf, truthsOf, type Cell } from './studies';

/** What verdicts say of studies whose runs are known, held against the rule as it is written a second time. */
export interface Sentences {
  studies: number;
  /** Names that were named best, and those that were named surely worse. */
  named: number;
  /** Sentences that name a winner, or one who is surely worse, that the rule does not tell. */
  wrong: string[];
  /** What the rule tells and no sentence says. */
  left: string[];
}

const NEEDS: readonly { need: string; better: 'below' | 'above'; of: (run: ReadRun) => Seen | undefined }[] = [
  ...LEVELS.map((level) => ({
    need: level === 100 ? 'to-full' : `to-${level}`,
    better: 'below' as const,
    of: ({ figures }: ReadRun): Seen | undefined => {
      const found = figures.milestones.find((each) => each.level === level);
      return found?.state === 'reached'
        ? { value: found.estimate, u: found.uncertainty, ...found.bounds, scale: found.estimate }
        : undefined;
    },
  })),
  {
    need: 'top-up',
    better: 'above',
    of: ({ figures }): Seen | undefined => {
      const [gain] = figures.gains;
      return gain?.state === 'known' ? { value: gain.value, u: gain.uncertainty, ...gain.bounds, scale: gain.value } : undefined;
    },
  },
];

/** Who a sentence names best. */
function bestIn({ says }: Finding, names: readonly string[]): string[] {
  if (says.startsWith('No difference')) return [...names];
  const [who = ''] = says.split(':');
  return who.split(/, | or /);
}

/** Who it names surely worse. */
function worseIn({ why }: Finding, names: readonly string[]): string[] {
  const part = /Surely \w+ than [^:]*: ([^]*?)\.(?: |$)/.exec(why)?.[1] ?? '';
  return names.filter((name) => part.split('; ').some((each) => each.startsWith(`${name} by `)));
}

/** Plays so many studies of each cell. */
export function playSentences(cells: readonly Cell[], studies: number, seed: number): Sentences {
  const found: Sentences = { studies: 0, named: 0, wrong: [], left: [] };
  const noise = seeded(seed);
  for (const cell of cells) for (let study = 0; study < studies; study += 1) playOne(cell, noise, found);
  return found;
}

function playOne(cell: Cell, noise: () => number, found: Sentences): void {
  const runs = truthsOf(noise).flatMap((truth, index) =>
    Array.from({ length: cell.repeats }, (_, repeat) => runOf(`${index}-${repeat}`, `setup ${index}`, truth, cell, noise)),
  );
  const setups = setupsOf(runs);
  const names = setups.map(({ runs: each }) => each[0]?.run.header.charger.name ?? '');
  const findings = judge({
    setups,
    tracks: new Map(),
    baseline: '0-0',
    unit: '%',
    wishes: { ...USUAL_WISHES, window: MARK * 60 },
    shelf: { devices: [], chargers: [], cables: [] },
    worked: [],
    sittings: [],
  });
  found.studies += 1;
  for (const { need, better, of } of NEEDS) {
    const seen = setups.map(({ runs: each }) => each.flatMap((run) => of(run) ?? []));
    if (seen.some((each, index) => each.length < (setups[index]?.runs.length ?? 0))) continue;
    const beats = (one: number, other: number) => tells(seen, one, other) === better;
    const all = names.map((_, index) => index);
    const best = all.filter((one) => !all.some((other) => beats(other, one)));
    const worse = all.filter((one) => !best.includes(one) && best.some((each) => beats(each, one)));
    const finding = findings.find((each) => each.need === need);
    const place = `${need}, ${cell.cadence} min, ${cell.sigma}, ${cell.repeats}×: ${finding ? `${finding.says} | ${finding.why}` : 'nothing'}`;
    const [saysBest, saysWorse] = finding ? [bestIn(finding, names), worseIn(finding, names)] : [[], []];
    found.named += saysBest.length + saysWorse.length;
    const isIn = (some: readonly number[], name: string) => some.some((index) => names[index] === name);
    if (saysBest.some((name) => !isIn(best, name)) || saysWorse.some((name) => !isIn(worse, name))) found.wrong.push(place);
    if (best.some((index) => !saysBest.includes(names[index] ?? '')) || worse.some((index) => !saysWorse.includes(names[index] ?? '')))
      found.left.push(place);
    // A sole winner in the headline that ties with another would be one that the rule does not tell.
    if (saysBest.length === 1 && best.length > 1) found.wrong.push(place);
  }
}
