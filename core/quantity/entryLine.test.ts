import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseEntryLine, type LineValues } from './entryLine';
import { writeEntryLine } from './writeLine';

const read = (text: string): LineValues => {
  const line = parseEntryLine(text);
  if (!line.ok) throw new Error(line.error);
  return line.values;
};
const refusal = (text: string): string => {
  const line = parseEntryLine(text);
  return line.ok ? '' : line.error;
};

describe('the entry line', () => {
  it('reads a percentage alone and figures by their unit, in any order', () => {
    expect(read('42')).toEqual({ percent: 42 });
    expect(read('42 26.1w')).toEqual({ percent: 42, watts: 26.1 });
    expect(read('42 9.02v 2.9a 31.5c')).toEqual({ percent: 42, volts: 9.02, amps: 2.9, celsius: 31.5 });
    expect(read('31.5C 2.9A 42% 9.02V')).toEqual(read('42 9.02v 2.9a 31.5c'));
    expect(read('1.4wh')).toEqual({ wattHours: 1.4 });
    expect(read('380mAh 950ma')).toEqual({ milliampHours: 380, amps: 0.95 });
  });

  it('takes a decimal comma or point, and separators left hanging', () => {
    expect(read('42, 26,1w; 31,5c')).toEqual({ percent: 42, watts: 26.1, celsius: 31.5 });
    expect(read('42 26.1 w')).toEqual({ percent: 42, watts: 26.1 });
  });

  it('takes the time at which it was seen', () => {
    expect(read('43 @14:40')).toEqual({ percent: 43, seen: 880 });
    expect(read('@1:02:05 43')).toEqual({ percent: 43, seen: 3725 });
  });

  it('turns Fahrenheit to Celsius and keeps a note', () => {
    expect(read('41 104f # case off')).toEqual({ percent: 41, celsius: 40, note: 'case off' });
    expect(read('# fan started')).toEqual({ note: 'fan started' });
  });

  it('tells surfaces and battery apart, and which way current flows', () => {
    expect(read('42 front 40.5c back 40.8c bat 38c')).toEqual({ percent: 42, frontCelsius: 40.5, backCelsius: 40.8, batteryCelsius: 38 });
    expect(read('55w bat 29w bat 11.4v in')).toEqual({ watts: 55, batteryWatts: 29, batteryVolts: 11.4, direction: 'in' });
    expect(read('Bat -3,5 w OUT')).toEqual({ batteryWatts: -3.5, direction: 'out' });
    for (const line of ['42 front 40.5c back 41c bat 38c bat 4.1v bat 2a bat -3w @4:00 out # hot', '41 31c'])
      expect(writeEntryLine(read(writeEntryLine(read(line))))).toBe(writeEntryLine(read(line)));
  });

  it.each([
    ['42 front', /“front” wants the figure that was read there/],
    ['front 42', /front and back go with temperatures/],
    ['bat 1.4wh', /bat with temperature, volts, amps and watts/],
    ['front 40c front 41c', /Two temperatures/],
    ['in', /Nothing to log yet/],
    ['abc', /“abc” is not a figure/],
    ['4x2', /“4x2” is not a figure/],
    ['42 43', /Two percentages on one line, the second “43”/],
    ['130 %', /“130%” cannot be a charge level/],
    ['−5 %', /“−5%” cannot be a charge level/],
    ['-5', /cannot be a charge level/],
    ['-3w', /below zero/],
    ['900c', /cannot be a temperature/],
    ['', /Nothing to log yet/],
    ['  @4:00 ', /Nothing to log yet/],
    ['42 @-1:00', /before plug-in/],
    ['42 @14', /“@14” is not a time since plug-in/],
    ['42 @1:00 @2:00', /Two times/],
    ['42 constructor', /is not a figure/],
  ])('refuses %j in one sentence that says what to write', (text, sentence) => {
    expect(refusal(text)).toMatch(sentence);
  });

  it('never reads figures differently for their order', () => {
    const words = ['42', '26.1w', '9.02v', '2.9a', '31.5c', '1.4wh', '380mah', '@14:40'];
    fc.assert(
      fc.property(fc.shuffledSubarray(words, { minLength: 8 }), (shuffled) => {
        expect(read(shuffled.join(' '))).toEqual(read(words.join(' ')));
      }),
    );
  });

  it('answers every text with figures or a sentence', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const line = parseEntryLine(text);
        return line.ok ? Object.keys(line.values).length > 0 : line.error.length > 10;
      }),
    );
  });
});

it('knows a level that was seen turning, and a start that was dead', () => {
  expect(parseEntryLine('80!')).toEqual({ ok: true, values: { percent: 80, turning: true } });
  expect(parseEntryLine('80%! 9.1w')).toEqual({ ok: true, values: { percent: 80, turning: true, watts: 9.1 } });
  expect(JSON.stringify(parseEntryLine('9.1w!'))).toContain('only a level is seen turning');
  expect(parseEntryLine('Dead # nothing at all')).toEqual({ ok: true, values: { dead: true, note: 'nothing at all' } });
  expect(JSON.stringify(parseEntryLine('dead 5w'))).toContain('Write dead alone');
  expect(writeEntryLine({ percent: 80, turning: true, watts: 9 })).toBe('80! 9w');
});

it('reads a surface by what it is called on the device', () => {
  const laptop = { frontName: 'deck (top)', backName: 'palm rest' };
  expect(parseEntryLine('42 Deck (top) 41,5c palm rest: 38c', laptop)).toEqual({
    ok: true,
    values: { percent: 42, frontCelsius: 41.5, backCelsius: 38 },
  });
  expect(parseEntryLine('front 40c back 39c', laptop)).toMatchObject({ ok: true, values: { frontCelsius: 40, backCelsius: 39 } });
  // A note stays as it is written, and a name without a figure after it is no place.
  expect(parseEntryLine('42 # palm rest 38c', laptop)).toEqual({ ok: true, values: { percent: 42, note: 'palm rest 38c' } });
  expect(parseEntryLine('palm rest warm', laptop).ok).toBe(false);
});
