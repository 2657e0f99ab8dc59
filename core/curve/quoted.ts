/** Levels whose times are worth quoting, in %. */
export const LEVELS = [50, 80, 100] as const;
/** Nominal times at which gains are quoted, in seconds from plug-in. */
export const GAIN_TIMES = [900, 1800, 3600] as const;
/** Levels up to which mean power is quoted, in %. */
export const AVERAGED = [80, 100] as const;
/** Levels and nominal times at which several setups are laid beside each other, besides those. */
export const COMPARED = { levels: [90], marks: [300, 600, 1200, 2700] } as const;
