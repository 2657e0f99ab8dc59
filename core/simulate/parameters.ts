/** Points of a curve over the share of charge, 0–1, ascending; two at one share make a step. Linear in between. */
export type Curve = readonly (readonly [share: number, value: number])[];

/** The battery as seen from its terminals: open-circuit voltage and internal resistance. */
export interface Battery {
  /** Energy from empty to full at its present health, in Wh. */
  wattHours: number;
  /** Mean open-circuit voltage, in V. */
  nominalVolts: number;
  /** Internal resistance, in Ω. */
  ohms: number;
  /** Open-circuit voltage over the share of charge, as a multiple of the nominal voltage; its mean is brought to 1. */
  curve: Curve;
}

/** What the device lets into its battery. */
export interface Controller {
  /** Most watts it takes at its socket. */
  inputWatts: number;
  /** Share of them that it takes for its battery at a level; what it uses itself comes on top, within the limit. */
  byLevel: Curve;
  /** Voltage at the battery that is never exceeded, as a multiple of the nominal voltage: from there the current tapers. */
  fullVolts: number;
  /** Charging ends once the tapering current falls below this, in A per Ah of the battery. */
  endAmpsPerAh: number;
  /** Most current below 10 %, in A per Ah: an empty battery is woken gently. */
  gentleAmpsPerAh: number;
  /** Adaptive charging: holds at this share of charge until so many seconds after plug-in. */
  hold?: { share: number; until: number };
  /** Above so many °C it takes only this share, until 2 °C below. */
  throttle: { above: number; share: number };
}

/** What comes in, and what of it goes elsewhere. */
export interface Supply {
  /** Most watts the source gives, and its voltage. */
  watts: number;
  volts: number;
  /** Seconds from plug-in until voltage and current are negotiated; until then 5 V at 0.5 A. */
  handshake: number;
  /** Share of the power at the socket that reaches the battery’s poles. */
  efficiency: number;
  /** What the device uses itself, in W at the battery’s poles. */
  loadWatts: number;
  /** A wireless pad: share of its power that arrives at the coil when aligned, and how well it lies (0–1), which may change. */
  pad?: { efficiency: number; alignment: number; slips?: { at: number; to: number } };
}

export interface HeatParameters {
  /** °C of the room. */
  ambient: number;
  /** J that warm the device by 1 °C. */
  capacity: number;
  /** °C above the room for each W that it turns to heat, in the end. */
  resistance: number;
}

/** Everything a charge is worked out from. */
export interface ChargeParameters {
  battery: Battery;
  controller: Controller;
  supply: Supply;
  heat: HeatParameters;
}

/** Value of a curve at a share of charge; held level outside its points. */
export function valueOn(curve: Curve, share: number): number {
  const after = curve.findIndex(([at]) => at > share);
  if (after < 0) return curve.at(-1)?.[1] ?? 0;
  const [[from, low], [to, high]] = [curve[Math.max(0, after - 1)] ?? [0, 0], curve[after] ?? [1, 0]];
  return after === 0 ? high : low + ((high - low) * (share - from)) / (to - from);
}

/** Mean of a curve over all shares of charge, by the area under it. */
export function meanOf(curve: Curve): number {
  let area = 0;
  for (const [index, [to, high]] of curve.entries()) {
    const [from, low] = curve[index - 1] ?? [0, high];
    area += ((to - from) * (low + high)) / 2;
  }
  const [lastShare, last] = curve.at(-1) ?? [0, 0];
  return area + (1 - lastShare) * last;
}
