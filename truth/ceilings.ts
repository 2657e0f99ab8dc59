import { judge, USUAL_WISHES } from '../core/advise';
import { setupsOf } from '../core/compare';
import { readRun } from '../core/curve';
import { foldRun, inkOf } from '../core/ink';
import { exampleHeader } from '../core/ink/example';
import { seeded } from '../core/simulate/seeded';
import { MODELS, normal, shownAt, timesOf } from './models';

/** From which wattage on nothing changes, said of devices whose truth is known: chargers beyond what a device takes are one, those below are slower. */
export interface Ceilings {
  studies: number;
  said: number;
  /** Those above it that tie differ in truth by more than was said could hide. */
  wrong: string[];
}

const RATINGS = [5, 10, 12, 15, 18, 20, 25, 30, 35, 45, 65, 100];
const LEVEL = 80;

/** Plays so many studies of five or six chargers on one device. */
export function playCeilings(studies: number, seed: number): Ceilings {
  const noise = seeded(seed);
  const found: Ceilings = { studies, said: 0, wrong: [] };
  for (let study = 0; study < studies; study += 1) {
    const model = MODELS[Math.floor(noise() * MODELS.length)] ?? MODELS[0];
    const rate = model?.device(noise) ?? (() => 1);
    // What it takes at most, at its fastest.
    const limit = 12 + 40 * noise();
    const fastest = Math.max(rate(5, 0), rate(20, 5), rate(40, 15));
    const start = 2 + 8 * noise();
    const chargers = RATINGS.filter(() => noise() < 0.5);
    const timesBy = new Map(
      chargers.map((watts) => [watts, timesOf((level, at) => Math.min(rate(level, at), (fastest * watts) / limit), start)]),
    );
    const [cadence, sigma, repeats] = [
      [1, 2, 5, 10][Math.floor(4 * noise())] ?? 5,
      [0.01, 0.02, 0.03][Math.floor(3 * noise())] ?? 0.02,
      noise() < 0.5 ? 1 : 2,
    ];
    const runs = [...timesBy].flatMap(([watts, times]) =>
      Array.from({ length: repeats }, (_, repeat) => {
        const factor = Math.max(0.5, 1 + sigma * normal(noise));
        const mine = times.map((time) => time * factor);
        const header = exampleHeader({
          id: `${watts}-${repeat}`,
          charger: { id: `${watts}`, name: `W${watts}`, kind: 'adapter', watts },
          cadence: { kind: 'fixed', every: cadence * 60 },
        });
        const rows = [{ seconds: 0, percent: Math.floor(start) }];
        for (let due = cadence; (rows.at(-1)?.percent ?? 0) < 100 && rows.length < 3000; due += cadence) {
          const seconds = 60 * due + 5 * noise();
          rows.push({
            seconds,
            percent: shownAt(mine, seconds / 60),
          });
        }
        return readRun(foldRun(header, inkOf(header, rows)));
      }),
    );
    const finding = judge({
      setups: setupsOf(runs),
      tracks: new Map(),
      baseline: undefined,
      unit: '%',
      wishes: USUAL_WISHES,
      shelf: { devices: [], chargers: [], cables: [] },
      worked: [],
      sittings: [],
    }).find(({ need }) => need === 'ceiling');
    const from = Number(/above (\d+) W/.exec(finding?.says ?? '')?.[1]);
    const hides = /(?:up to|within) (?:(\d+) h ?)?(?:(\d+)(?: min)?)?/.exec(finding?.why ?? '');
    if (!finding || Number.isNaN(from) || !hides) continue;
    found.said += 1;
    const except = /Not so ([^.]*)\./.exec(finding.why)?.[1] ?? '';
    const alike = [...timesBy].filter(([watts]) => watts >= from && !except.split(/, | and /).includes(`W${watts}`));
    const goals = alike.map(([, times]) => times[LEVEL] ?? 0);
    if (Math.max(...goals) - Math.min(...goals) > 60 * Number(hides[1] ?? 0) + Number(hides[2] ?? 0))
      found.wrong.push(`${finding.says}: ${finding.why}`);
  }
  return found;
}
