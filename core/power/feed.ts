import type { Charger } from '../bench/charger';
import type { Device } from '../bench/device';
import type { Feed } from '../bench/feed';
import { readLabel } from '../bench/label';
import type { Fixed } from '../bench/offer';
import { negotiate, type FeedDraw } from './negotiate';
import { nominalVolts } from './standards';

/**
 * What a source passes on of what it draws: a pad about three quarters (common practice, no source: 19 W in, 14 to 15 W out), anything with a wire
 * nearly all.
 */
const PASSES = { pad: 0.75, wired: 0.9 };

/**
 * What a source takes from the charger that feeds it: of the inputs printed on it the one that gives most; where none is printed, what its rating asks
 * for.
 *
 * @example fedBy(pad, { charger: twentyWatts }).watts // 12.6 for a pad whose input is printed as 9V⎓1.4A
 */
export function feedOf(source: Charger, feed: Feed): FeedDraw {
  const share = source.kind === 'pad' ? PASSES.pad : PASSES.wired;
  const printed = readLabel(source.input ?? '', 'USB-C').offers.filter((offer) => offer.kind === 'fixed');
  const steps = printed.length > 0 ? printed.map(takerOf(source)) : [taker(source, (source.watts ?? Infinity) / share)];
  const found = steps.map((device) => negotiate({ device, charger: feed.charger, port: feed.port ?? 0, cable: feed.cable }));
  const watts = Math.max(0, ...found.map((each) => each.watts));
  const assumed = [
    `what ${source.name} passes on (${Math.round(share * 100)} % of what it draws)`,
    ...(printed.length > 0 ? [] : [`what ${source.name} needs (its rating and its loss)`]),
  ];
  return { feed, watts, passes: watts * share, assumed };
}

/** A source as a device that takes power itself. */
const taker = ({ id, name }: Charger, inputLimit: number): Device => ({ id, name, kind: 'other', connectors: ['USB-C'], inputLimit });

const takerOf =
  (source: Charger) =>
  ({ volts, amps }: Fixed): Device => ({ ...taker(source, volts * amps), deliveryVolts: nominalVolts(volts), typeCAmps: 3 });
