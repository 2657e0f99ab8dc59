export { requireAtLeast } from './require';
export { apparentLoad, averagePower, batteryEnergy, celsiusFromFahrenheit, power } from './electric';
export { readDecimal } from './decimal';
export { clock, countdown, nominal, parseClock, spell } from './duration';
export { decimalsFor, fixed, signedShare } from './figures';
export { parseEntryLine, type LineValues, type ParsedLine } from './entryLine';
export { writeEntryLine } from './writeLine';
export { listed } from './listed';
export { QUANTITIES, quantityOf, TEMPERATURES, TRACKED, type Quantity } from './quantity';
