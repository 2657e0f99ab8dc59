import { celsiusFromFahrenheit } from '../quantity/electric';
import type { Convert } from '../quantity/quantities';

/** Units of a log, by the unit that is kept of them: by how much one is of it. */
export const UNITS: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  V: { V: 1, mV: 1e-3, µV: 1e-6, kV: 1e3 },
  A: { A: 1, mA: 1e-3, µA: 1e-6 },
  W: { W: 1, mW: 1e-3, µW: 1e-6, kW: 1e3 },
  Wh: { Wh: 1, mWh: 1e-3, kWh: 1e3, J: 1 / 3600, kJ: 1 / 3.6 },
  mAh: { mAh: 1, Ah: 1000, µAh: 1e-3 },
  '%': { '%': 1 },
};

/** Units in seconds. */
export const TIMES: Readonly<Record<string, number>> = { s: 1, ms: 1e-3, min: 60, h: 3600 };

/** Units as they are written out, or otherwise, by how they are written here. */
const WRITTEN: Readonly<Record<string, string>> = {
  ...{ volt: 'V', volts: 'V', millivolts: 'mV', microvolts: 'µV', uv: 'µV' },
  ...{ amp: 'A', amps: 'A', ampere: 'A', amperes: 'A', milliamps: 'mA', microamps: 'µA', ua: 'µA' },
  ...{ watt: 'W', watts: 'W', milliwatts: 'mW', uw: 'µW' },
  ...{ 'watt-hours': 'Wh', 'watt hours': 'Wh', 'w·h': 'Wh', 'w*h': 'Wh', joule: 'J', joules: 'J', ws: 'J' },
  ...{ 'milliamp-hours': 'mAh', 'ma·h': 'mAh', 'ma*h': 'mAh', 'amp-hours': 'Ah', uah: 'µAh' },
  ...{ percent: '%', pct: '%' },
};
const BY_NAME = new Map(
  Object.entries(UNITS).flatMap(([kept, units]) =>
    Object.entries(units).map(([unit, factor]) => [unit.toLowerCase(), { kept, unit, factor }] as const),
  ),
);

/** What a unit says of its column: which unit is kept of it, and how a figure becomes one of that. */
export interface KnownUnit {
  kept: string;
  convert: Convert;
}

/** A unit as a heading has it; `undefined` for what is none of these. A `C` alone is degrees, for no log counts coulombs. */
export function unitFor(written: string): KnownUnit | undefined {
  const typed = written.trim().replaceAll('μ', 'µ').toLowerCase();
  if (/^(°|deg\.?\s*)?c(elsius)?$/.test(typed)) return { kept: '°C', convert: (value) => value };
  if (/^(°|deg\.?\s*)?f(ahrenheit)?$/.test(typed)) return { kept: '°C', convert: celsiusFromFahrenheit };
  const found = BY_NAME.get((WRITTEN[typed] ?? typed).toLowerCase());
  return found && { kept: found.kept, convert: converting(found.factor) };
}

/** Divided where one is less than what is kept: 950 mA are 0.95 A to the last digit. */
function converting(factor: number): Convert {
  const per = 1 / factor;
  return factor < 1 ? (value) => value / per : (value) => value * factor;
}

/** Whether a unit is one that figures are kept in. */
export const isKeptUnit = (unit: string): boolean => unit === '°C' || unit in UNITS;

/** Units of what is not read here: a column that has one holds nothing of ours, whatever its heading says. */
const OTHER = /^(k|m)?(ω|ohms?|hz|rpm|lx|lux|db|dbm|dba|pa|bar|kg|g|mm|cm|m|lm|cd|kb|mb|gb|bytes?|fps|bpm|var|va|% ?rh)$/i;
export const isOtherUnit = (written: string): boolean => OTHER.test(written.trim());

/** A unit without the brackets that it stands in. */
export const bareUnit = (cell: string): string => cell.trim().replace(/^[([]\s*|\s*[)\]]$/g, '');

/** How a clock is written, where a row of units says so. */
const CLOCK = /^h{1,2}:mm(:ss)?([.,]s+)?$/i;

/** Whether a cell holds nothing but a unit, as the second row of some logs does. */
export const isUnit = (cell: string): boolean => {
  const bare = bareUnit(cell);
  return bare !== '' && (unitFor(bare) !== undefined || TIMES[bare.toLowerCase()] !== undefined || isOtherUnit(bare) || CLOCK.test(bare));
};
