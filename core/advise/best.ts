import { greatest, mean } from 'd3-array';
import { differenceUnit, writeAmount, writeApart } from '../compare/amounts';
import type { Cell, Measure } from '../compare/cells';
import { perPercent, type MeasureColumn } from '../compare/measures';
import { unevenStarts } from '../compare/starts';
import { difference, type Difference } from '../margin/told';
import { nominal, spell } from '../quantity/duration';
import { fixed } from '../quantity/figures';
import { lowerFirst } from '../quantity/letters';
import { either, listed } from '../quantity/listed';
import type { OwnClaim } from './claims';
import { figureOf, headerOf, type Group, type SaidAdvice } from './question';
import { whatWouldTell } from './wouldTell';

/** How a figure is spoken of: of what is better, and of what is surely worse. */
interface Comparative {
  better: string;
  worse: string;
}
const SOONER: Comparative = { better: 'sooner', worse: 'slower' };
const MORE: Comparative = { better: 'more', worse: 'less' };
const COOLER: Comparative = { better: 'cooler', worse: 'hotter' };
const wordsOf = ({ group }: Measure) => (group === 'Heat' ? COOLER : group === 'Times' ? SOONER : MORE);

/** A figure as what is gone by: `the time to 80 %`, `what was gained in 15 min`. */
export function basisOf({ id, title, group }: Pick<Measure, 'id' | 'title' | 'group'>): string {
  if (id === 'light out') return 'when its light went out';
  if (id === 'power gone') return 'when it drew no more';
  if (group === 'Gains') return `what was ${lowerFirst(title)}`;
  return `the ${title.startsWith('By ') ? title.slice(3) : lowerFirst(title)}`;
}

/** Others that are named one by one; of more, how many. */
const NAMED = 4;

/** `2.6 ± 0.4 W`, `44 min (41 to 51 min)`, whichever way. */
export const differenceText = (differ: Difference, { unit }: Pick<Measure, 'unit'>): string => writeApart(differ, unit).both;

/** `38 min (34 to 42 min) sooner than Cobble 12`; `9 min sooner than Cobble 20, just told apart`. */
function against(differ: Difference, { unit }: Pick<Measure, 'unit'>, whom: string): string {
  const { value, range, both, isJust } = writeApart(differ, unit);
  return isJust ? `${value} ${whom}, ${range}` : `${both} ${whom}`;
}

/** The cells of a column that have a figure, and not the least of one. */
export const meansIn = (cells: readonly Cell[]) => cells.flatMap((cell, index) => (cell.mean && !cell.mean.isLeast ? [index] : []));

/** How two cells of a column differ, the other less the one; `undefined` where either has no figure. */
export function between(cells: readonly Cell[], one: number, other: number): Difference | undefined {
  const [mine, theirs] = [cells[one], cells[other]];
  return mine?.mean && theirs?.mean ? difference(mine.mean, theirs.mean) : undefined;
}

/** Whether one cell is surely better than another. */
export const isBetter = (cells: readonly Cell[], { better }: Pick<Measure, 'better'>, one: number, other: number): boolean =>
  better !== undefined && between(cells, one, other)?.told === (better === 'less' ? 'below' : 'above');

/**
 * Who is best by one figure: by how much against the baseline, who is surely worse and by how much, and what cannot be told.
 *
 * @returns `undefined` where fewer than two setups have the figure, or it may not be ranked
 */
export function bestBy(group: Group, id: string): SaidAdvice | undefined {
  const found = group.figures.get(id);
  if (!found?.measure.better || group.setups.length < 2) return undefined;
  const { measure, cells } = found;
  const { names } = group;
  const nameOf = (index: number) => names[index] ?? '';
  const seen = meansIn(cells);
  const best = seen.filter((index) => cells[index]?.isBest);
  const [first] = best;
  if (first === undefined || cells.filter(({ mean }) => mean).length < 2) return undefined;
  const words = wordsOf(measure);

  const others = cells.flatMap((cell, index) => (best.includes(index) || !cell.mean ? [] : [index]));
  const worse = others.flatMap((index) => {
    // Of several that are best, the one that it is most surely behind.
    const told = best
      .flatMap((than) => {
        const by = between(cells, than, index);
        return by && by.told !== 'tie' ? [{ than, by }] : [];
      })
      .sort((one, other) => Math.abs(other.by.value) / other.by.margin - Math.abs(one.by.value) / one.by.margin)[0];
    return told ? [{ index, ...told, isLeast: cells[index]?.mean?.isLeast === true }] : [];
  });
  const claims: OwnClaim[] = [];
  const tell = (index: number): string => {
    const value = cells[index]?.value ?? '';
    claims.push({ figure: id, who: nameOf(index), says: 'is', value });
    return value;
  };
  const why: string[] = [];
  const caveat = TIMES.includes(id) ? unevenStarts(group.setups) : undefined;
  if (caveat !== undefined) {
    why.push(`They ${caveat}`);
    claims.push({ figure: 'starts', who: listed(names), says: 'is', value: caveat });
  }
  if (best.length > 1) {
    const hides = tieSays(found, best);
    const shown = best.slice(0, NAMED + 2);
    const rest = best.length > shown.length ? ` and ${best.length - shown.length} more` : '';
    why.push(
      `${shown.map((index) => `${nameOf(index)}: ${tell(index)}`).join('; ')}${rest}. These readings cannot tell them apart${hides}.`,
    );
    for (const [at, one] of best.entries())
      for (const other of best.slice(at + 1)) claims.push({ figure: id, who: nameOf(one), says: 'alike', than: nameOf(other) });
    claims.push({ figure: `${id} apart`, who: listed(best.map(nameOf)), says: 'is', value: hides });
  }
  for (const { index, than, by } of worse)
    claims.push({ figure: id, who: nameOf(than), says: 'better', than: nameOf(index), value: writeApart(by, measure.unit).both });
  const told = worse.filter(({ isLeast }) => !isLeast);
  const hardly = (index: number, value: number) => (isSmall(found, Math.abs(value), [index, first]) ? ', which is little' : '');
  const named = told.slice(0, NAMED).map(({ index, by }) => {
    const { both, isJust } = writeApart(by, measure.unit);
    // What is just told apart need not be called small.
    return `${nameOf(index)} by ${both}${isJust ? '' : hardly(index, by.value)}`;
  });
  if (told.length > NAMED) named.push(`${told.length - NAMED} more`);
  if (named.length > 0) why.push(`Surely ${words.worse} than ${best.length > 1 ? 'the best' : nameOf(first)}: ${named.join('; ')}.`);
  const late = worse.filter(({ isLeast }) => isLeast).map(({ index }) => nameOf(index));
  if (late.length > 0) why.push(`${listed(late)} ${late.length === 1 ? 'was' : 'were'} not seen there by the end.`);
  const untold = others.filter((index) => !worse.some((each) => each.index === index));
  if (untold.length > 0) why.push(`Of ${listed(untold.map(nameOf))} nothing can be told: not seen so far by the end.`);
  const none = cells.flatMap(({ mean }, index) => (mean ? [] : [nameOf(index)]));
  if (none.length > 0) why.push(`No figure of ${listed(none)}.`);

  const isAllAlike = best.length === seen.length && seen.length > 1 && worse.length === 0;
  const zero = best.length === 1 && !best.includes(group.baseline) ? between(cells, group.baseline, first) : undefined;
  const lead =
    zero && zero.told !== 'tie' && !cells[group.baseline]?.mean?.isLeast
      ? against(zero, measure, `${words.better} than ${nameOf(group.baseline)}`)
      : undefined;
  const settle = best.length > 1 ? whatWouldTell(group, found, best) : undefined;
  if (settle) claims.push({ figure: `${id} to tell`, who: listed(best.map(nameOf)), says: 'is', value: settle.says });
  return {
    who: isAllAlike ? 'No difference that these readings can show' : either(best.map(nameOf)),
    figures: best.length === 1 ? [tell(first), lead].filter(Boolean).join(', ') : undefined,
    lead,
    caveat,
    why: why.join(' '),
    settle,
    isAllAlike,
    claims,
  };
}

/** A difference of less is none to speak of: a tenth of the smaller figure, so many points of a gain in %, so many °C. */
const SMALL = { share: 0.1, points: 4, degrees: 2 };

/** Whether a difference of a figure is small beside the figures of some setups. */
function isSmall({ measure, cells }: MeasureColumn, difference: number, some: readonly number[]): boolean {
  if (measure.unit === '°C' || measure.unit === 'K') return difference < SMALL.degrees;
  if (measure.unit === 'points') return difference < SMALL.points;
  return difference < SMALL.share * Math.min(...some.map((index) => Math.abs(cells[index]?.mean?.value ?? 0)));
}

/** What lies behind a tie: that they are as good as equal, or what could hide in it. The pair that could lie furthest apart decides. */
export function tieSays(found: MeasureColumn, best: readonly number[]): string {
  const most = Math.max(
    ...best.flatMap((one, at) =>
      best.slice(at + 1).flatMap((other) => {
        const differ = between(found.cells, one, other);
        return differ ? [Math.abs(differ.value) + differ.margin] : [];
      }),
    ),
  );
  if (!Number.isFinite(most)) return '';
  const { unit } = found.measure;
  const says = unit === 's' ? spell(most, 60, 'up') : writeAmount(most, most / 2, differenceUnit(unit)).value;
  return isSmall(found, most, best) ? `: as good as equal, within ${says}` : `; up to ${says} could hide`;
}

/** How many setups have a figure. */
const knownOf = (group: Group, id: string): number => meansIn(figureOf(group, id)?.cells ?? []).length;

/** Of some figures the one that most setups have, the first of those; at least two must. */
const mostKnown = (group: Group, ids: readonly string[]): string | undefined =>
  ids.filter((id) => knownOf(group, id) > 1).sort((one, other) => knownOf(group, other) - knownOf(group, one))[0];

/** The marks at which any setup has a gain, in seconds, in order. */
export const marksIn = ({ figures }: Group): number[] =>
  [...figures.keys()].flatMap((id) => (id.startsWith('gain-') ? [Number(id.slice(5))] : [])).sort((one, other) => one - other);

/** The mark nearest to a window by which most setups have a gain: its figure’s id. */
export function gainBy(group: Group, window: number): { id: string; seconds: number } | undefined {
  const away = (seconds: number) => Math.abs(Math.log(seconds / window));
  const nearest = marksIn(group).sort((one, other) => away(one) - away(other));
  const id = mostKnown(
    group,
    nearest.map((seconds) => `gain-${seconds}`),
  );
  return id === undefined ? undefined : { id, seconds: Number(id.slice(5)) };
}

/** Who gains most in a short time; where the owner’s hours are known, how much use that is. */
export function topUp(group: Group, window: number): SaidAdvice | undefined {
  const by = gainBy(group, window);
  const said = by && bestBy(group, by.id);
  if (!said) return undefined;
  const found = figureOf(group, by.id);
  const first = found?.cells.findIndex(({ isBest }) => isBest) ?? -1;
  const [cell, setup] = [found?.cells[first], group.setups[first]];
  const hours = setup && found?.measure.unit === 'points' ? mean(setup.runs.map((one) => perPercent(one, 'h') ?? Number.NaN)) : undefined;
  const use = hours && cell?.mean ? `${fixed(hours * cell.mean.value, 1)} h of use` : undefined;
  const says = said.figures !== undefined && use !== undefined ? `About ${use}.` : '';
  const basis = by.seconds === window ? '' : `By what was gained in ${nominal(by.seconds)}.`;
  return {
    ...said,
    why: [says, basis, said.why].filter(Boolean).join(' '),
    claims: says && use !== undefined ? [...said.claims, { figure: 'use', who: said.who, says: 'is', value: use }] : said.claims,
  };
}

/** The surface whose rise is known of most setups: the figure’s id. */
export const riseBy = (group: Group): string | undefined =>
  mostKnown(
    group,
    [...group.figures.keys()].filter((id) => id.startsWith('rise-')),
  );

/** Who stays coolest, by the rise of the surface that was read most; with the highest temperatures that were seen. */
export function coolest(group: Group): SaidAdvice | undefined {
  const id = riseBy(group);
  const said = id && bestBy(group, id);
  if (!said) return undefined;
  const top = group.figures.get(id.replace('rise', 'hottest'));
  const cells = top
    ? meansIn(top.cells).map((index) => ({ value: top.cells[index]?.value ?? '', at: top.cells[index]?.mean?.value ?? 0 }))
    : [];
  cells.sort((one, other) => one.at - other.at);
  const [low, high] = [cells[0], cells.at(-1)];
  const range = low && high && low.value !== high.value ? ` Hottest: ${low.value} to ${high.value}.` : '';
  return {
    ...said,
    figures: said.figures && `rise ${said.figures}`,
    why: `By the rise over its start.${range} ${said.why}`.trim(),
    claims: range ? [...said.claims, { figure: 'hottest', who: 'all', says: 'is', value: range }] : said.claims,
  };
}

/** The most power that a device was seen to take, as its figure has it. */
export function takesAtMost(group: Group): { value: string; claim: OwnClaim } | undefined {
  const cells = group.figures.get('peak')?.cells ?? [];
  const at = greatest(meansIn(cells), (index) => cells[index]?.mean?.value);
  const value = at === undefined ? undefined : cells[at]?.value;
  return at === undefined || value === undefined
    ? undefined
    : { value, claim: { figure: 'peak', who: group.names[at] ?? '', says: 'is', value } };
}

const TIMES = ['level-80', 'level-100', 'level-50', 'level-90', 'light out', 'power gone'];

/** The level by which most setups have a time, 80 % where it is one of them: its figure’s id. None where they did not start alike. */
export const timeBy = (group: Group): string | undefined => (unevenStarts(group.setups) ? undefined : mostKnown(group, TIMES));

/** The same of several devices beside each other: of each one by which most of its setups have a time, and one for all as far as that can be. */
export function timesBy(groups: readonly Group[]): ReadonlyMap<Group, string | undefined> {
  const own = new Map(groups.map((group) => [group, timeBy(group)]));
  const isAsGood = (group: Group, id: string) => {
    const its = own.get(group);
    return its !== undefined && knownOf(group, id) === knownOf(group, its);
  };
  const shared = greatest(TIMES, (id) => groups.filter((group) => isAsGood(group, id)).length);
  return new Map([...own].map(([group, its]) => [group, shared !== undefined && isAsGood(group, shared) ? shared : its]));
}

/** The figure by which setups are judged where one must do: of windows what was gained, else the time to a level, whichever there is. */
export function mainBy(group: Group, window: number): string | undefined {
  const [time, gain] = [timeBy(group), gainBy(group, window)?.id];
  return isOfWindows(group) ? (gain ?? time) : (time ?? gain);
}

/** Whether every run was over when its window was. */
export const isOfWindows = ({ setups }: Group): boolean => setups.every((setup) => headerOf(setup).rule?.ends === 'window');
