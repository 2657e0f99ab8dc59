import type { Device } from '../bench/device';
import type { Draft, Source, Trial } from '../ink/entry';
import type { RunRecord } from '../ink/fold';
import type { StatusId } from '../ink/statuses';
import { fixed } from '../quantity/figures';
import type { LineValues } from '../quantity/entryLine';
import type { Moment } from '../quantity/times';
import { likelyStatus } from './likelyStatus';
import { isJump, outsideOf, powerQuestion, type AssessedLine } from './assessLine';

type TrialDraft = Extract<Draft, { kind: 'trial' }>;

/** What is said of a source beside its figures. */
export type Sights = Pick<Trial, 'chime' | 'chimes' | 'icon' | 'meter' | 'voltsBefore' | 'wattsOut' | 'wattsOutAssumed'>;

/** The source in hand, and what is known of its trial before a line is typed. */
export interface InHand {
  source: Source;
  state: Trial['state'];
  /** What was chosen; without it, what the figures make likely. */
  status?: StatusId | undefined;
  sights?: Sights | undefined;
  /** The trial that is written again: it keeps its moment. */
  instead?: Trial | undefined;
}

/** What to say where nothing tells what a source does. */
export const SAY_STATUS = 'Say what it does: F, S, H, D, R or C in the empty field of its card; or its watts, and a status is suggested.';

/** The status of a trial: as chosen, else as likely. */
export const statusOf = ({ state, status }: Pick<InHand, 'state' | 'status'>, values: LineValues, device: Device): StatusId | undefined =>
  status ?? likelyStatus(device, { state, ...values });

/**
 * Weighs a line as the trial of the source in hand, before it becomes ink: as `assessLine` does for readings. All that is typed is kept.
 *
 * @param values what the line says; nothing where only a status was chosen
 * @param now    epoch milliseconds
 */
export function assessTrial(values: LineValues, inHand: InHand, run: RunRecord, now: Moment, marked?: Moment): AssessedLine {
  const { seen, note, dead, light, turning, direction, ...figures } = values;
  const { source, state, sights = {}, instead } = inHand;
  const status = statusOf(inHand, values, run.header.device);
  if (dead || turning || light) return { verdict: 'refuse', error: 'A trial has a level and figures; what else was seen goes behind a #.' };
  if (!status) return { verdict: 'refuse', error: SAY_STATUS };
  const at = seen === undefined ? (instead?.at ?? marked ?? now) : Math.round(run.header.plugInAt + seen * 1000);
  const beyond = outsideOf(run, at, now);
  if (beyond) return { verdict: 'refuse', error: beyond };
  const remark = [direction === 'out' ? 'current flows out' : '', note ?? ''].filter(Boolean).join(', ');
  const known = Object.fromEntries(Object.entries<unknown>(sights).filter(([, value]) => value !== undefined)) as Sights;
  const draft: TrialDraft = { kind: 'trial', at, source, state, status, ...figures, ...known, ...(remark && { remark }) };
  const question = questionOf(draft, run);
  return question ? { verdict: 'ask', draft: { ...draft, sure: true }, question } : { verdict: 'log', draft };
}

function questionOf(draft: TrialDraft, { trials }: RunRecord): string | undefined {
  const before = trials.findLast(({ percent, at }) => percent !== undefined && at < draft.at);
  const { percent, watts, wattsOut, source } = draft;
  if (percent !== undefined && before?.percent !== undefined && isJump(percent - before.percent, (draft.at - before.at) / 60_000))
    return `From ${fixed(before.percent)} to ${fixed(percent)} % since the trial before? Enter again keeps it; or correct the line.`;
  if (wattsOut !== undefined && watts !== undefined && wattsOut > watts)
    return `${wattsOut} W out of ${watts} W in? Enter again keeps it; or correct the line.`;
  // A pad is asked for what feeds it, not for what it gives.
  return powerQuestion(draft, source.feed ?? source);
}
