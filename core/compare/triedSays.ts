import { QUANTITIES } from '../quantity/quantity';
import { fixed, trimmed } from '../quantity/figures';
import { writeEntryLine } from '../quantity/writeLine';
import type { Tried } from './compatibility';

/** What was read of a source, in words. */
export interface WrittenTried {
  /** As read: `5 → 9 V · 2.1 A · 18.9 W · front 31 °C`. */
  figures: string;
  /** As worked out or taken for granted: `4.3 Ω`, `14 W out (assumed), 74 %`. */
  pencil: string;
  /** The level, and the one at the second look: `47 %, then 49 %`. */
  level: string;
}

const OWN = new Set(['percent', 'volts', 'amps', 'watts']);

export function writeTried({ trial, second, watts, ohms, efficiency }: Tried): WrittenTried {
  const { percent, volts, amps, voltsBefore, wattsOut, wattsOutAssumed } = trial;
  const volted = volts === undefined ? undefined : `${trimmed(volts)} V`;
  const others = Object.fromEntries(QUANTITIES.filter((each) => !OWN.has(each)).map((each) => [each, trial[each]]));
  const out = wattsOut === undefined ? undefined : `${trimmed(wattsOut)} W out${wattsOutAssumed ? ' (assumed)' : ''}`;
  const share = efficiency && `${fixed(efficiency.share * 100)} %`;
  const isReadOut = wattsOut !== undefined && !wattsOutAssumed;
  const join = (parts: (string | false | undefined)[]) => parts.filter(Boolean).join(' · ');
  return {
    figures: join([
      voltsBefore === undefined ? volted : `${trimmed(voltsBefore)} → ${volted ?? '?'}`,
      amps !== undefined && `${trimmed(amps)} A`,
      watts !== undefined && trial.watts !== undefined && `${trimmed(watts)} W`,
      isReadOut && out,
      writeEntryLine(others),
    ]),
    pencil: join([
      watts !== undefined && trial.watts === undefined && `${fixed(watts, 1)} W`,
      ohms !== undefined && `${fixed(ohms, 1)} Ω`,
      !isReadOut && out,
      share,
    ]),
    level:
      percent === undefined ? '–' : `${trimmed(percent)} %${second?.percent === undefined ? '' : `, then ${trimmed(second.percent)} %`}`,
  };
}
