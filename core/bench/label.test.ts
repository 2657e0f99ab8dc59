import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readLabel } from './label';
import { differences, offerWatts, writeOffer, type Offer } from './offer';

const written = (text: string, connector?: string) => readLabel(text, connector).offers.map(writeOffer);

describe('a charger’s printed label', () => {
  it.each([
    ['5V⎓3A 9V⎓3A 15V⎓3A 20V⎓2.25A', ['5V⎓3A', '9V⎓3A', '15V⎓3A', '20V⎓2.25A']],
    ['PPS 3.3-11V 3A', ['PPS 3.3-11V⎓3A']],
    ['5V/2.4A', ['5V⎓2.4A']],
    ['5V=3A, 9V=2,22A / 12V=1.67A', ['5V⎓3A', '9V⎓2.22A', '12V⎓1.67A']],
    ['5V/9V⎓2A', ['5V⎓2A', '9V⎓2A']],
    ['DC 5V 2000mA', ['5V⎓2A']],
    ['2.4A@5V', ['5V⎓2.4A']],
    ['PPS: 3.3–11V⎓3A, 3.3V-16V⎓2A', ['PPS 3.3-11V⎓3A', 'PPS 3.3-16V⎓2A']],
    ['Output: 5V⎓3A/9V⎓3A/20V⎓3.25A 65W max', ['5V⎓3A', '9V⎓3A', '20V⎓3.25A']],
    ['Swiftreed: 10V⎓4A; PD 5V⎓3A', ['Swiftreed: 10V⎓4A', '5V⎓3A']],
    ['５Ｖ⎓３Ａ', ['5V⎓3A']],
  ])('reads %j', (text, offers) => {
    expect(written(text)).toEqual(offers);
    expect(readLabel(text).unread).toEqual([]);
  });

  it('takes watts for offers on a pad, and for a total elsewhere', () => {
    expect(written('15W magnetic, 10W, 5W', 'pad')).toEqual(['15W magnetic', '10W extended', '5W baseline']);
    expect(readLabel('65W', 'USB-C')).toEqual({ offers: [], unread: [], errors: [] });
  });

  it('shows what it could not read, in any script, and never makes an offer of the mains side', () => {
    expect(readLabel('输出 5V⎓3A 型号 AB-12').unread).toEqual(['型号', 'AB-12']);
    const mains = readLabel('INPUT: 100-240V~50/60Hz 1.5A; OUTPUT 5V⎓2A');
    expect(mains.offers.map(writeOffer)).toEqual(['5V⎓2A']);
    expect(mains.unread.join(' ')).toContain('100-240V~50/60Hz 1.5A');
  });

  it('says what is wrong with an offer that gives nothing or too much', () => {
    expect(readLabel('9V⎓0A').errors[0]).toMatch(/“9V⎓0A” gives no power/);
    expect(readLabel('11-3.3V 3A').errors[0]).toMatch(/lower voltage first/);
    expect(readLabel('500V 3A').errors[0]).toMatch(/more than a charger gives/);
    expect(readLabel('0W', 'pad').errors[0]).toMatch(/watts must be more than 0/);
  });

  it('reads back every offer it writes', () => {
    const size = (min: number, max: number) => fc.integer({ min: min * 100, max: max * 100 }).map((hundredths) => hundredths / 100);
    const offer: fc.Arbitrary<Offer> = fc.oneof(
      fc.record({ kind: fc.constant('fixed' as const), volts: size(1, 48), amps: size(0.1, 6) }),
      fc.record({ kind: fc.constant('programmable' as const), low: size(1, 5), high: size(6, 21), amps: size(0.1, 6) }),
      fc.record({
        kind: fc.constant('proprietary' as const),
        family: fc.constantFrom('Swiftreed', 'Reed 2'),
        volts: size(1, 48),
        amps: size(0.1, 6),
      }),
    );
    fc.assert(
      fc.property(fc.array(offer, { maxLength: 5 }), (offers) => {
        expect(readLabel(offers.map(writeOffer).join('; ')).offers).toEqual(offers);
      }),
    );
  });

  it('answers any text without failing', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme' }), (text) => readLabel(text).offers.every((offer) => offerWatts(offer) > 0)));
  });
});

it('points out where a tester found something else than is printed', () => {
  const [printed, probed] = [readLabel('5V⎓3A 9V⎓3A').offers, readLabel('5V⎓3A 9V⎓2.22A').offers];
  expect(differences(printed, probed)).toEqual([
    'Printed, but not found by the tester: 9V⎓3A.',
    'Found by the tester, but not printed: 9V⎓2.22A.',
  ]);
  expect(differences(printed, [])).toEqual([]);
  expect(differences(printed, printed)).toEqual([]);
});
