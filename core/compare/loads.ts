import { mean } from 'd3-array';
import { IDLE, type Workload } from '../curve/workloads';
import type { RunInk } from '../ink/fold';

/** Scores within this share of each other tie, unless repeats say otherwise (docs/numbers.md). */
const TIE = 0.03;

/** A run and the work that was done on it. */
export interface Worked {
  run: RunInk;
  workloads: readonly Workload[];
}

/** A score of a workload on one source. */
export interface Scored {
  name: string;
  unit?: string | undefined;
  value: number;
  runs: number;
  /** 1 + the number of sources that are surely better; shared where it ties. */
  place: number;
  isShared: boolean;
}

/** One workload on one source: means over its runs. Watts are means over the stretch. */
export interface Load {
  key: string;
  device: string;
  name: string;
  source: string;
  runs: string[];
  inputWatts?: number | undefined;
  batteryWatts?: number | undefined;
  usedWatts?: number | undefined;
  /** What came in while it was done, in Wh, and how long it took, in seconds. Of work that was finished. */
  wattHours?: number | undefined;
  seconds?: number | undefined;
  /** What the battery did meanwhile. */
  battery: 'charges' | 'holds' | 'drains' | 'unknown';
  scores: Scored[];
}

const meanOf = (values: readonly (number | undefined)[]) => mean(values.filter((each) => each !== undefined));

function batteryDoes(watts: number | undefined, gain: number | undefined): Load['battery'] {
  if (watts !== undefined) return watts > IDLE ? 'charges' : watts < -IDLE ? 'drains' : 'holds';
  return gain === undefined ? 'unknown' : gain > 0 ? 'charges' : gain < 0 ? 'drains' : 'holds';
}

/** Workloads by device, name and source: how power was split, what was consumed, and who scored how. */
export function loadsOf(all: readonly Worked[]): Load[] {
  const groups = new Map<string, { run: RunInk; each: Workload }[]>();
  for (const { run, workloads } of all)
    for (const each of workloads) {
      const key = JSON.stringify([run.header.device.id, each.name, each.source]);
      groups.set(key, [...(groups.get(key) ?? []), { run, each }]);
    }
  const loads = [...groups].map(
    ([key, group]): Load & { raw: Map<string, { better: string; unit?: string | undefined; values: number[] }> } => {
      const [first] = group;
      const raw = new Map<string, { better: string; unit?: string | undefined; values: number[] }>();
      for (const { each } of group)
        for (const { name, value, unit, better } of each.scores) {
          const kept = raw.get(name) ?? { better, unit, values: [] };
          kept.values.push(value);
          raw.set(name, kept);
        }
      const done = group.filter(({ each }) => each.isOver);
      const batteryWatts = meanOf(group.map(({ each }) => each.batteryWatts));
      return {
        key,
        device: first?.run.header.device.name ?? '',
        name: first?.each.name ?? '',
        source: first?.each.source ?? '',
        runs: [...new Set(group.map(({ run }) => run.header.id))],
        inputWatts: meanOf(group.map(({ each }) => each.inputWatts)),
        batteryWatts,
        usedWatts: meanOf(group.map(({ each }) => each.usedWatts)),
        wattHours: meanOf(done.map(({ each }) => each.inputWattHours)),
        seconds: meanOf(done.map(({ each }) => each.to - each.from)),
        battery: batteryDoes(batteryWatts, meanOf(group.map(({ each }) => each.gain))),
        scores: [],
        raw,
      };
    },
  );
  return loads.map(({ raw, ...load }) => ({
    ...load,
    scores: [...raw].map(([name, { better, unit, values }]): Scored => {
      // What is scored against each other: the same work on the same device.
      const rivals = loads.flatMap((other) => {
        const theirs = other.device === load.device && other.name === load.name ? other.raw.get(name) : undefined;
        return theirs ? [theirs.values] : [];
      });
      const place = 1 + rivals.filter((theirs) => isBetter(theirs, values, better)).length;
      const places = rivals.map((mine) => 1 + rivals.filter((theirs) => isBetter(theirs, mine, better)).length);
      return {
        name,
        unit,
        value: mean(values) ?? 0,
        runs: values.length,
        place,
        isShared: places.filter((each) => each === place).length > 1,
      };
    }),
  }));
}

/** Whether one set of scores surely beats another: beyond 3 %, and beyond how far repeats of either lie apart. */
function isBetter(theirs: readonly number[], mine: readonly number[], better: string): boolean {
  const [one, other] = [mean(theirs) ?? 0, mean(mine) ?? 0];
  const reach = (values: readonly number[]) => (values.length > 1 ? (Math.max(...values) - Math.min(...values)) / 2 : 0);
  const tie = Math.max(TIE * Math.max(Math.abs(one), Math.abs(other)), reach(theirs) + reach(mine));
  return better === 'less' ? other - one > tie : one - other > tie;
}
