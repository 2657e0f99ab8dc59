import { inUnit, quantityOf, sharersOf, type Quantity } from '@core/quantity';
import { mainTrack } from './layers/look';
import { lineName, type Dots, type Trace } from './trace';

/** Moments this close are one, in seconds. */
const AS_ONE = 1e-6;
const lastBy = (dots: Dots, line: Quantity, at: number) =>
  dots[line]?.findLast(([seconds, value]) => seconds <= at + AS_ONE && value !== undefined)?.[1];

/** What was last read by a moment, of everything that is drawn; of several runs what each showed on the main track. */
export function readAt(traces: readonly Trace[], tracks: readonly Quantity[], at: number, isOfMany = false): string[] {
  if (isOfMany) {
    const main = mainTrack(traces);
    return traces.flatMap(({ name, dots }) => {
      const value = lastBy(dots, main, at);
      return value === undefined ? [] : [`${name} ${inUnit(value, quantityOf(main).unit, 1)}`];
    });
  }
  const [trace] = traces;
  if (!trace) return [];
  return tracks.flatMap((track) =>
    [track, ...sharersOf(track)].flatMap((line) => {
      const value = lastBy(trace.dots, line, at);
      if (value === undefined) return [];
      const { unit, track: own } = quantityOf(line);
      return [`${own?.on ? `${lineName(line, trace)} ` : ''}${inUnit(value, unit, unit === 'Wh' || unit === 'V' ? 2 : 1)}`];
    }),
  );
}
