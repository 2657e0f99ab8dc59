import { expectationOf } from '../power/expectations';
import { expectedCharge } from '../simulate/expected';
import { fixed } from '../quantity/figures';
import { listed } from '../quantity/listed';
import { spell } from '../quantity/duration';
import { usualFeed } from '../bench/feed';
import { between, isBetter, mainBy, timeBy } from './best';
import { nowOf } from './cost';
import { figureOf, headerOf, type Group, type Said, type Shelf } from './question';

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
    return [`${group.names[index] ?? ''}: expected ${fixed(expected.watts)} W, saw ${fixed(watts)}${fell}.`];
  });
}

/** From which rating on nothing changes, in time or, of a window, in gain: every setup from there on ties with every other, and one below is surely slower. */
export function ceiling(group: Group, window: number, isHidden: boolean): Said | undefined {
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
  const at = rated.findIndex((_, from) => {
    const above = rated.slice(from);
    const isFlat = above.every(
      ({ index }) =>
        cells[index]?.mean?.isLeast === false &&
        above.every((other) => other.index === index || between(cells, index, other.index)?.told === 'tie'),
    );
    return isFlat && new Set(above.map(({ watts }) => watts)).size > 1;
  });
  const [from, last] = [rated[at], rated.at(-1)];
  const below = from ? rated.slice(0, at) : [];
  const isTold = from && below.some(({ index }) => rated.slice(at).some((above) => isBetter(cells, measure, above.index, index)));
  if (!from || !last || !isTold)
    return short.length > 0 ? { isSentence: true, who: 'It was not reached as expected', why: short.join(' ') } : undefined;
  const limit = expectedOf(group, last.index);
  const expected =
    limit?.limit === 'device'
      ? `The device is the limit, as expected: ${fixed(limit.watts)} W${limit.volts ? ` (${fixed(limit.volts)} V × ${fixed(limit.watts / limit.volts, 2)} A)` : ''}.`
      : limit
        ? `By the facts on the shelf ${group.names[last.index] ?? ''} should still have given more: ${fixed(limit.watts)} W.`
        : '';
  return {
    isSentence: true,
    who: `Nothing changes above ${fixed(from.watts)} W`,
    why: [
      `${listed(rated.slice(at).map(({ index }) => group.names[index] ?? ''))} tie, ${measure.title.toLowerCase()}.`,
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
export function untested(group: Group, shelf: Shelf): Said | undefined {
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
    who: `${first.charger.name} should take about ${spell(first.seconds)} to ${level} %`,
    why: [
      ...some.slice(1).map(({ charger, seconds }) => `${charger.name} about ${spell(seconds)}.`),
      'In pencil, by the facts on the shelf: no reading is behind it.',
    ].join(' '),
    settle: { says: 'One run of it would show.', runs: [{ device: device.id, charger: first.charger.id, runs: 1 }] },
  };
}
