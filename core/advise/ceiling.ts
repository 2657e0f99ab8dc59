import { least } from 'd3-array';
import { expectationOf } from '../power/expectations';
import { expectedCharge } from '../simulate/expected';
import { fixed } from '../quantity/figures';
import { listed } from '../quantity/listed';
import { spell } from '../quantity/duration';
import { usualFeed } from '../bench/feed';
import { basisOf, between, isBetter, mainBy, tieSays, timeBy } from './best';
import { nowOf } from './cost';
import { figureOf, headerOf, type Group, type SaidAdvice, type AdviceGear } from './question';

/** What was expected of a setup by the facts of its gear, in W; nothing of gear whose watts nobody wrote down. */
export function expectedOf(group: Group, index: number) {
  const setup = group.setups[index];
  if (!setup) return undefined;
  const { device, charger, cable, feed } = headerOf(setup);
  const { negotiated } = expectationOf(device, charger, cable, feed);
  return negotiated.watts > 0 ? negotiated : undefined;
}

/** Measured power this much under what was expected is pointed out, as a share (common practice, no source: what a charger is rated for is not all drawn). */
const SHORT = 0.75;

/** Volts under which a charge has no faster signalling, in V. */
export const FIVE_VOLTS = 5.6;

/** Setups that drew far less than their gear let one expect, in sentences. */
function shortOf(group: Group): string[] {
  const peaks = group.figures.get('peak')?.cells ?? [];
  return group.setups.flatMap((setup, index) => {
    const [watts, expected] = [peaks[index]?.mean?.value, expectedOf(group, index)];
    if (watts === undefined || !expected || watts >= SHORT * expected.watts || expected.by === 'wireless') return [];
    const stage = setup.runs[0]?.figures.stages.find(({ kind }) => kind === 'steady');
    const fell =
      stage?.volts !== undefined && stage.volts < FIVE_VOLTS && (expected.volts ?? 0) > 6 ? ': it fell back to 5 V; check the cable' : '';
    return [`${group.names[index] ?? ''}: expected ${fixed(expected.watts)} W, saw ${fixed(watts)} W${fell}.`];
  });
}

/** Of those above a ceiling at most so many may be exceptions. */
const EXCEPTIONS = 1 / 3;

/**
 * From which rating on nothing changes, in time or, of a window, in gain: the least that ties with the best. All below are surely worse; above it all tie
 * with the best but a few, which are named.
 */
export function ceiling(group: Group, window: number, isHidden: boolean): SaidAdvice | undefined {
  const id = mainBy(group, window);
  const found = figureOf(group, id);
  if (!found || !group.device || isHidden) return undefined;
  const { measure, cells } = found;
  // One that was not seen there by the end can still be surely slower.
  const rated = group.setups.flatMap((setup, index) => {
    if (!cells[index]?.mean) return [];
    const { charger } = headerOf(setup);
    return charger.watts !== undefined && charger.kind !== 'pad' ? [{ index, watts: charger.watts }] : [];
  });
  rated.sort((one, other) => one.watts - other.watts);
  const short = shortOf(group);
  const nameOf = (index: number) => group.names[index] ?? '';
  const seen = rated.filter(({ index }) => cells[index]?.mean?.isLeast === false);
  const sign = measure.better === 'more' ? -1 : 1;
  const best = least(seen, ({ index }) => sign * (cells[index]?.mean?.value ?? Infinity));
  const ties = ({ index }: { index: number }) =>
    best !== undefined &&
    cells[index]?.mean?.isLeast === false &&
    (index === best.index || between(cells, index, best.index)?.told === 'tie');
  const at = rated.findIndex(ties);
  const [from, last] = [rated[at], rated.findLast(ties)];
  const [below, above] = from ? [rated.slice(0, at).filter(({ watts }) => watts < from.watts), rated.slice(at)] : [[], []];
  const exceptions = above.filter((each) => !ties(each));
  const alike = above.filter(ties);
  const isDistinguishable =
    below.length > 0 &&
    best !== undefined &&
    below.every(({ index }) => isBetter(cells, measure, best.index, index)) &&
    new Set(alike.map(({ watts }) => watts)).size > 1 &&
    exceptions.length <= EXCEPTIONS * above.length;
  const shortOfIt = short.map((value) => ({ figure: 'short', who: value, says: 'is' as const, value }));
  if (!from || !last || !isDistinguishable)
    return short.length > 0
      ? { isSentence: true, who: 'Less power than expected was seen', why: short.join(' '), claims: shortOfIt }
      : undefined;
  const limit = expectedOf(group, last.index);
  const expected =
    limit?.limit === 'device'
      ? `The device is the limit, as expected: ${fixed(limit.watts)} W${limit.volts ? ` (${fixed(limit.volts)} V × ${fixed(limit.watts / limit.volts, 2)} A)` : ''}.`
      : limit
        ? `By the facts on the shelf ${group.names[last.index] ?? ''} should still have given more: ${fixed(limit.watts)} W.`
        : '';
  const others = alike.filter(({ index }) => index !== best.index);
  const hidden = tieSays(
    found,
    alike.map(({ index }) => index),
  );
  return {
    isSentence: true,
    claims: [
      ...others.map(({ index }) => ({ figure: measure.id, who: nameOf(index), says: 'alike' as const, than: nameOf(best.index) })),
      ...below.map(({ index }) => ({ figure: measure.id, who: nameOf(best.index), says: 'better' as const, than: nameOf(index) })),
      { figure: 'ceiling', who: 'rating', says: 'is', value: `${fixed(from.watts)} W` },
      { figure: 'ceiling apart', who: 'rating', says: 'is', value: `${hidden} ${expected}` },
      ...shortOfIt,
    ],
    who: `Nothing changes above ${fixed(from.watts)} W`,
    why: [
      `${listed(others.map(({ index }) => nameOf(index)))} ${others.length === 1 ? 'is' : 'are'} not told apart from ${nameOf(best.index)} by ${basisOf(measure)}${hidden}.`,
      exceptions.length > 0 && `Not so ${listed(exceptions.map(({ index }) => nameOf(index)))}.`,
      expected,
      ...short,
    ]
      .filter(Boolean)
      .join(' '),
  };
}

/** Gear on the shelf that was not run and is spoken of, at most. */
const SPOKEN_OF = 3;

/** What gear on the shelf that was not run is expected to do, in pencil. */
export function untested(group: Group, shelf: AdviceGear): SaidAdvice | undefined {
  const { device } = group;
  const id = timeBy(group);
  const found = figureOf(group, id);
  if (!device || !id?.startsWith('level-') || !found) return undefined;
  const level = Number(id.slice(6));
  const now = nowOf(shelf.devices, device);
  const run = new Set(group.setups.map((setup) => headerOf(setup).charger.id));
  const starts = group.setups.flatMap(({ runs }) => runs.flatMap(({ figures }) => figures.startLevel ?? []));
  const start = starts.length > 0 ? Math.min(...starts) : 0;
  const times = shelf.chargers.flatMap((charger) => {
    if (run.has(charger.id) || charger.retired) return [];
    const { negotiated } = expectationOf(now, charger, undefined, usualFeed(charger, shelf.chargers, shelf.cables));
    const seconds = expectedCharge(negotiated, start)?.reaches(level);
    return seconds === undefined ? [] : [{ charger, seconds }];
  });
  times.sort((one, other) => one.seconds - other.seconds);
  const some = times.slice(0, SPOKEN_OF);
  const [first] = some;
  if (!first) return undefined;
  return {
    isSentence: true,
    claims: some.map(({ charger, seconds }) => ({ figure: `${id} expected`, who: charger.name, says: 'is', value: spell(seconds) })),
    who: `${first.charger.name} should take about ${spell(first.seconds)} to ${level} %`,
    why: [
      ...some.slice(1).map(({ charger, seconds }) => `${charger.name} about ${spell(seconds)}.`),
      'In pencil, by the facts on the shelf: no reading is behind it.',
    ].join(' '),
    settle: { says: 'One run would show.', runs: [{ device: device.id, charger: first.charger.id, runs: 1 }] },
  };
}
