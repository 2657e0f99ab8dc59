import { CHARGERS, DEVICES } from '../demo/saltmarsh';
import type { Charger, Device } from '../core/bench';
import { NOTHING_ELSE, type Rest, type StoredRun } from '../core/exchange';
import { SCHEMA, type Entry, type Header } from '../core/ink';
import { negotiate } from '../core/power';
import { displayed, parametersOf, seeded, simulate, vary } from '../core/simulate';

/** Made-up reviewers with a logbook each: for asking what one machine cannot answer alone. */

/** Seconds from one sample to the next, and samples of each of two quantities: 10,000 values a run. */
const STEP = 2;
const ROWS = 5000;
const DAY = 86_400_000;
const FROM = Date.UTC(2016, 0, 4, 9);
/** Capacity that a battery loses with each run of these years, as a share. */
const WEAR = 0.0015;

/** A reviewer’s gear under ids of their own: batteries and specimens differ. */
function gearOf(reviewer: number): { devices: Device[]; chargers: Charger[] } {
  const own = <Gear extends { id: string }>(gear: Gear): Gear => ({ ...gear, id: `${gear.id}-${reviewer}` });
  return {
    devices: DEVICES.filter(({ kind }) => kind !== 'camera')
      .slice(0, 3)
      .map(own)
      // What else came in the box is none of this reviewer’s gear.
      .map((device) => ({ ...device, boxCharger: undefined, boxCable: undefined })),
    chargers: CHARGERS.filter(({ kind }) => kind === 'adapter')
      .slice(0, 4)
      .map(own)
      .map((charger) => ({ ...charger, fedBy: undefined, fedThrough: undefined })),
  };
}

/** The runs of a reviewer, a few days apart over some years, each streamed by a meter until it was full or given up. */
export function* runsOfReviewer(reviewer: number, count: number): Generator<StoredRun> {
  const { devices, chargers } = gearOf(reviewer);
  const noise = seeded(reviewer * 104_729 + 1);
  for (let run = 0; run < count; run += 1) {
    const [device, charger] = [devices[run % devices.length], chargers[Math.floor(run / devices.length) % chargers.length]];
    if (!device || !charger) return;
    const health = (device.health ?? 100) * (1 - WEAR * run);
    const parameters = parametersOf(negotiate({ device: { ...device, health }, charger }), { ambient: 18 + 8 * noise() });
    if (!parameters) continue;
    const course = simulate(vary(parameters, reviewer * 7919 + run), 0.02, STEP * (ROWS - 1), STEP, 600);
    const seconds = Float64Array.from({ length: ROWS }, (_, row) => row * STEP);
    const at = (row: number) => Math.min(course.rows - 1, row);
    const column = (of: (row: number) => number) => ({ seconds, values: seconds.map((_, row) => of(at(row))) });
    const plugInAt = FROM + Math.round((run * 3.7 + noise()) * DAY);
    const id = `r${reviewer}-${run}`;
    const header: Header = {
      ...{ schema: SCHEMA, id, device, charger, plugInAt, pen: run % 12, source: 'meter.csv' },
      cadence: { kind: 'sampled', every: STEP },
    };
    const end = plugInAt + STEP * (ROWS - 1) * 1000;
    const entries: Entry[] = [{ kind: 'stop', seq: 1, id: `${id}-stop`, at: end, written: end, because: 'window over' }];
    const hottest = Math.max(...course.celsius);
    entries.push({
      kind: 'reading',
      seq: 2,
      id: `${id}-hot`,
      at: plugInAt + 1_800_000,
      written: end,
      celsius: Math.round(hottest * 10) / 10,
    });
    yield {
      header,
      entries,
      samples: {
        percent: column((row) => displayed(course.share[row] ?? 0)),
        watts: column((row) => Math.round((course.watts[row] ?? 0) * 100) / 100),
      },
    };
  }
}

/** What a reviewer has beside their runs. */
export const restOfReviewer = (reviewer: number): Rest => ({ ...NOTHING_ELSE, ...gearOf(reviewer) });

/** What a reviewer is called. */
export const reviewerName = (reviewer: number): string => `reviewer-${String(reviewer + 1).padStart(3, '0')}`;
