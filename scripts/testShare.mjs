import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const CODE = /\.(ts|vue|mjs|js|css|scss)$/;
const TEST = /(\.(test|spec)\.ts$)|(^(e2e|truth)\/)/;

/** Lines with something on them: of tests, and of all code that git knows. */
export function testShare(root) {
  const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], { cwd: root, encoding: 'utf8' })
    .split('\n')
    .filter((file) => CODE.test(file));
  const lines = (file) =>
    readFileSync(join(root, file), 'utf8')
      .split('\n')
      .filter((line) => line.trim()).length;
  const count = (some) => some.reduce((sum, file) => sum + lines(file), 0);
  return { tests: count(files.filter((file) => TEST.test(file))), all: count(files) };
}
