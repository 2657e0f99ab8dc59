import { group } from 'd3-array';
import { compatibility, notSeenSays, type Compatible } from '../compare/compatibility';
import { loadsOf, type Load } from '../compare/loads';
import { statusSays, type StatusId } from '../ink/statuses';
import { TRIAL_STATES } from '../ink/trialStates';
import { fixed } from '../quantity/figures';
import { listed } from '../quantity/listed';
import type { Claim } from './claims';
import type { Finding, Question } from './question';

/** Loads whose battery is told one by one, at most. */
const TOLD = 6;

/** Whether a source slows the machine down: by the scores of each workload, and by what the battery did meanwhile. */
export function underLoad(worked: Question['worked']): Finding[] {
  const loads = loadsOf(worked);
  const rivals = [...group(loads, ({ device, name }) => JSON.stringify([device, name])).values()].filter((each) => each.length > 1);
  if (rivals.length === 0) return [];
  return [...slowsDown(rivals), ...stillFills(loads)];
}

/** @param rivals the same work of one device on several sources */
function slowsDown(rivals: readonly (readonly Load[])[]): Finding[] {
  const scored = rivals.filter((each) => each.every(({ scores }) => scores.length > 0));
  if (scored.length === 0) return [];
  const slower = scored.flatMap((each) =>
    each.flatMap(({ device, source, name, scores }) =>
      scores.filter(({ place }) => place > 1).map((score) => ({ device, source, name, score: score.name })),
    ),
  );
  const works = listed([...new Set(scored.map((each) => each[0]?.name ?? ''))]);
  const who = [...new Set(slower.map(({ source }) => source))];
  return [
    {
      need: 'dock',
      title: 'Does it slow it down',
      says:
        who.length === 0
          ? `No: no source scores worse in ${works}`
          : `Yes: ${who.map((source) => `${source} in ${worksOn(slower, source)}`).join('; ')}`,
      why:
        who.length === 0
          ? 'Scores within 3 % of each other tie.'
          : slower.map(({ source, name, score }) => `${source} scores surely worse in ${name} (${score}).`).join(' '),
      claims: scored.flatMap((each) =>
        each.map(({ device, source, name, scores }): Claim => {
          const does = scores.every(({ place }) => place === 1);
          return { of: device, figure: `score in ${name}`, who: source, says: does ? 'serves' : 'fails' };
        }),
      ),
    },
  ];
}

const worksOn = (some: readonly { source: string; name: string }[], source: string) =>
  listed([...new Set(some.filter((each) => each.source === source).map(({ name }) => name))]);

function stillFills(loads: readonly Load[]): Finding[] {
  const does = (what: Load['battery']) => loads.filter(({ battery }) => battery === what);
  const [fills, holds, drains] = [does('charges'), does('holds'), does('drains')];
  const sources = (some: readonly Load[]) =>
    [...new Set(some.map(({ source }) => source))].map((source) => `${source} in ${worksOn(some, source)}`);
  if (fills.length + holds.length + drains.length === 0) return [];
  const told = [...drains, ...holds, ...fills].flatMap(({ device, source, name, batteryWatts, inputWatts }) =>
    batteryWatts === undefined
      ? []
      : [
          {
            of: device,
            who: `${source}, ${name}`,
            value: `${fixed(Math.abs(batteryWatts), 1)} W ${batteryWatts < 0 ? 'out of' : 'into'} the battery${inputWatts === undefined ? '' : ` of ${fixed(inputWatts, 1)} W in`}`,
          },
        ],
  );
  return [
    {
      need: 'fills',
      title: 'Does the battery still fill',
      says:
        drains.length > 0
          ? `Not under every load: it drains on ${sources(drains).join('; on ')}`
          : holds.length > 0
            ? `It never drains; it only holds on ${sources(holds).join('; on ')}`
            : 'Yes, under every load',
      why: told
        .slice(0, TOLD)
        .map(({ who, value }) => `${who}: ${value}.`)
        .join(' '),
      claims: [
        ...told.map(({ of, who, value }): Claim => ({ of, figure: 'battery watts', who, says: 'is', value })),
        ...[...fills, ...holds, ...drains].map(({ device, source, name, battery }): Claim => ({
          of: device,
          figure: `battery in ${name}`,
          who: source,
          says: battery === 'drains' ? 'fails' : 'serves',
        })),
      ],
    },
  ];
}

/** What sources come to in a spot check, the best first: as it is said of several. */
const RANKS = [
  { id: 'fast', says: 'fast' },
  { id: 'charges', says: 'charges, how fast not seen' },
  { id: 'slow', says: 'slowly' },
  { id: 'asleep', says: 'only asleep' },
  { id: 'off', says: 'only switched off' },
] as const;
type RankId = (typeof RANKS)[number]['id'];

const charging: readonly StatusId[] = ['fast', 'charges', 'slow'];
const doesCharge = (row: Compatible, state: (typeof TRIAL_STATES)[number]) => {
  const { status } = row[state] ?? {};
  return status !== undefined && charging.includes(status) ? status : undefined;
};

/** How a source charges: as it does awake or, tried in other states alone, as it does there; `undefined` where it never does. */
export function rankOf(row: Compatible): RankId | undefined {
  const [first] = TRIAL_STATES.filter((state) => row[state]);
  const asFirst = first && doesCharge(row, first);
  if (asFirst) return asFirst as RankId;
  return (['asleep', 'off'] as const).find((state) => doesCharge(row, state));
}

/** Rows of a spot check, the best first; in the order in which they were tried where they are alike. */
export function ranked(rows: readonly Compatible[]): Compatible[] {
  const placeOf = (row: Compatible) => {
    const rank = rankOf(row);
    return rank === undefined ? RANKS.length : RANKS.findIndex(({ id }) => id === rank);
  };
  return [...rows].sort((one, other) => placeOf(one) - placeOf(other));
}

/** Sources named one by one; of more, how many. */
const NAMED = 3;
const NUMBERS = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];
const inWords = (count: number) => NUMBERS[count] ?? String(count);

/** What a source that does not charge does, of several: `connects and does not charge`. */
const INSTEAD: Readonly<Partial<Record<StatusId, readonly [one: string, several: string]>>> = {
  holds: ['holds the level', 'hold the level'],
  drains: ['drains while plugged in', 'drain while plugged in'],
  refuses: ['does nothing', 'do nothing'],
  'not charging': ['connects and does not charge', 'connect and do not charge'],
};

/** `fast: four; only asleep: Cobble 12; Sluice 40 connects and does not charge`. */
export function triedSays(rows: readonly Compatible[]): string {
  const names = (some: readonly Compatible[]) => (some.length > NAMED ? inWords(some.length) : listed(some.map(({ name }) => name)));
  const does = RANKS.flatMap(({ id, says }) => {
    const some = rows.filter((row) => rankOf(row) === id);
    return some.length > 0 ? [`${says}: ${names(some)}`] : [];
  });
  const idle = group(
    rows.filter((row) => rankOf(row) === undefined),
    (row) => TRIAL_STATES.flatMap((state) => row[state]?.status ?? [])[0],
  );
  const not = [...idle].map(([status, some]) => {
    const [one, several] = (status && INSTEAD[status]) ?? ['does not charge', 'do not charge'];
    return `${names(some)} ${some.length === 1 ? one : several}`;
  });
  return [...does, ...not].join('; ');
}

/** Whether sources charge a device at all, and how: a ranking in a sentence. */
export function charges(sittings: Question['sittings']): Finding[] {
  const devices = [...group(sittings, ({ header }) => header.device.name)]
    .map(([device, runs]) => ({ device, rows: runs.flatMap((run) => compatibility(run)) }))
    .filter(({ rows }) => rows.length > 0);
  if (devices.length === 0) return [];
  const all = devices.flatMap(({ rows }) => rows);
  const differ = devices.flatMap(({ device, rows }) =>
    rows.flatMap((row) =>
      TRIAL_STATES.flatMap((state) =>
        row[state]?.disagrees === undefined ? [] : [`${device} on ${row.name}, ${state}: ${row[state].disagrees}.`],
      ),
    ),
  );
  return [
    {
      need: 'charges',
      title: 'Does it charge',
      says: devices.map(({ device, rows }) => (devices.length > 1 ? `${device}: ${triedSays(rows)}` : triedSays(rows))).join('. '),
      why: [notSeenSays(all), ...differ.slice(0, NAMED)].filter(Boolean).join(' '),
      claims: devices.flatMap(({ device, rows }) =>
        rows.flatMap((row) =>
          TRIAL_STATES.flatMap((state): Claim[] => {
            const found = row[state];
            return found
              ? [
                  {
                    of: device,
                    figure: `charging ${state}`,
                    who: `${row.name} ${row.through}`,
                    says: 'is',
                    value: statusSays(found.status),
                  },
                ]
              : [];
          }),
        ),
      ),
    },
  ];
}
