import type { Device } from './device';

/** What a surface is called on a device, where its own name says more than front and back: the deck of a laptop, its underside. */
export const surfaceName = ({ frontName, backName }: Pick<Device, 'frontName' | 'backName'>, of: string): string | undefined =>
  of === 'frontCelsius' ? frontName : of === 'backCelsius' ? backName : undefined;
