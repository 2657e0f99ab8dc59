import { extent } from 'd3-array';
import type { ReadRun } from '../curve/figures';
import { milestoneTime } from '../curve/milestone';
import { sourceSays } from '../ink/entrySays';
import type { RunInk } from '../ink/fold';
import { TRIAL_STATES } from '../ink/trialStates';
import { compatibility, type Compatible } from './compatibility';

/** Sources of one rating, over all sittings and devices. */
export interface RatingGroup {
  /** Rated watts; `undefined` of sources that state none. */
  watts: number | undefined;
  rows: { device: string; run: string; row: Compatible }[];
  /** Least and most watts that were read of them. */
  range?: { low: number; high: number } | undefined;
}

/** The compatibility table of several spot checks, by the rating of the sources: strongest first, those without one last. */
export function gathered(sittings: readonly RunInk[]): RatingGroup[] {
  const groups = new Map<number | undefined, RatingGroup['rows']>();
  for (const run of sittings)
    for (const row of compatibility(run)) {
      const { watts } = row.source.charger;
      groups.set(watts, [...(groups.get(watts) ?? []), { device: run.header.device.name, run: run.header.id, row }]);
    }
  return [...groups]
    .map(([watts, rows]): RatingGroup => {
      const [low, high] = extent(rows.flatMap(({ row }) => TRIAL_STATES.flatMap((state) => row[state]?.watts ?? [])));
      return { watts, rows, ...(low !== undefined && { range: { low, high } }) };
    })
    .sort((one, other) => (other.watts ?? -1) - (one.watts ?? -1));
}

/** What came of one pad with one device. */
export interface PadResult {
  run: string;
  device: string;
  pad: string;
  /** What of its input it gave out, as a share; `isAssumed` where its output was. */
  efficiency?: { share: number; isAssumed: boolean } | undefined;
  /** Watts that it drew. */
  watts?: number | undefined;
  /** When it was full, in seconds. */
  full?: number | undefined;
  /** Where it stood still, in %, or stood at the end. */
  stalled?: { level: number; isStall: boolean } | undefined;
}

/** A run of a pad, and where it stalled: what is known of it beside its figures. */
export interface PadRun extends ReadRun {
  stalls: readonly { from: number; to: number }[];
}

const isPad = ({ header: { charger } }: RunInk) =>
  charger.kind === 'pad' || (charger.ports ?? []).some(({ connector }) => connector === 'pad');

/** Pads beside each other: by what spot checks told of their efficiency, and by whether runs on them came to full. */
export function padsOf(sittings: readonly RunInk[], runs: readonly PadRun[]): PadResult[] {
  const tried = sittings.flatMap((run) =>
    compatibility(run).flatMap((row) =>
      TRIAL_STATES.flatMap((state): PadResult[] => {
        const found = row[state];
        if (!found || (found.efficiency === undefined && row.source.charger.kind !== 'pad')) return [];
        return [{ run: run.header.id, device: run.header.device.name, pad: row.name, efficiency: found.efficiency, watts: found.watts }];
      }),
    ),
  );
  const charged = runs.flatMap(({ run, figures, stalls }): PadResult[] => {
    if (!isPad(run)) return [];
    const full = figures.milestones.find(({ level }) => level === 100);
    const at = full?.state === 'reached' ? milestoneTime(full) : undefined;
    return [
      {
        run: run.header.id,
        device: run.header.device.name,
        pad: sourceSays(run.header),
        watts: figures.peak?.watts,
        ...(at === undefined
          ? figures.topLevel !== undefined && { stalled: { level: figures.topLevel, isStall: stalls.length > 0 } }
          : { full: at }),
      },
    ];
  });
  return [...charged, ...tried];
}
