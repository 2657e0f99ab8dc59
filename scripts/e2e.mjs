import { readFileSync, writeFileSync } from 'node:fs';
import { ensureBuild, ensureChromium, ensurePackages, ensurePdfText, ensureWholeChromium, runPackage } from './setup.mjs';

/** `npm run e2e -- --grep @slice` runs a part. */
await ensurePackages();
const [chromium, whole, pdfText] = [ensureChromium(), ensureWholeChromium(), ensurePdfText()];
await ensureBuild();
const args = process.argv.slice(2);
const tests = (...more) =>
  runPackage('@playwright/test', ['test', ...args, ...more], {
    env: { ...process.env, CHROMIUM: chromium, CHROMIUM_WHOLE: whole, PDF_TEXT: pdfText ?? '' },
  });

/** What the browser says of a page whose process died under it: no assertion failed, for none was reached. */
const CRASHED = /Target crashed|Page crashed/;
const REPORT = process.env.PLAYWRIGHT_JSON_OUTPUT_NAME;

/** The tests that failed, each by its title and all that was said of it. */
function failedIn({ suites = [] }) {
  return suites.flatMap(({ specs = [], suites: inner = [] }) => [
    ...specs
      .filter(({ ok }) => !ok)
      .map(({ title, tests: runs }) => ({
        title,
        said: runs.flatMap(({ results }) => results.flatMap(({ errors }) => errors.map(({ message = '' }) => message))).join('\n'),
      })),
    ...failedIn({ suites: inner }),
  ]);
}

let code = await tests();
if (code !== 0 && REPORT) {
  const first = JSON.parse(readFileSync(REPORT, 'utf8'));
  const failed = failedIn(first);
  // A crash of the browser itself says nothing of the app, unless it comes again: those tests alone are run once more, and named.
  if (failed.length > 0 && failed.every(({ said }) => CRASHED.test(said))) {
    for (const { title } of failed) console.log(`The browser crashed, once more: ${title}`);
    code = await tests('--last-failed');
    const again = JSON.parse(readFileSync(REPORT, 'utf8'));
    again.stats.expected += first.stats.expected;
    writeFileSync(REPORT, JSON.stringify(again));
  }
}
process.exitCode = code;
