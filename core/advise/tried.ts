import { compatibility } from '../compare/compatibility';
import { loadsOf } from '../compare/loads';
import { statusSays } from '../ink/statuses';
import { TRIAL_STATES } from '../ink/trialStates';
import { listed } from '../quantity/listed';
import { fixed } from '../quantity/figures';
import type { Finding, Question } from './question';

const STATE = { awake: 'awake', asleep: 'asleep', off: 'off' } as const;

/** Whether a source slows the machine down: by the scores of each workload, and by what the battery did meanwhile. */
export function underLoad(worked: Question['worked']): Finding[] {
  const loads = loadsOf(worked).filter(({ scores }) => scores.length > 0 || worked.length > 1);
  const works = [...new Set(loads.map(({ device, name }) => JSON.stringify([device, name])))].map((key) =>
    loads.filter(({ device, name }) => JSON.stringify([device, name]) === key),
  );
  const rivals = works.filter((each) => each.length > 1);
  if (rivals.length === 0) return [];
  const slower = rivals.flatMap((each) =>
    each.flatMap(({ source, name, scores }) =>
      scores.filter(({ place }) => place > 1).map((score) => ({ source, name, score: score.name })),
    ),
  );
  const scored = rivals.filter((each) => each.every(({ scores }) => scores.length > 0));
  const drains = loads.filter(({ battery }) => battery === 'drains');
  const charges = loads.filter(({ battery }) => battery === 'charges');
  const holds = loads.filter(({ battery }) => battery === 'holds');
  const who = [...new Set(slower.map(({ source }) => source))];
  const sources = (some: readonly { source: string; name: string }[]) =>
    listed([...new Set(some.map(({ source, name }) => `${source} in ${name}`))]);
  const findings: Finding[] = [];
  if (scored.length > 0)
    findings.push({
      need: 'dock',
      title: 'Does it slow it down',
      says: who.length === 0 ? 'No: scores tie within margin' : `${listed(who)} ${who.length === 1 ? 'does' : 'do'}`,
      why:
        who.length === 0
          ? `Over ${listed(scored.map((each) => each[0]?.name ?? ''))}: scores within 3 % tie.`
          : slower.map(({ source, name, score }) => `${source} scores surely worse in ${name} (${score}).`).join(' '),
    });
  if (charges.length + holds.length + drains.length > 0)
    findings.push({
      need: 'fills',
      title: 'Does the battery still fill',
      says:
        drains.length > 0
          ? `Not under every load: it drains on ${sources(drains)}`
          : holds.length > 0
            ? 'It does not drain, and does not always fill'
            : 'Yes, under every load',
      why: [
        ...[...charges, ...holds, ...drains].flatMap(({ source, name, batteryWatts, inputWatts }) =>
          batteryWatts === undefined
            ? []
            : [
                `${source}, ${name}: ${fixed(batteryWatts, 1)} W ${batteryWatts < 0 ? 'out of' : 'into'} the battery${inputWatts === undefined ? '' : ` of ${fixed(inputWatts, 1)} W in`}.`,
              ],
        ),
        holds.length > 0 && `It holds on ${sources(holds)}.`,
      ]
        .filter(Boolean)
        .slice(0, 6)
        .join(' '),
    });
  return findings;
}

/** Whether sources charge a device at all: awake, asleep, off. */
export function charges(sittings: Question['sittings']): Finding[] {
  const rows = sittings.flatMap((run) => compatibility(run).map((row) => ({ device: run.header.device.name, row })));
  const tried = rows.flatMap(({ device, row }) =>
    TRIAL_STATES.flatMap((state) => {
      const found = row[state];
      return found ? [{ device, name: row.name, state, found }] : [];
    }),
  );
  if (tried.length === 0) return [];
  const isCharging = (status: string) => status === 'fast' || status === 'slow';
  const not = tried.filter(({ found }) => !isCharging(found.status));
  const unsure = tried.filter(({ found }) => !found.isSure);
  const says = ({ device, name, state, found }: (typeof tried)[number]) =>
    `${device} on ${name}, ${STATE[state]}: ${statusSays(found.status)}`;
  return [
    {
      need: 'charges',
      title: 'Does it charge at all',
      says: not.length === 0 ? `Yes, all ${tried.length} that were tried` : `${tried.length - not.length} of ${tried.length} do`,
      why: [
        ...not.slice(0, 6).map((each) => `${says(each)}.`),
        not.length > 6 && `${not.length - 6} more do not.`,
        unsure.length > 0 && `Of ${unsure.length} a minute cannot tell holding from draining: a second look at the level would.`,
      ]
        .filter(Boolean)
        .join(' '),
    },
  ];
}
