import { describe, expect, it } from 'vitest';
import { milestone, notices, peak } from '@core/curve';
import { foldRun, headerSchema, inkOf, type RunRecord } from '@core/ink';
import { seeded } from '@core/simulate';
import { courseOf, readings } from './charged';
import { finishedRuns } from './finished';
import { LIVE_FOR, LIVE_TAKE, saltmarshLive } from './saltmarsh';

const records = (): RunRecord[] => finishedRuns().map(({ header, entries, samples }) => foldRun(header, entries, samples));
const kinds = (run: RunRecord) => notices(run).map(({ kind }) => kind);

describe('the Saltmarsh logbook', () => {
  it('is the same at every making, and fits the schema', () => {
    expect(finishedRuns()).toEqual(finishedRuns());
    for (const { header } of finishedRuns()) headerSchema.validateSync(header, { strict: true });
  });

  it('has the faults that real studies have', () => {
    const runs = records();
    const [, late, slipped, missed, pad, hot] = runs;
    if (!late || !slipped || !missed || !pad || !hot) throw new Error('six runs');
    expect(kinds(late)).toContain('late');
    expect(slipped.struck).toHaveLength(1);
    expect(kinds(missed)).toContain('missed');
    expect(kinds(pad)).toContain('stall');
    expect(milestone(pad.tracks.percent, 100).state).toBe('not reached');
    expect(kinds(hot)).toContain('hot');
    expect(runs.flatMap(({ falls }) => falls)).toEqual([]);
  });

  it('never draws more than the charger is rated for', () => {
    for (const run of records()) {
      const top = peak(run.tracks.watts, run.sampled.has('watts'));
      expect(top?.watts ?? 0).toBeLessThanOrEqual((run.header.charger.watts ?? 0) * 1.02);
    }
  });

  it('has a live run whose readings are those of its charge', () => {
    const { header, entries } = saltmarshLive(0);
    const take = { ...LIVE_TAKE, id: 'saltmarsh-41', plugInAt: header.plugInAt };
    expect(entries).toEqual(inkOf(header, readings(take, courseOf(take, LIVE_FOR), seeded(41), LIVE_FOR)));
  });

  it('has a run live now, with a reading soon due', () => {
    const now = Date.UTC(2026, 10, 23, 12);
    const run = saltmarshLive(now);
    const record = foldRun(run.header, run.entries);
    expect(record.stop).toBeUndefined();
    expect((now - run.header.plugInAt) / 1000).toBe(2300);
    expect(record.readings.at(-1)?.seconds).toBeGreaterThan(2050);
    expect(record.end).toBeLessThan(2300);
  });
});
