import { expect, it } from 'vitest';
import { readLabel } from './label';
import { writeOffer } from './offer';

/**
 * Labels as they are printed and typed, each with its offers, written down before the reader was run. Common practice, no source; voltages of Power Delivery
 * by USB PD 3.1 (5, 9, 15, 20, 28, 36, 48 V), from memory.
 */
const LABELS: readonly [label: string, offers: string][] = [
  // Fixed offers, however they are separated.
  ['5V⎓3A', '5V⎓3A'],
  ['5V=3A', '5V⎓3A'],
  ['5V/3A', '5V⎓3A'],
  ['5V-3A', '5V⎓3A'],
  ['5V 3A', '5V⎓3A'],
  ['5V@3A', '5V⎓3A'],
  ['5V x 3A', '5V⎓3A'],
  ['5V×3A', '5V⎓3A'],
  ['5V—3A', '5V⎓3A'],
  ['5V ⎓ 3.0A', '5V⎓3A'],
  ['5.0V⎓3.00A', '5V⎓3A'],
  ['5,2V⎓2,4A', '5.2V⎓2.4A'],
  ['DC 5V 1A', '5V⎓1A'],
  ['DC5V⎓1A', '5V⎓1A'],
  ['5VDC 1A', '5V⎓1A'],
  ['5V⎓500mA', '5V⎓0.5A'],
  ['1A 5V', '5V⎓1A'],
  ['2.1A/5V', '5V⎓2.1A'],
  ['5Volts 2A', '5V⎓2A'],
  ['5V⎓3A, 9V⎓2.22A', '5V⎓3A; 9V⎓2.22A'],
  ['5V⎓3A/9V⎓3A/12V⎓2.5A', '5V⎓3A; 9V⎓3A; 12V⎓2.5A'],
  ['5V⎓3A or 9V⎓2A', '5V⎓3A; 9V⎓2A'],
  ['5V⎓3A、9V⎓3A、15V⎓3A、20V⎓5A', '5V⎓3A; 9V⎓3A; 15V⎓3A; 20V⎓5A'],
  ['(5V⎓3A) (9V⎓2A)', '5V⎓3A; 9V⎓2A'],
  ['[5V⎓3A] [9V⎓2A]', '5V⎓3A; 9V⎓2A'],
  ['5V⎓3A | 9V⎓2A', '5V⎓3A; 9V⎓2A'],
  ['5V⎓3A; 9V⎓2A', '5V⎓3A; 9V⎓2A'],
  ['5V⎓3A\n9V⎓2A', '5V⎓3A; 9V⎓2A'],
  ['5V/9V/12V⎓1.5A', '5V⎓1.5A; 9V⎓1.5A; 12V⎓1.5A'],
  ['5/9V⎓2A', '5V⎓2A; 9V⎓2A'],
  ['5V,9V⎓2A', '5V⎓2A; 9V⎓2A'],
  // Headings that say only where or how.
  ['Output: 5V⎓2A', '5V⎓2A'],
  ['OUTPUT 5V⎓2A', '5V⎓2A'],
  ['Out: 5V⎓2A', '5V⎓2A'],
  ['O/P: 5V⎓2A', '5V⎓2A'],
  ['USB-C: 5V⎓3A', '5V⎓3A'],
  ['Type-C 5V⎓3A', '5V⎓3A'],
  ['USB-A1: 5V⎓2.4A', '5V⎓2.4A'],
  ['C1: 5V⎓3A 9V⎓3A', '5V⎓3A; 9V⎓3A'],
  ['PD: 9V⎓3A', '9V⎓3A'],
  ['PD 3.0: 9V⎓3A', '9V⎓3A'],
  ['PDO1: 5V⎓3A', '5V⎓3A'],
  ['USB PD: 5V⎓3A 20V⎓3.25A', '5V⎓3A; 20V⎓3.25A'],
  ['Power Delivery: 20V⎓5A', '20V⎓5A'],
  ['Max 65W: 20V⎓3.25A', '20V⎓3.25A'],
  ['Total output: 5V⎓3A', '5V⎓3A'],
  ['Single port: 20V⎓3.25A', '20V⎓3.25A'],
  ['Fixed: 5V⎓3A', '5V⎓3A'],
  ['Rated output 12V⎓3A', '12V⎓3A'],
  ['Dual: 5V⎓2.4A', '5V⎓2.4A'],
  // The extended range is Power Delivery.
  ['EPR: 28V⎓5A', '28V⎓5A'],
  ['EPR 28V⎓5A', '28V⎓5A'],
  ['EPR: 28V⎓5A 36V⎓5A 48V⎓5A', '28V⎓5A; 36V⎓5A; 48V⎓5A'],
  ['PD EPR: 36V⎓5A', '36V⎓5A'],
  ['PD3.1 EPR: 28V⎓5A', '28V⎓5A'],
  ['SPR: 20V⎓5A; EPR: 28V⎓5A', '20V⎓5A; 28V⎓5A'],
  ['Extended power range: 28V⎓5A', '28V⎓5A'],
  ['Standard power range: 20V⎓5A', '20V⎓5A'],
  ['5V⎓3A 9V⎓3A 15V⎓3A 20V⎓5A 28V⎓5A', '5V⎓3A; 9V⎓3A; 15V⎓3A; 20V⎓5A; 28V⎓5A'],
  // Programmable ranges.
  ['PPS 3.3-11V⎓3A', 'PPS 3.3-11V⎓3A'],
  ['PPS: 3.3-11V⎓3A', 'PPS 3.3-11V⎓3A'],
  ['PPS1: 3.3-11V⎓3A', 'PPS 3.3-11V⎓3A'],
  ['PPS (3.3-16V⎓3A)', 'PPS 3.3-16V⎓3A'],
  ['APDO: 3.3-21V⎓5A', 'PPS 3.3-21V⎓5A'],
  ['3.3V-11V⎓3A', 'PPS 3.3-11V⎓3A'],
  ['3.3–11V 3A', 'PPS 3.3-11V⎓3A'],
  ['3.3~11V⎓3A', 'PPS 3.3-11V⎓3A'],
  ['3.3 to 11 V 3 A', 'PPS 3.3-11V⎓3A'],
  ['PPS: 5V-11V⎓4.05A; PD: 9V⎓3A', 'PPS 5-11V⎓4.05A; 9V⎓3A'],
  ['PD: 9V⎓3A; PPS: 3.3-11V⎓3A', '9V⎓3A; PPS 3.3-11V⎓3A'],
  // What is stepped in the extended range is no PPS: it is shown, not read as one.
  ['AVS: 15-28V⎓5A', ''],
  ['EPR AVS 15-28V⎓5A', ''],
  ['28V⎓5A; AVS 15-28V⎓5A', '28V⎓5A'],
  // A maker's own family: its offers and its ranges are its own.
  ['Swiftreed: 10V⎓4A', 'Swiftreed: 10V⎓4A'],
  ['Swiftreed 2.0: 10V⎓4A', 'Swiftreed 2.0: 10V⎓4A'],
  ['Swiftreed: 5V⎓2A 10V⎓4A', 'Swiftreed: 5V⎓2A; Swiftreed: 10V⎓4A'],
  ['Swiftreed: 3.6-20V⎓3A', 'Swiftreed: 3.6-20V⎓3A'],
  ['Swiftreed: 3.6V-6V⎓5A, 6-9V⎓3A', 'Swiftreed: 3.6-6V⎓5A; Swiftreed: 6-9V⎓3A'],
  ['PD: 9V⎓3A; Swiftreed: 3.6-20V⎓3A', '9V⎓3A; Swiftreed: 3.6-20V⎓3A'],
  ['Swiftreed: 10V⎓4A; PPS: 3.3-11V⎓3A', 'Swiftreed: 10V⎓4A; PPS 3.3-11V⎓3A'],
  ['Swiftreed output: 10V⎓4A', 'Swiftreed: 10V⎓4A'],
  ['Swiftreed: 10V⎓4A\n5V⎓2A', 'Swiftreed: 10V⎓4A; 5V⎓2A'],
  ['急速: 11V⎓6A', '急速: 11V⎓6A'],
  // The mains, with or without a word before it, is no offer.
  ['INPUT: 100-240V~50/60Hz 1.5A', ''],
  ['INPUT 100-240V 1.5A', ''],
  ['Input: AC 100-240V 0.5A', ''],
  ['100-240V~ 50-60Hz 0.6A', ''],
  ['100-240V 1.5A', ''],
  ['100–240 V 50/60 Hz 1.5 A', ''],
  ['AC100-240V 50/60Hz 1.5A', ''],
  ['AC 230V 0.2A', ''],
  ['230V 0.2A', ''],
  ['220V~ 0.5A', ''],
  ['120V 60Hz 0.3A', ''],
  ['110V/220V 0.5A', ''],
  ['200-240VAC 1A', ''],
  ['0.5A 230V', ''],
  ['100-127V 0.8A', ''],
  ['100-240V 1.5A 5V⎓3A', '5V⎓3A'],
  ['100-240V~50/60Hz 1.5A Output: 5V⎓3A 9V⎓3A', '5V⎓3A; 9V⎓3A'],
  ['INPUT: 100-240V~50/60Hz 0.8A OUTPUT: 5V⎓3A', '5V⎓3A'],
  ['AC 100-240V 0.5A\nDC 5V⎓2A', '5V⎓2A'],
  ['输入: 100-240V~50/60Hz 0.6A; 输出: 5V⎓3A', '5V⎓3A'],
  ['100-240V~50/60Hz 0.6A 输出 5V⎓3A', '5V⎓3A'],
  ['I/P: 100-240V 0.5A O/P: 5V⎓2A', '5V⎓2A'],
  ['5V⎓3A INPUT 100-240V 0.6A', '5V⎓3A'],
  ['Eingang: 100-240V~ 0,6A', ''],
  ['Entrée 100-240V~ 0,5A; Sortie 5V⎓2A', '5V⎓2A'],
  // A side that takes power is no offer either.
  ['Input: 5V⎓2A', ''],
  ['INPUT 9V⎓2A; OUTPUT 5V⎓3A', '5V⎓3A'],
  ['Input: 5V⎓3A 9V⎓2A Output: 5V⎓3A', '5V⎓3A'],
  // Nothing to offer.
  ['65W', ''],
  ['Max. 65W', ''],
  ['', ''],
  ['Model AB-12', ''],
  ['5V', ''],
  ['3A', ''],
  ['50/60Hz', ''],
  ['9V⎓0A', ''],
  ['11-3.3V 3A', ''],
];

it('knows at least a hundred and twenty labels', () => {
  expect(LABELS.length).toBeGreaterThanOrEqual(120);
  expect(new Set(LABELS.map(([label]) => label)).size).toBe(LABELS.length);
});

it.each(LABELS)('reads %j as %j', (label, offers) => {
  expect(readLabel(label, 'USB-C').offers.map(writeOffer).join('; ')).toBe(offers);
});

it.each([
  ['15W', '15W extended'],
  ['5W', '5W baseline'],
  ['15W magnetic; 7.5W', '15W magnetic; 7.5W extended'],
  ['magnetic 15W', '15W magnetic'],
  ['Wireless output: 10W', '10W extended'],
  ['Input: 9V⎓2A; Output: 15W', '15W extended'],
])('reads %j on a pad as %j', (label, offers) => {
  expect(
    readLabel(label, 'pad')
      .offers.filter(({ kind }) => kind === 'wireless')
      .map(writeOffer)
      .join('; '),
  ).toBe(offers);
});
