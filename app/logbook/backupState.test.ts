import { expect, it } from 'vitest';
import { ageSays, isBackupDue } from './backupState';

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 10, 30);

it('a backup is missed once ink has been here for a week and is in none, and that is said once', () => {
  const never = { at: 0, since: NOW - 8 * DAY };
  expect(isBackupDue(never, NOW - 400 * DAY, NOW)).toBe(true);
  expect(isBackupDue({ ...never, since: NOW - 6 * DAY }, NOW - 400 * DAY, NOW)).toBe(false);
  expect(isBackupDue({ ...never, isSaid: true }, NOW, NOW)).toBe(false);
  const old = { at: NOW - 9 * DAY, since: NOW - 9 * DAY };
  expect([isBackupDue(old, NOW - 10 * DAY, NOW), isBackupDue(old, NOW - 8 * DAY, NOW)]).toEqual([false, true]);
});

it('the age of a backup is told in days', () => {
  expect([0, 0.9, 1.2, 12].map((days) => ageSays(NOW - days * DAY, NOW))).toEqual(['today', 'today', '1 day ago', '12 days ago']);
});
