import Papa from 'papaparse';
import type { Compatible, Tried } from '../compare/compatibility';
import { escapeFormula } from './escapeFormula';

const HEADINGS = [
  'charger',
  'device',
  'what it does',
  'sure',
  'volts',
  'amps',
  'watts',
  'level (%)',
  'chime',
  'icon',
  'meter',
  'disagree',
  'remark',
];

/** A compatibility table as CSV (RFC 4180): a row for each charger and state that was tried. */
export function writeCompatibility(rows: readonly Compatible[]): string {
  const cells = rows.flatMap(({ charger, awake, asleep }) => [awake, asleep].flatMap((tried) => (tried ? [rowOf(charger, tried)] : [])));
  return Papa.unparse([HEADINGS, ...cells], { newline: '\r\n' });
}

const yes = (value: boolean | undefined) => (value === undefined ? '' : value ? 'yes' : 'no');

function rowOf(charger: string, { trial, says, isSure, watts, disagrees = '' }: Tried): (string | number)[] {
  const { state, volts = '', amps = '', percent = '', chime, icon, meter, remark = '' } = trial;
  return [
    escapeFormula(charger),
    state,
    says,
    yes(isSure),
    volts,
    amps,
    watts ?? '',
    percent,
    yes(chime),
    yes(icon),
    yes(meter),
    disagrees,
    escapeFormula(remark),
  ];
}
