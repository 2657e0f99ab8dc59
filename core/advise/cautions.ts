import { temperature } from '../quantity/figures';

/** The usual cautions, shown where they matter. They defer to the maker’s instructions. */
export const CAUTIONS = {
  start: [
    'Never charge a damaged, swollen or wet battery, nor through a damaged cable: frayed, bent open, loose, or warm at its plug.',
    'Charge on a hard surface that cannot burn, uncovered, and stay within reach.',
    'Use certified chargers and cables; over 3 A needs a marked cable.',
    'The maker’s instructions come first.',
  ],
  unattended: [
    'Nobody is there to see it: only where the maker allows it, and where local rules do.',
    'On a hard surface that cannot burn, uncovered, under a smoke alarm; never a damaged or swollen battery.',
    'Readings that fall while you are away are left out, and named.',
  ],
  hot: 'Hot: stop if it swells, hisses, leaks or smells, unplug it at the wall if that is safe, and keep away. The maker’s limits come first.',
  get full() {
    return [
      'Stop and move away from a swollen, hissing, leaking or too-hot battery; never charge a damaged one.',
      'Do not charge unattended on soft or flammable surfaces or under covers.',
      'Use certified chargers and cables. Do not open mains adapters and do no mains wiring: socket receptacles are for a licensed electrician under the local code.',
      'Mind a cable’s current rating: over 3 A needs a marked cable.',
      `Lithium-ion is normally charged between about ${temperature(0, 0)} and ${temperature(45, 0)}. Draining to zero often, and heat, age a battery.`,
      'Air travel limits on battery Wh apply.',
      'The maker’s instructions, local codes and licensed practice come first.',
    ];
  },
};
