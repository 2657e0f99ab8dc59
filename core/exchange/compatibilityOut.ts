import Papa from 'papaparse';
import type { Compatible, Tried } from '../compare/compatibility';
import { TRIAL_STATES } from '../ink/trialStates';
import { QUANTITIES, quantityOf } from '../quantity/quantity';
import { escapeFormula } from '../quantity/plainTable';

/** A spot check whose table is written: the device that was tried, and its rows. */
export interface CompatibilityOf {
  device: string;
  rows: readonly Compatible[];
}

const HEADINGS = [
  'device',
  'source',
  'port and cable',
  'date',
  'state',
  'what it does',
  'sure',
  'level (%)',
  'level later (%)',
  'minutes later',
  'volts before',
  'volts',
  'amps',
  'watts',
  'ohms',
  'watts out',
  'output',
  'efficiency (%)',
  'chime',
  'chimes',
  'icon',
  'meter',
  'disagree',
  'other',
  'remark',
];

/** Compatibility tables as CSV (RFC 4180): a row for each source and state that was tried. Figures to the second decimal. */
export function writeCompatibility(all: readonly CompatibilityOf[]): string {
  const cells = all.flatMap(({ device, rows }) =>
    rows.flatMap((row) =>
      TRIAL_STATES.flatMap((state) => {
        const tried = row[state];
        return tried ? [rowOf(device, row, tried)] : [];
      }),
    ),
  );
  return Papa.unparse([HEADINGS, ...cells], { newline: '\r\n' });
}

const yes = (value: boolean | undefined) => (value === undefined ? '' : value ? 'yes' : 'no');
const rounded = (value: number | undefined, decimals = 2) => (value === undefined ? '' : Number(value.toFixed(decimals)));

/** Quantities with a column of their own. */
const OWN = new Set(['percent', 'volts', 'amps', 'watts']);

function rowOf(device: string, { name, through }: Compatible, tried: Tried): (string | number)[] {
  const { trial, second, says, isSure, watts, ohms, efficiency, disagrees = '' } = tried;
  const others = QUANTITIES.filter((quantity) => !OWN.has(quantity) && trial[quantity] !== undefined);
  return [
    escapeFormula(device),
    escapeFormula(name),
    escapeFormula(through),
    new Date(trial.at).toISOString(),
    trial.state,
    says,
    yes(isSure),
    rounded(trial.percent, 1),
    rounded(second?.percent, 1),
    second ? rounded((second.at - trial.at) / 60_000, 0) : '',
    rounded(trial.voltsBefore),
    rounded(trial.volts),
    rounded(trial.amps),
    rounded(watts),
    rounded(ohms),
    rounded(trial.wattsOut),
    trial.wattsOut === undefined ? '' : trial.wattsOutAssumed ? 'assumed' : 'metered',
    efficiency ? rounded(efficiency.share * 100, 0) : '',
    yes(trial.chime),
    trial.chimes ?? '',
    yes(trial.icon),
    yes(trial.meter),
    disagrees,
    others.map((quantity) => `${quantityOf(quantity).heading} ${rounded(trial[quantity])}`).join('; '),
    escapeFormula(trial.remark ?? ''),
  ];
}
