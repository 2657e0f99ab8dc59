import { seeded } from '../simulate/seeded';
import type { Study } from './study';

/** One combination of a study’s matrix: ids of its gear, and its state. */
export interface MatrixCell {
  /** Names the cell for ever: what a run notes of its place in the study. */
  key: string;
  device: string;
  charger: string;
  /** What feeds the charger, where the study varies that. */
  feed?: string | undefined;
  cable: string | undefined;
  state: string;
  /** Why it is left out, if it is. */
  reason?: string | undefined;
}

/** A run that is to be made: a cell, and the how-manieth of its repeats, from 1. */
export interface PlannedRun {
  cell: MatrixCell;
  repeat: number;
}

type Matrix = Pick<Study, 'devices' | 'chargers' | 'feeds' | 'cables' | 'states' | 'crossed'>;
type Repeated = Matrix & Pick<Study, 'repeats' | 'more'>;

/** How often a cell that is not left out is run. */
export const timesOf = ({ repeats, more = [] }: Pick<Study, 'repeats' | 'more'>, { key }: Pick<MatrixCell, 'key'>): number =>
  repeats + (more.find(({ cell }) => cell === key)?.runs ?? 0);

/** Every combination of devices × chargers and what feeds them × cables × states, those left out among them. */
export function cellsOf({ devices, chargers, feeds = [], cables, states, crossed }: Matrix): MatrixCell[] {
  const reasons = new Map(crossed.map(({ cell, reason }) => [cell, reason]));
  const paths = cables.length > 0 ? cables : [undefined];
  const sources = chargers.flatMap((charger): Pick<MatrixCell, 'charger' | 'feed'>[] => {
    const fed = feeds.filter((each) => each.charger === charger);
    return fed.length > 0 ? fed.map(({ by }) => ({ charger, feed: by })) : [{ charger }];
  });
  return devices.flatMap((device) =>
    sources.flatMap((source) =>
      paths.flatMap((cable) =>
        states.map((state) => {
          const fed = source.feed === undefined ? source.charger : `${source.charger}@${source.feed}`;
          const key = [device, fed, cable ?? '', state].join('/');
          return { key, device, ...source, cable, state, reason: reasons.get(key) };
        }),
      ),
    ),
  );
}

/**
 * The runs of a study in the order in which they are made: repeat by repeat, so that what drifts over the days falls on all alike.
 *
 * Shuffled: every repeat in an order of its own, the same for the same seed. Counterbalanced: every other repeat backwards, so
 * that what drifts evenly cancels out.
 */
export function runsOf(study: Repeated & Pick<Study, 'order' | 'seed'>): PlannedRun[] {
  const cells = cellsOf(study).filter(({ reason }) => reason === undefined);
  const noise = seeded(study.seed);
  const most = Math.max(study.repeats, ...cells.map((cell) => timesOf(study, cell)));
  return Array.from({ length: most }, (_, index) => {
    const again = cells.filter((cell) => timesOf(study, cell) > index);
    if (study.order === 'shuffled') return shuffled(again, noise);
    return study.order === 'counterbalanced' && index % 2 === 1 ? [...again].reverse() : again;
  }).flatMap((order, index) => order.map((cell) => ({ cell, repeat: index + 1 })));
}

/** Fisher–Yates. */
function shuffled<Each>(all: readonly Each[], noise: () => number): Each[] {
  const mixed = [...all];
  for (let last = mixed.length - 1; last > 0; last -= 1) {
    const pick = Math.floor(noise() * (last + 1));
    [mixed[last], mixed[pick]] = [mixed[pick] as Each, mixed[last] as Each];
  }
  return mixed;
}

/** How far a cell has come: how many of its repeats were run. */
export interface MatrixProgress {
  cell: MatrixCell;
  done: number;
  of: number;
  state: 'crossed' | 'untested' | 'part' | 'tested';
}

/** What was run of every cell of a study. @param made the cells of the runs that were made for it */
export function progressOf(study: Repeated, made: readonly string[]): MatrixProgress[] {
  return cellsOf(study).map((cell) => {
    const done = made.filter((key) => key === cell.key).length;
    const of = cell.reason === undefined ? timesOf(study, cell) : 0;
    const state = of === 0 ? 'crossed' : done === 0 ? 'untested' : done < of ? 'part' : 'tested';
    return { cell, done, of, state };
  });
}

/** The runs that are still to be made, in order: those of cells that have fewer runs than their repeats so far ask for. */
export function runsLeft(study: Repeated & Pick<Study, 'order' | 'seed'>, made: readonly string[]): PlannedRun[] {
  const done = new Map<string, number>();
  for (const key of made) done.set(key, (done.get(key) ?? 0) + 1);
  return runsOf(study).filter(({ cell: { key } }) => {
    const count = done.get(key) ?? 0;
    done.set(key, count - 1);
    return count <= 0;
  });
}

/** Names a planned run for ever. */
export const runKey = ({ cell, repeat }: PlannedRun) => `${cell.key}#${repeat}`;
