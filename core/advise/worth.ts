import { max } from 'd3-array';
import { toldFigures, writeApart } from '../compare/amounts';
import type { Cell } from '../compare/cells';
import { shownMargin } from '../margin/bounds';
import { fixed, price, priced, trimmed } from '../quantity/figures';
import { nominal, spell } from '../quantity/duration';
import { shareInWords } from '../quantity/share';
import { basisOf, between, gainBy, isBetter, mainBy, meansIn, riseBy, timeBy } from './best';
import { costOfSetup, nowOf, type Cost } from './cost';
import { frontierOf, type Plotted } from './frontier';
import { either, listed } from '../quantity/listed';
import type { OwnClaim } from './claims';
import { figureOf, headerOf, type Group, type SaidAdvice, type AdviceGear, type Wishes } from './question';

/** Price against time, in seconds. */
export interface Worth {
  /** The figure that the time is, and its title. */
  id: string;
  title: string;
  points: Plotted[];
  /** Of every setup of the group. */
  costs: Cost[];
}

/** Price against time of the setups whose price is known; `undefined` where fewer than two have both. */
export function worthOf(group: Group, shelf: AdviceGear): Worth | undefined {
  const id = timeBy(group);
  const found = figureOf(group, id);
  if (!found || id === undefined || !group.device) return undefined;
  const { measure, cells } = found;
  const costs = group.setups.map((setup) => costOfSetup(setup, shelf));
  const known = meansIn(cells).filter((index) => costs[index]?.value !== undefined);
  if (known.length < 2) return undefined;
  const cost = (at: number) => costs[known[at] ?? -1]?.value ?? Infinity;
  const sooner = (one: number, other: number) => isBetter(cells, measure, known[one] ?? -1, known[other] ?? -1);
  const frontier = new Set(frontierOf(known.length, [sooner, (one, other) => cost(one) < cost(other)]));
  return {
    id,
    title: measure.title,
    costs,
    points: known.map((index, at): Plotted => {
      const mean = cells[index]?.mean;
      return {
        index,
        name: group.names[index] ?? '',
        x: cost(at),
        xMargin: 0,
        y: mean?.value ?? 0,
        yMargin: shownMargin(mean?.uncertainty ?? 0),
        isOn: frontier.has(at),
      };
    }),
  };
}

/** So much of the most that can be saved is most of it. */
const MOST_OF_IT = 2 / 3;

/** A step that saves a smaller share of the time is hardly one. */
const HARDLY = 0.1;

/** Steps up the frontier that are told one by one. */
const STEPS = 2;

/** What a minute saved costs, with its margin: nothing where nothing more is paid. */
export function perMinute(more: number, saved: { value: number; margin: number }): { value: number; margin: number } {
  const minutes = saved.value / 60;
  return { value: more / minutes, margin: ((more / minutes) * saved.margin) / saved.value };
}

/** Which is worth its price: the cheapest that gives most of what can be had, and what each step up the frontier costs for a minute saved. */
export function worth(group: Group, shelf: AdviceGear): SaidAdvice | undefined {
  const found = worthOf(group, shelf);
  const figures = found && group.figures.get(found.id);
  if (!found || !figures) return undefined;
  const { measure, cells } = figures;
  const line = found.points.filter(({ isOn }) => isOn).sort((one, other) => one.x - other.x);
  const [cheapest] = line;
  if (!cheapest) return undefined;
  const isFaster = (one: Plotted, other: Plotted) => isBetter(cells, measure, one.index, other.index);
  // Only what is told apart from the cheapest saves anything. Ties are not transitive: what saves can lie beside the frontier.
  const savers = found.points.filter((each) => isFaster(each, cheapest)).sort((one, other) => one.x - other.x);
  const all = max(savers, ({ y }) => cheapest.y - y) ?? 0;
  const pick = savers.find(({ y }) => cheapest.y - y >= MOST_OF_IT * all) ?? cheapest;
  const gives =
    pick === cheapest
      ? `${found.costs.some(({ value }) => value === undefined) ? 'and nothing dearer whose price is known' : 'and nothing dearer'} saves time that these readings can show`
      : found.points.some((each) => isFaster(each, pick))
        ? 'most of the gain'
        : 'and nothing surely saves more';

  const claims: OwnClaim[] = [];
  const why: string[] = [`By ${basisOf(measure)}.`];
  /** Steps that save less than a tenth of the time: told last. */
  const hardly: string[] = [];
  const step = (from: Plotted, to: Plotted) => {
    const differ = between(cells, to.index, from.index);
    if (differ?.told !== 'below') return;
    const more = to.x - from.x;
    const rate = perMinute(more, { value: differ.shown, margin: differ.margin });
    const told = toldFigures(rate.value, rate.margin, 2);
    const isHardly = differ.value < HARDLY * from.y;
    const saved = writeApart(differ, measure.unit);
    const rated = told.isJust ? `about ${priced(told.value)}` : priced(`${told.value} ± ${told.margin}`);
    (isHardly ? hardly : why).push(
      `${to.name} ${isHardly ? 'hardly saves time' : 'saves time'} over ${from.name}: ${saved.both}${saved.isJust ? ',' : ''} for ${price(more)} more, ${rated} a minute.`,
    );
    claims.push(
      { figure: measure.id, who: to.name, says: 'better', than: from.name, value: saved.both },
      { figure: 'cost', who: to.name, says: 'better', than: from.name, value: `${price(more)} more, ${rated}` },
    );
  };
  // Up to the one that is named, then what each dearer one adds.
  const dearer = line.filter((each) => each.x > pick.x);
  if (pick !== cheapest) step(cheapest, pick);
  for (const [index, each] of dearer.slice(0, STEPS).entries()) step(dearer[index - 1] ?? pick, each);
  if (dearer.length > STEPS) why.push(`${dearer.length - STEPS} dearer ones save more still, each step for more.`);
  const idle = found.points.filter((each) => !each.isOn && each.x > pick.x && !isFaster(each, pick));
  if (idle.length > 0)
    why.push(
      `${listed(idle.map(({ name }) => name))} ${idle.length === 1 ? 'costs more and shows' : 'cost more and show'} no gain over what is cheaper.`,
    );
  why.push(...hardly);
  const paid = found.costs[pick.index];
  if (paid) {
    why.push(`Counted: ${paid.says}.`);
    claims.push({ figure: 'parts', who: pick.name, says: 'is', value: paid.says });
  }
  for (const [index, { pair }] of found.costs.entries())
    if (pair) {
      claims.push({
        figure: 'pair',
        who: group.names[index] ?? '',
        says: 'is',
        value: [pair.family, pair.value !== undefined && price(pair.value), pair.cable].filter(Boolean).join(' '),
      });
      why.push(
        `${group.names[index] ?? ''} charges fast by ${pair.family}, which needs ${pair.cable === undefined ? 'its own cable, which comes with it' : `its own cable, ${pair.cable}`}: to replace the pair costs ${pair.value === undefined ? 'what nobody wrote down' : price(pair.value)}.`,
      );
    }
  const unknown = found.costs.flatMap(({ value }, index) => (value === undefined ? [group.names[index] ?? ''] : []));
  if (unknown.length > 0) why.push(`No price is known of ${listed(unknown)}.`);
  const paidSays = pick.x === 0 ? 'at home already' : price(pick.x);
  claims.push({ figure: 'cost', who: pick.name, says: 'is', value: paidSays });
  if (pick === cheapest)
    for (const each of found.points.filter(({ x }) => x > pick.x))
      claims.push({ figure: measure.id, who: pick.name, says: 'unbeaten', than: each.name });
  const said =
    gives !== 'most of the gain' ? `${paidSays}, ${gives}` : pick.x === 0 ? `${gives}, and at home already` : `${gives} for ${paidSays}`;
  return { who: pick.name, figures: said, why: why.join(' '), claims };
}

/** Volume of a size such as `58 × 28 × 51 mm`, in cm³. */
export function volumeOf(size: string | undefined): number | undefined {
  const sides =
    (size ?? '')
      .replaceAll(',', '.')
      .match(/\d+(\.\d+)?/g)
      ?.map(Number) ?? [];
  if (sides.length < 3) return undefined;
  const scale = /\bcm\b/.test(size ?? '') ? 1 : /\bin\b|″/.test(size ?? '') ? 2.54 : 0.1;
  return sides.slice(0, 3).reduce((product, side) => product * side * scale, 1);
}

/** The lightest that loses no more than is allowed; by size and by price where no weight is known. */
export function toTravel(group: Group, { loss, window }: Pick<Wishes, 'loss' | 'window'>, shelf: AdviceGear): SaidAdvice | undefined {
  const id = mainBy(group, window);
  const found = figureOf(group, id);
  if (!found || !group.device || group.setups.length < 2) return undefined;
  const { measure, cells } = found;
  const seen = meansIn(cells);
  const values = seen.map((index) => cells[index]?.mean?.value ?? 0);
  const isLess = measure.better === 'less';
  const best = isLess ? Math.min(...values) : Math.max(...values);
  const isEnough = (index: number) => {
    const value = cells[index]?.mean?.value ?? 0;
    return isLess ? value <= best * (1 + loss) : value >= best * (1 - loss);
  };
  const adequate = seen.filter(isEnough);
  const gear = (index: number) => {
    const setup = group.setups[index];
    const charger = setup && headerOf(setup).charger;
    return charger && nowOf(shelf.chargers, charger);
  };
  const ways = [
    { name: 'lightest', of: (index: number) => gear(index)?.weight, says: (value: number) => `${trimmed(value, 0)} g` },
    { name: 'smallest', of: (index: number) => volumeOf(gear(index)?.size), says: (value: number) => `${fixed(value)} cm³` },
    { name: 'cheapest', of: (index: number) => gear(index)?.price, says: (value: number) => price(value) },
  ];
  const leastBy = ways.flatMap(({ name, of, says }) => {
    const known = adequate.filter((index) => of(index) !== undefined).sort((one, other) => (of(one) ?? 0) - (of(other) ?? 0));
    return known[0] === undefined ? [] : [{ name, index: known[0], says: says(of(known[0]) ?? 0), known }];
  });
  const [by, ...others] = leastBy;
  if (!by) return undefined;
  const nameOf = (index: number) => group.names[index] ?? '';
  const traits = gear(by.index)?.traits ?? [];
  const plugs = ['folding pins', 'changeable plugs'] as const;
  const plugged = plugs.flatMap((trait) => {
    const with_ = traits.includes(trait) ? undefined : by.known.find((index) => gear(index)?.traits?.includes(trait));
    return with_ === undefined ? [] : [`With ${trait}: ${nameOf(with_)}.`];
  });
  const unknown = adequate.filter((index) => !by.known.includes(index)).map(nameOf);
  return {
    claims: [
      { figure: measure.id, who: nameOf(by.index), says: 'is', value: cells[by.index]?.value ?? '' },
      ...leastBy.map(({ name, index, says }) => ({ figure: name, who: nameOf(index), says: 'is' as const, value: says })),
    ],
    who: nameOf(by.index),
    figures: `${by.says}, ${cells[by.index]?.value ?? ''}`,
    why: [
      `The ${by.name} within ${fixed(loss * 100)} % of the best, by ${basisOf(measure)}.`,
      traits.length > 0 && `It has ${listed(traits.map((trait) => (trait === 'light' ? 'a light' : trait)))}.`,
      ...others.filter(({ index }) => index !== by.index).map(({ name, index, says }) => `The ${name}: ${nameOf(index)}, ${says}.`),
      ...plugged,
      unknown.length > 0 &&
        `Nothing is known of the ${by.name === 'lightest' ? 'weight' : by.name === 'smallest' ? 'size' : 'price'} of ${listed(unknown)}.`,
    ]
      .filter(Boolean)
      .join(' '),
  };
}

/** Whether a setup fills a device within a night: surely, surely not, or it was not seen. */
function nightOf(mean: Cell['mean'], night: number): 'fills' | 'late' | 'open' {
  if (!mean) return 'open';
  const margin = mean.isLeast ? 0 : shownMargin(mean.uncertainty);
  if (mean.value - margin > night) return 'late';
  return !mean.isLeast && mean.value + margin <= night ? 'fills' : 'open';
}

/** When each setup was full, by whatever shows it. */
const fullIn = ({ figures }: Group) => figures.get('level-100') ?? figures.get('light out') ?? figures.get('power gone');

/** Which fill it within a night, and which of them stays coolest. */
export function overnight(group: Group, { night }: Pick<Wishes, 'night'>): SaidAdvice | undefined {
  const found = fullIn(group);
  if (!found || group.setups.length < 2) return undefined;
  const { cells, measure } = found;
  const all = group.setups.map((_, index) => index);
  const which = (does: ReturnType<typeof nightOf>) => all.filter((index) => nightOf(cells[index]?.mean, night) === does);
  const [can, late, open] = [which('fills'), which('late'), which('open')];
  if (can.length === 0) return undefined;
  const nameOf = (index: number) => group.names[index] ?? '';
  const valueOf = (index: number) => cells[index]?.mean?.value ?? 0;
  const slowest = can.reduce((one, other) => (valueOf(other) > valueOf(one) ? other : one));
  const value = cells[slowest]?.value ?? '';
  const why = [
    `${can.length === 1 ? nameOf(slowest) : `The slowest of them, ${nameOf(slowest)},`} takes ${value}, within a night of ${nominal(night)}: how fast it is does not matter then.`,
    late.length > 0 && `${listed(late.map(nameOf))} will not have filled it by then.`,
    open.length > 0 && `Whether ${either(open.map(nameOf))} would fill it was not seen.`,
  ];
  const cool = coolestOf(group, can);
  return {
    who: `${can.length === all.length ? 'Any of them' : either(can.map(nameOf))}${cool === undefined ? '' : ` (coolest: ${nameOf(cool)})`}`,
    why: why.filter(Boolean).join(' '),
    claims: [
      { figure: measure.id, who: nameOf(slowest), says: 'is', value },
      ...[...can, ...late].map((index) => ({
        figure: 'nights',
        who: nameOf(index),
        says: can.includes(index) ? ('serves' as const) : ('fails' as const),
      })),
    ],
  };
}

/** The one of some that is surely cooler than each other of them. */
function coolestOf(group: Group, some: readonly number[]): number | undefined {
  const id = riseBy(group);
  const found = figureOf(group, id);
  if (!found || some.length < 2) return undefined;
  return some.find((one) => some.every((other) => other === one || isBetter(found.cells, found.measure, one, other)));
}

/** So much of what the best gives in a short time is still a top-up. */
const STILL_A_TOP_UP = 1 / 2;

/** What an old charger gives in a short time, beside the best: whether that is a top-up still, and how it is said. */
function topUpOf(group: Group, old: number, window: number): { does: boolean; says: string; claim: OwnClaim } | undefined {
  const by = gainBy(group, window);
  const found = figureOf(group, by?.id);
  if (!by || !found) return undefined;
  const { cells, measure } = found;
  const best = meansIn(cells)
    .filter((index) => cells[index]?.isBest)
    .sort((one, other) => (cells[other]?.mean?.value ?? 0) - (cells[one]?.mean?.value ?? 0))[0];
  const differ = best === undefined || best === old ? undefined : between(cells, best, old);
  const name = group.names[old] ?? '';
  const inTime = `In ${spell(by.seconds)} ${name} gives`;
  if (best === old) return { does: true, says: `${inTime} as much as any.`, claim: { figure: 'top-ups', who: name, says: 'serves' } };
  if (best === undefined || !differ) return undefined;
  const than = group.names[best] ?? '';
  if (differ.told === 'tie')
    return {
      does: true,
      says: `${inTime} as much as ${than}, as far as these readings show.`,
      claim: { figure: measure.id, who: name, says: 'alike', than },
    };
  const share = Math.max(0, (cells[old]?.mean?.value ?? 0) / (cells[best]?.mean?.value ?? 1));
  return {
    does: share >= STILL_A_TOP_UP,
    says: `${inTime} ${shareInWords(share)} what ${than} gives.`,
    claim: { figure: measure.id, who: than, says: 'better', than: name },
  };
}

/** Whether the weakest charger that is at home, or came in the box, is still of use, as its owner charges. */
export function keepOrNot(group: Group, wishes: Wishes, shelf: AdviceGear): SaidAdvice | undefined {
  if (!group.device || group.setups.length < 2) return undefined;
  const charger = (index: number) => {
    const setup = group.setups[index];
    const its = setup && headerOf(setup).charger;
    return its && nowOf(shelf.chargers, its);
  };
  const all = group.setups.map((_, index) => index);
  const home = all.filter((index) => charger(index)?.owned === true || charger(index)?.id === group.device?.boxCharger);
  const [old] = (home.length > 0 ? home : all.filter((index) => charger(index)?.owned === undefined))
    .filter((index) => charger(index)?.watts !== undefined)
    .sort((one, other) => (charger(one)?.watts ?? 0) - (charger(other)?.watts ?? 0));
  if (old === undefined) return undefined;
  const name = group.names[old] ?? '';
  const full = fullIn(group);
  const cell = full?.cells[old];
  const does = nightOf(cell?.mean, wishes.night);
  const nights = does === 'open' ? undefined : does === 'fills';
  const topUp = topUpOf(group, old, wishes.window);
  const isKept = (habit: Wishes['habit']): { who: string; for: readonly boolean[] } | undefined => {
    if (habit === 'overnight')
      return nights === undefined
        ? undefined
        : { who: nights ? `Keep ${name} for nights` : `${name} can go: a night is too short for it`, for: [nights] };
    if (habit === 'top-ups')
      return (
        topUp && { who: topUp.does ? `Keep ${name}: it still tops up` : `${name} can go: it is too slow for top-ups`, for: [topUp.does] }
      );
    if (nights === undefined || !topUp) return isKept(nights === undefined ? 'top-ups' : 'overnight');
    if (nights) return { who: topUp.does ? `Keep ${name}` : `Keep ${name} for nights; not for top-ups`, for: [nights, topUp.does] };
    return { who: topUp.does ? `Keep ${name} for top-ups; not for nights` : `${name} can go`, for: [nights, topUp.does] };
  };
  const says = isKept(wishes.habit);
  if (!says) return undefined;
  const value = cell?.value ?? '';
  return {
    who: says.who,
    isSentence: true,
    why: [
      nights === true && `${name} takes ${value} to full, within a night.`,
      nights === false && `${name} does not fill it within a night.`,
      topUp?.says,
    ]
      .filter(Boolean)
      .join(' '),
    claims: [
      ...(nights === undefined ? [] : [{ figure: 'nights', who: name, says: nights ? ('serves' as const) : ('fails' as const) }]),
      ...(nights === true ? [{ figure: full?.measure.id ?? '', who: name, says: 'is' as const, value }] : []),
      ...(topUp ? [{ figure: 'top-ups', who: name, says: topUp.does ? ('serves' as const) : ('fails' as const) }, topUp.claim] : []),
    ],
  };
}
