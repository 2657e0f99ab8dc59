import type { Header } from '../ink/entry';
import { SCHEMA } from '../ink/version';
import type { Cadence } from '../method/cadenceSchema';
import type { Condition } from '../method/conditionSchema';
import { cellsOf } from './matrix';
import { STATES, type Study } from './study';

/** Runs that would settle what a comparison leaves open: ids of their gear, and how many more are wanted. */
export interface Settling {
  device: string;
  charger: string;
  feed?: string | undefined;
  cable?: string | undefined;
  state?: string | undefined;
  runs: number;
  /** How they are to be taken, where that is not as the others were. */
  as?: TakenRun | undefined;
}

/** How runs are taken otherwise than those before them: what is said counts, and all else is as it was. */
export interface TakenRun {
  cadence?: Cadence;
  /** A school of the trade, by its id. */
  method?: string;
  /** The level at which they start, in %. */
  from?: number;
  conditions?: Condition[];
}

/** Why cells are left out that came into a matrix with a single one that was asked for. */
const NOT_ASKED = 'only one of its row or column was asked for';

/** Why a cell cannot be planned. */
export class NotPlannable extends Error {}

/**
 * A study with runs in it that settle something: the cell is taken up where it is left out, or added with its gear, and asks for so many runs more
 * than were made. Asked twice, it is planned once.
 *
 * @param made the cells of the runs that were made for it
 * @throws {NotPlannable} where its cell would ask for more runs than a study may
 */
export function withSettling(study: Study, wanted: readonly Settling[], made: readonly string[]): Study {
  return wanted.reduce((planned, one) => withOne(planned, one, made), study);
}

function withOne(study: Study, wanted: Settling, made: readonly string[]): Study {
  const known = cellOf(study, wanted);
  const grown = known ? study : withGear(study, wanted);
  const cell = known ?? cellOf(grown, wanted);
  if (!cell) return study;
  const of = made.filter((key) => key === cell.key).length + wanted.runs;
  const extra = of - grown.repeats;
  if (extra > 10) throw new NotPlannable('A cell of a study has ten runs beyond its repeats at most. Begin a study of its own for more.');
  const others = (grown.more ?? []).filter((each) => each.cell !== cell.key);
  const now = grown.more?.find((each) => each.cell === cell.key)?.runs ?? 0;
  const more = Math.max(extra, now) > 0 ? [...others, { cell: cell.key, runs: Math.max(extra, now) }] : others;
  return { ...grown, crossed: grown.crossed.filter((each) => each.cell !== cell.key), more: more.length > 0 ? more : undefined };
}

const stateOf = ({ state }: Pick<Settling, 'state'>) => STATES.find((each) => each === state);

/** The cell of a study that is what is wanted: its cable too where the study varies them, and its state where one is wanted. Rather one that is not left out. */
function cellOf(study: Study, wanted: Settling) {
  const { device, charger, feed, cable } = wanted;
  const state = stateOf(wanted);
  const fits = cellsOf(study).filter(
    (cell) =>
      cell.device === device &&
      cell.charger === charger &&
      (!feed || !cell.feed || cell.feed === feed) &&
      (!cable || !cell.cable || cell.cable === cable) &&
      (!state || cell.state === state),
  );
  return fits.find(({ reason }) => reason === undefined) ?? fits[0];
}

/** A study with what is wanted in it, of whose new cells only one is not left out. */
function withGear(study: Study, wanted: Settling): Study {
  const added = <Each extends string>(all: readonly Each[], one: Each | undefined) =>
    one === undefined || all.includes(one) ? [...all] : [...all, one];
  const { feed, charger } = wanted;
  const isFed = feed === undefined || (study.feeds ?? []).some((each) => each.charger === charger && each.by === feed);
  const grown: Study = {
    ...study,
    devices: added(study.devices, wanted.device),
    chargers: added(study.chargers, charger),
    cables: study.cables.length > 0 ? added(study.cables, wanted.cable) : study.cables,
    states: added(study.states, stateOf(wanted)),
    ...(!isFed && { feeds: [...(study.feeds ?? []), { charger, by: feed }] }),
  };
  const before = new Set(cellsOf(study).map(({ key }) => key));
  const mine = cellOf(grown, wanted)?.key;
  const others = cellsOf(grown).filter(({ key, reason }) => reason === undefined && !before.has(key) && key !== mine);
  return { ...grown, crossed: [...grown.crossed, ...others.map(({ key }) => ({ cell: key, reason: NOT_ASKED }))] };
}

/** A study of its own for runs that settle something, taken as an earlier run was, or as they are to be read. @param from level at which it starts, in % */
export function studyToSettle(id: string, name: string, header: Header, from: number, wanted: readonly Settling[]): Study {
  const first = wanted[0];
  const { as = {} } = first ?? {};
  const conditions = as.conditions ?? header.conditions ?? [];
  const study: Study = {
    schema: SCHEMA,
    id,
    name: name.slice(0, 80),
    question: 'Settle what a comparison left open',
    method: as.method ?? header.method ?? 'fixed-interval',
    cadence: as.cadence ?? header.cadence ?? { kind: 'fixed', every: 300 },
    startLevel: as.from ?? from,
    devices: first ? [first.device] : [],
    chargers: first ? [first.charger] : [],
    ...(first?.feed !== undefined && { feeds: [{ charger: first.charger, by: first.feed }] }),
    cables: first?.cable === undefined ? [] : [first.cable],
    meters: header.meter ? [header.meter.id] : [],
    states: [stateOf(first ?? {}) ?? stateOf({ state: conditions.find((each) => each.name === 'state')?.value }) ?? 'asleep'],
    crossed: [],
    repeats: 1,
    order: 'as listed',
    seed: 1,
    races: false,
    conditions: conditions.filter((each) => each.name !== 'state'),
  };
  return withSettling(study, wanted, []);
}
