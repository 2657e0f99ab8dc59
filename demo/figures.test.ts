import { describe, expect, it } from 'vitest';
import { headlineOf, judge, questionOf } from '@core/advise';
import { compareRuns, compatibility, namesOf, setupsOf as setupsBeside, unlikeIn } from '@core/compare';
import { figuresOf, LEVELS, milestone, notices, readRun, stalls, summarise, workloads, writeFigures } from '@core/curve';
import { foldRun } from '@core/ink';
import { costOf, studySetupsOf, tellings } from '@core/plan';
import { expectations, explain, lessons } from '@core/power';
import { forecasts } from '@core/run';
import { finishedRuns, STUDIES } from './finished';
import { CABLES, CHARGERS, DEVICES, saltmarshLive, METERS } from './saltmarsh';

/**
 * Every figure of the demo, to the digit: a change that is not meant to change figures shows here what it changed. Where figures are meant to change, the
 * fixtures are written anew (`npm run unit -- demo -u`) and the change is read line by line.
 */
const NOW = Date.UTC(2026, 10, 23, 12);
const records = [...finishedRuns(), saltmarshLive(NOW)].map(({ header, entries, samples }) => foldRun(header, entries, samples));
const shelf = { devices: DEVICES, chargers: CHARGERS, cables: CABLES, meters: METERS };
/** One line for each value, so that a difference is read at a glance. */
const lines = (all: readonly unknown[]) => `${all.map((each) => JSON.stringify(each)).join('\n')}\n`;

describe('the figures of the demo', () => {
  it('are those of the fixture, of each run', async () => {
    const all = records.flatMap((run) => {
      return [
        { ...summarise(run), outline: undefined, ink: undefined },
        ...writeFigures(figuresOf(run)),
        ...Array.from({ length: 20 }, (__, index) => milestone(run.tracks.percent, 5 * (index + 1))),
        ...notices(run),
        ...stalls(run.tracks.percent),
        ...forecasts(
          run,
          records.filter((other) => other !== run && other.header.device.id === run.header.device.id).map((other) => other.tracks.percent),
          LEVELS,
        ),
        ...compatibility(run),
      ];
    });
    await expect(lines(all)).toMatchFileSnapshot('fixtures/runs.jsonl');
  });

  it('are those of the fixture, of each study', async () => {
    const all = STUDIES.flatMap((study) => {
      const runs = records.filter(({ header }) => header.study?.id === study.id);
      const setups = studySetupsOf(study, shelf);
      const read = runs.map((run) => readRun(run));
      const compared = LEVELS.flatMap((level) => {
        const rows = compareRuns(read, runs[0]?.header.id ?? '', level);
        return [
          ...rows.map(({ run, runs: each, ...row }) => ({ run: run.header.id, runs: each.map(({ header }) => header.id), ...row })),
          ...unlikeIn(setupsBeside(read), namesOf(rows)).map(({ says, explains }) => `${says} ${explains}`),
        ];
      });
      const judged = runs.map((run) => ({ ...readRun(run), workloads: workloads(run), percent: run.tracks.percent }));
      const question = questionOf(judged, shelf);
      const { says = [], sure } = headlineOf(question) ?? {};
      const findings = judge(question).map(({ title, says: each, why, settle }) =>
        [title, each, why, settle?.says].filter(Boolean).join(' | '),
      );
      return [study.name, ...says, sure ?? '', ...findings, ...compared, ...tellings(study, setups, LEVELS), costOf(study, setups)];
    });
    await expect(lines(all)).toMatchFileSnapshot('fixtures/studies.jsonl');
  });

  it('are those of the fixture, of each device on each charger', async () => {
    const all = expectations(DEVICES, CHARGERS).flatMap((row) => [
      ...row.map(({ negotiated }) => `${negotiated.device.name} on ${negotiated.charger.name}: ${explain(negotiated)}`),
      ...lessons(row),
    ]);
    await expect(lines(all)).toMatchFileSnapshot('fixtures/expectations.jsonl');
  });
});
