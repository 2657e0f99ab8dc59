import { expect, it } from 'vitest';
import { troubleFrom } from './storageTrouble';

it('calls a full disk a full disk, whatever a browser calls it, and only what is forbidden a private window', () => {
  const said = (name: string) => troubleFrom(new DOMException('no', name));
  for (const name of ['QuotaExceededError', 'AbortError', 'UnknownError']) {
    expect(said(name)).toMatchObject({
      kind: 'full',
      message: expect.stringMatching(/^Not logged\. .*no room left.* free some space/) as string,
    });
    expect(said(name).message).not.toMatch(/private/);
  }
  expect(said('SecurityError')).toMatchObject({ kind: 'blocked', message: expect.stringMatching(/private window/) as string });
  expect(said('VersionError').kind).toBe('newer');
});
