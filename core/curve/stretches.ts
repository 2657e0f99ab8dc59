import type { RunRecord } from '../ink/fold';
import { SCHOOLS } from '../method/schools';
import { USUAL_RULE } from '../method/rule';
import type { Rule } from '../method/ruleSchema';
import type { Span } from './energy';

/** What the method of a run asks of it. */
export function ruleOf({ header: { rule, method } }: Pick<RunRecord, 'header'>): Rule {
  return rule ?? SCHOOLS.find(({ id }) => id === method)?.rule ?? USUAL_RULE;
}

/**
 * The spans of a run over each of which its cadence counts anew, the last of them endless where it goes on. The whole run; of a method that goes by
 * workloads each of them, once there is one.
 */
export function stretchesOf(run: Pick<RunRecord, 'header' | 'events'>): Span[] {
  const begun = ruleOf(run).from === 'workload' ? run.events.filter(({ event }) => event === 'work started') : [];
  if (begun.length === 0) return [{ from: 0, to: Infinity }];
  return begun.map(({ seconds }, index) => {
    const ended = run.events.find((each) => each.event === 'work ended' && each.seconds >= seconds);
    return { from: seconds, to: Math.min(begun[index + 1]?.seconds ?? Infinity, ended?.seconds ?? Infinity) };
  });
}
