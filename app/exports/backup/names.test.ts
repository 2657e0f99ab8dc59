import { expect, it } from 'vitest';
import { backupName, isDatedBackup, newestSamples, outdated, samplesName } from './names';

it('dated backups are known by their names and stand in their order; the last ten are kept, and nothing else is touched', () => {
  const names = Array.from({ length: 14 }, (_, day) => backupName(new Date(2026, 10, 1 + day, 9, 30, day).getTime()));
  expect(names[0]).toBe('inkpath-backup-2026-11-01-093000.json');
  expect(names.every(isDatedBackup)).toBe(true);
  const others = ['samples', 'inkpath-logbook-2026-11-01.json', 'inkpath-backup-2026-11-01-093000.json.bak', 'letter.txt'];
  expect(outdated([...names].reverse().concat(others), 10)).toEqual(names.slice(0, 4));
  expect(outdated(names.slice(0, 10), 10)).toEqual([]);
});

it('the samples of a run lie in a file of their own, in a new one once a log was added', () => {
  expect(samplesName('abc', ['a', 'b'])).toBe('abc.2.json');
  expect(newestSamples('abc', ['abc.2.json', 'abc.11.json', 'abcd.40.json'])).toBe('abc.11.json');
  expect(newestSamples('x', ['abc.2.json'])).toBeUndefined();
});
