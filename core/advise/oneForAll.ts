import { sourceSays } from '../ink/entrySays';
import { sourceKey } from '../ink/sourceKey';
import { fixed } from '../quantity/figures';
import { either, listed } from '../quantity/listed';
import { basisOf, between, meansIn, timesBy } from './best';
import { regrets } from './frontier';
import type { Claim } from './claims';
import { figureOf, headerOf, type Finding, type Group } from './question';

/** What one charger costs each device, beside the best that was run with it. */
export interface Shared {
  charger: string;
  /** Of each device, as a share above its best time: `Infinity` where it never got there. */
  each: number[];
  max: number;
}

export interface OneForAll {
  devices: string[];
  choices: Shared[];
  /** Chargers that were run with some of the devices alone, and with which they were not. */
  open: { charger: string; id: string; device: string; deviceId: string }[];
  /** Names of those with which no device is surely slower than with another of them, the one of least regret first. */
  best: string[];
  /** The figure that it goes by, in words. */
  by: string;
  claims: readonly Claim[];
}

/** So many devices are tried in every combination; of more, all or none. */
const TRIED = 10;

/** The devices that at least two chargers were all run with: as many devices as can be, then as many chargers. */
function sharing(own: readonly Group[]): Group[] {
  if (own.length > TRIED) return [...own];
  const chargers = own.map(({ setups }) => new Set(setups.map((setup) => keyOf(headerOf(setup)))));
  const common = (bits: number) => {
    const sets = chargers.filter((_, index) => bits & (1 << index));
    return [...(sets[0] ?? [])].filter((key) => sets.every((each) => each.has(key))).length;
  };
  const count = (bits: number) => own.filter((_, index) => bits & (1 << index)).length;
  const best = Array.from({ length: 2 ** own.length }, (_, bits) => bits)
    .filter((bits) => count(bits) > 1 && common(bits) > 1)
    .sort((one, other) => count(other) - count(one) || common(other) - common(one))[0];
  return best === undefined ? [...own] : own.filter((_, index) => best & (1 << index));
}

/** One charger for all devices, by least regret: how much it costs the device that fares worst with it. */
export function oneForAll(groups: readonly Group[]): OneForAll | undefined {
  const all = groups.filter(({ device, setups }) => device && setups.length > 0);
  if (all.length < 2) return undefined;
  const own = sharing(all);
  const times = timesBy(own);
  const sources = new Map<string, { name: string; id: string }>();
  for (const { setups } of own)
    for (const setup of setups) {
      const header = headerOf(setup);
      sources.set(keyOf(header), { name: sourceSays(header), id: header.charger.id });
    }
  const cellOf = (group: Group, key: string) => {
    const found = figureOf(group, times.get(group));
    const at = group.setups.findIndex((setup) => keyOf(headerOf(setup)) === key);
    return found && at >= 0 ? { ...found, at } : undefined;
  };
  const whole = [...sources].filter(([key]) => own.every((group) => cellOf(group, key)?.cells[cellOf(group, key)?.at ?? -1]?.mean));
  const open = [...sources].flatMap(([key, { name, id }]) => {
    const missing = own.filter((group) => !group.setups.some((setup) => keyOf(headerOf(setup)) === key));
    return missing.length > 0 && missing.length < own.length
      ? missing.map(({ of, device }) => ({ charger: name, id, device: of, deviceId: device?.id ?? '' }))
      : [];
  });
  if (whole.length < 2)
    return open.length > 0 ? { devices: own.map(({ of }) => of), choices: [], open, best: [], by: '', claims: [] } : undefined;
  const timeOf = (group: Group, key: string) => {
    const cell = cellOf(group, key);
    const mean = cell?.cells[cell.at]?.mean;
    return !mean || mean.isLeast ? Infinity : mean.value;
  };
  const ranked = regrets(
    whole.map(([key]) => key),
    (key) => own.map((group) => timeOf(group, key)),
  );
  // Two are alike where no device is surely slower with either.
  const areAlike = (key: string, other: string) =>
    own.every((group) => {
      const [mine, theirs] = [cellOf(group, key), cellOf(group, other)];
      if (!mine || !theirs || !meansIn(mine.cells).includes(mine.at)) return false;
      return mine.at === theirs.at || between(mine.cells, theirs.at, mine.at)?.told === 'tie';
    });
  // Ties are not transitive: each that is named is like every other that is.
  const [least, ...others] = ranked.map(({ choice }) => choice);
  const best = least !== undefined && areAlike(least, least) ? [least] : [];
  if (best.length > 0) for (const key of others) if (best.every((other) => areAlike(key, other))) best.push(key);
  const nameOf = (key: string) => sources.get(key)?.name ?? '';
  const found = own.flatMap((group) => figureOf(group, times.get(group)) ?? []);
  return {
    devices: own.map(({ of }) => of),
    choices: ranked.map(({ choice, each, max }) => ({ charger: nameOf(choice), each, max })),
    open,
    best: best.map(nameOf),
    by: listed([...new Set(found.map(({ measure }) => basisOf(measure)))]),
    claims: own.flatMap((group): Claim[] =>
      best.flatMap((one, at) =>
        best.slice(at + 1).flatMap((other): Claim[] => {
          const [mine, theirs] = [cellOf(group, one), cellOf(group, other)];
          if (!mine || !theirs || mine.at === theirs.at) return [];
          const [who, than] = [group.names[mine.at] ?? '', group.names[theirs.at] ?? ''];
          return [{ of: group.of, figure: mine.measure.id, who, says: 'alike', than }];
        }),
      ),
    ),
  };
}

const keyOf = (header: Parameters<typeof sourceKey>[0]) => sourceKey({ ...header, cable: undefined, port: undefined, feed: undefined });

/** One charger for all, in a sentence. */
export function oneForAllSays(found: OneForAll | undefined): Finding[] {
  if (!found) return [];
  const { devices, choices, open, best } = found;
  const [least] = choices;
  const settle =
    open.length > 0
      ? {
          says: `Not run: ${listed(open.slice(0, 4).map(({ charger, device }) => `${device} on ${charger}`))}.`,
          runs: open.slice(0, 4).map(({ id, deviceId }) => ({ device: deviceId, charger: id, runs: 1 })),
        }
      : undefined;
  const about = { need: 'one-for-all', title: 'One for all' };
  if (!least || best.length === 0)
    return [{ ...about, says: 'Not enough was run', why: `No two chargers were run with all of ${listed(devices)}.`, settle, claims: [] }];
  const share = (regret: number) =>
    Number.isFinite(regret)
      ? `it takes ${regret < 1 ? `${fixed(regret * 100)} % longer than` : `${fixed(regret + 1, 1)} times as long as`} with its best`
      : 'it never gets there';
  const worst = least.each.indexOf(least.max);
  return [
    {
      ...about,
      says: either(best),
      why: [
        `Of ${listed(devices)}.`,
        best.length > 1 ? `By ${found.by}, no device is surely slower with one of them than with another.` : `By ${found.by}.`,
        least.max < 0.005
          ? 'Every device is as fast with it as with its best.'
          : `With ${least.charger}, ${devices[worst] ?? ''} loses most: ${share(least.max)}.`,
        ...choices
          .slice(1, 3)
          .flatMap(({ charger, each, max }) =>
            best.includes(charger) ? [] : [`With ${charger}, ${devices[each.indexOf(max)] ?? ''} loses most: ${share(max)}.`],
          ),
      ]
        .filter(Boolean)
        .join(' '),
      settle,
      claims: [
        ...found.claims,
        ...choices
          .slice(0, 3)
          .map(({ charger, max }): Claim => ({ of: listed(devices), figure: 'regret', who: charger, says: 'is', value: share(max) })),
      ],
    },
  ];
}
