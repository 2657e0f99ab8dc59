import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readLabel } from '../bench/label';
import { readPort } from '../bench/portText';
import { readSharing } from '../bench/sharing';
import { readHours } from '../plan/hoursText';
import { parseEntryLine } from '../quantity/entryLine';
import { CsvReader } from './csvIn';
import { readGearCsv } from './gearCsv';
import { LogbookReader } from './readLogbook';

/** Whatever is refused by a reader of what a person typed, pasted or chose: its sentences. */
const READERS: Readonly<Record<string, (text: string) => string[]>> = {
  'entry line': (text) => {
    const read = parseEntryLine(text);
    return read.ok ? [] : [read.error];
  },
  label: (text) => readLabel(text).errors,
  port: (text) => thrownBy(() => readPort(text)),
  sharing: (text) => readSharing(text, ['C1']).errors,
  hours: (text) => {
    const read = readHours(text, 0);
    return 'error' in read ? [read.error] : [];
  },
  'a cell of a log': (text) => ofLog('log.csv', `time,percent\n${text},1\n`),
  'a figure of a log': (text) => ofLog('log.csv', `time (s),percent\n0,1\n60,${text}\n`),
  'headings of a log': (text) => ofLog('log.csv', `${text},${text}\n1,2\n`),
  'the name of a log': (text) => ofLog(text, 'a,b\n1,2\n'),
  'the name of a logbook': (text) =>
    thrownBy(() => {
      const reader = new LogbookReader(text);
      reader.push('{"schema":');
      reader.end();
    }),
  'a shelf of gear': (text) => ofGear('gear.csv', `shelf,name\n${text},x\n`),
  'a choice of gear': (text) => ofGear('gear.csv', `shelf,name,retired,display\ndevice,x,,${text}\n`),
  'the name of a file of gear': (text) => ofGear(text, 'a\n1\n'),
};

function thrownBy(work: () => unknown): string[] {
  try {
    work();
    return [];
  } catch (error) {
    return [error instanceof Error ? error.message : String(error)];
  }
}

const ofLog = (name: string, text: string) =>
  thrownBy(() => {
    const reader = new CsvReader(name);
    reader.push(text);
    reader.end();
  });

function ofGear(name: string, text: string): string[] {
  let refused: string[] = [];
  return [
    ...thrownBy(() => {
      ({ refused } = readGearCsv(text, name));
    }),
    ...refused,
  ];
}

/** Long texts of one letter, of words, of digits, of what labels and ports are written with. */
const texts = fc.oneof(
  fc.integer({ min: 100, max: 3000 }).map((length) => 'w'.repeat(length)),
  fc
    .array(fc.constantFrom('5V', '⎓', '3A', 'C1', '+', ': ', '45', 'x', '@', '9', ' ', '–', '(', 'bat'), { minLength: 120, maxLength: 800 })
    .map((all) => all.join('')),
  fc.string({ minLength: 120, maxLength: 900 }).map((text) => text.replace(/[",\n\r\0]/g, ' ')),
);

test.each(Object.entries(READERS))('what refuses %s repeats at most 80 characters of it', (_, read) => {
  fc.assert(
    fc.property(texts, (text) => {
      for (const says of read(text)) {
        expect(longestRepeat(says, text)).toBeLessThanOrEqual(80);
        // Two of them at most, and what is to be done.
        expect(says.length).toBeLessThan(500);
      }
    }),
    { numRuns: 60 },
  );
});

test('the readers do refuse such texts', () => {
  const texts = ['w'.repeat(400), `${'9'.repeat(300)}V 3A`];
  for (const [name, read] of Object.entries(READERS)) expect([name, texts.flatMap(read).length]).not.toEqual([name, 0]);
});

/** The most letters in a row that a sentence has of a text. */
function longestRepeat(says: string, text: string): number {
  let longest = 0;
  for (let from = 0; from + longest < says.length; from += 1)
    while (from + longest < says.length && text.includes(says.slice(from, from + longest + 1))) longest += 1;
  return longest;
}
