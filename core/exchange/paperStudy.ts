import { cellsOf, type MatrixCell } from '../plan/matrix';
import type { Study } from '../plan/study';
import type { PaperSetup } from './paperSetup';

type Setup = Pick<PaperSetup, 'device' | 'charger' | 'cable' | 'feed'> & { state: Study['states'][number] };

const once = <Each>(all: readonly Each[]): Each[] => [...new Set(all)];

/** The cell of a study that a column of a paper is a run of. */
export function cellFor(
  study: Pick<Study, 'devices' | 'chargers' | 'feeds' | 'cables' | 'states' | 'crossed'>,
  setup: Setup,
): MatrixCell | undefined {
  const { device, charger, cable, feed, state } = setup;
  const isFedSo = (by: string | undefined) =>
    by === undefined ? feed === undefined || feed.charger.id === charger?.fedBy : feed?.charger.id === by;
  return cellsOf(study).find(
    (cell) =>
      cell.device === device?.id &&
      cell.charger === charger?.id &&
      cell.state === state &&
      (cell.cable === undefined || cell.cable === cable?.id) &&
      isFedSo(cell.feed),
  );
}

/** The setups of a study that is made of the columns of a paper: what is not on the paper is left out of it, a setup that stands there twice is repeated. */
export function studyOfPaper(
  setups: readonly Setup[],
): Pick<Study, 'devices' | 'chargers' | 'feeds' | 'cables' | 'states' | 'crossed' | 'repeats' | 'more'> {
  const cables = setups.map(({ cable }) => cable?.id);
  const feeds = setups.flatMap(({ charger, feed }) => (charger && feed ? [{ charger: charger.id, by: feed.charger.id }] : []));
  const matrix = {
    devices: once(setups.flatMap(({ device }) => device?.id ?? [])),
    chargers: once(setups.flatMap(({ charger }) => charger?.id ?? [])),
    ...(feeds.length > 0 && { feeds: [...new Map(feeds.map((each) => [`${each.charger} ${each.by}`, each])).values()] }),
    // Where the cable of one is not known, cables are no part of the question.
    cables: cables.includes(undefined) ? [] : once(cables.flatMap((id) => id ?? [])),
    states: once(setups.map(({ state }) => state)),
    crossed: [],
  };
  const counts = new Map<string, number>();
  for (const setup of setups) {
    const key = cellFor(matrix, setup)?.key;
    if (key !== undefined) counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const more = [...counts].flatMap(([cell, count]) => (count > 1 ? [{ cell, runs: count - 1 }] : []));
  return {
    ...matrix,
    crossed: cellsOf(matrix).flatMap(({ key }) => (counts.has(key) ? [] : [{ cell: key, reason: 'not on the paper' }])),
    repeats: 1,
    ...(more.length > 0 && { more }),
  };
}
