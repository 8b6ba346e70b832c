// npm test: types, lint, boundaries and unused code, unit tests, build, browser tests; ends with one line that counts.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import {
  bin,
  chromium,
  compiler,
  endWithParent,
  freePort,
  NO_CHROMIUM,
  ready,
  root,
  tied,
} from './ready.mjs';

ready();
// Cut off in the middle, it leaves nothing running behind it.
endWithParent();
const reports = join(root, 'reports');
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });

let passed = 0;
let failed = 0;

// The compiler that takes a fifth of the time; the packages that ask the compiler about code still need the older one beside it.
const NATIVE_TSC = '../typescript-native/bin/tsc';

/** Runs one command and gives its exit code; what it printed is shown when it failed. */
function run(title, command, args, environment = {}) {
  const began = Date.now();
  return new Promise((done) => {
    const child = tied(bin(command), args, {
      env: { ...process.env, ...environment },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let printed = '';
    child.stdout.on('data', (part) => (printed += part));
    child.stderr.on('data', (part) => (printed += part));
    child.on('close', (code) => {
      console.log(
        `${code === 0 ? 'ok    ' : 'FAILED'} ${title} (${((Date.now() - began) / 1000).toFixed(0)} s)`,
      );
      if (code !== 0) console.log(printed);
      done(code ?? 1);
    });
  });
}

async function check(title, command, args) {
  if ((await run(title, command, args)) === 0) passed += 1;
  else failed += 1;
}

/** Runs the unit tests of these files, or all, and gives the exit code and the report, null where it wrote none. */
async function inVitest(title, files = []) {
  const file = join(reports, `${title.replaceAll(' ', '-')}.json`);
  const code = await run(title, 'vitest', [
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
    ...files,
  ]);
  return { code, report: existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null };
}

/** The files with a test that failed, or that could not be read at all. */
const red = (report) => report.testResults.filter((suite) => suite.status === 'failed');

const failedIn = (report) =>
  report.numFailedTests + red(report).filter((suite) => suite.assertionResults.length === 0).length;

/** Gives the files that are to be asked once more, on a quiet machine; their tests are counted then. */
async function unitTests() {
  const { code, report } = await inVitest('unit tests');
  if (report === null || (code !== 0 && failedIn(report) === 0)) {
    failed += 1;
    return [];
  }
  passed += report.numPassedTests;
  for (const suite of red(report))
    passed -= suite.assertionResults.filter((one) => one.status === 'passed').length;
  return red(report).map((suite) => ({
    file: suite.name,
    titles: suite.assertionResults.filter((one) => one.status === 'failed').map((one) => one.fullName),
  }));
}

/** What failed beside everything else, alone: what fails here has failed. */
async function unitTestsAlone(again) {
  const { code, report } = await inVitest(
    'unit tests that failed, alone',
    again.map((one) => one.file),
  );
  passed += report?.numPassedTests ?? 0;
  const unexpected = report === null ? 1 : failedIn(report);
  failed += unexpected + (code !== 0 && unexpected === 0 ? 1 : 0);
  if (code === 0)
    for (const title of again.flatMap((one) => one.titles))
      console.log(`passed only at the second try, alone: ${title}`);
}

const titles = (suites = []) =>
  suites.flatMap((suite) => [
    ...titles(suite.suites),
    ...suite.specs.filter((spec) => spec.ok).map((spec) => `${spec.file}: ${spec.title}`),
  ]);

/** One run in the browser: its exit code and its report, null where it wrote none. */
async function inBrowser(title, options) {
  const file = join(reports, `${title.replaceAll(' ', '-')}.json`);
  const code = await run(title, 'playwright', ['test', '--reporter=list,json', ...options], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
    TROWEL_PORT: String(await freePort()),
  });
  return { code, report: existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null };
}

/** Builds and drives the browser. Gives whether some test failed and is to be asked once more, on a quiet machine. */
async function browserTests() {
  if (!chromium({ mayInstall: true })) {
    console.log(`FAILED browser tests: ${NO_CHROMIUM}`);
    failed += 1;
    return false;
  }
  if ((await run('build', 'vite', ['build', 'app', '--logLevel', 'warn'])) !== 0) {
    failed += 1;
    return false;
  }
  const { code, report } = await inBrowser('browser tests', []);
  passed += report?.stats.expected ?? 0;
  const again = report !== null && report.errors.length === 0 && report.stats.unexpected > 0;
  if (code !== 0 && !again) failed += 1;
  return again;
}

/** What failed beside everything else, alone: a machine with too much to do is slow, not wrong. What fails here has failed. */
async function browserTestsAlone() {
  const { code, report } = await inBrowser('browser tests that failed, alone', [
    '--last-failed',
    '--workers=1',
  ]);
  for (const title of titles(report?.suites)) console.log(`passed only at the second try, alone: ${title}`);
  passed += report?.stats.expected ?? 0;
  const unexpected = report === null ? 1 : report.stats.unexpected + report.errors.length;
  failed += unexpected + (code !== 0 && unexpected === 0 ? 1 : 0);
}

// Before the lanes: two of them must not ask apt at once. Without it the tests that need it say so.
compiler({ mayInstall: true });

// Two lanes on two cores: the checks that only read, and what builds and drives the browser.
const [unitAgain, again] = await Promise.all([
  (async () => {
    // What knows no page, what is one, and what drives one.
    for (const part of ['tsconfig.bare.json', 'app', 'e2e', 'bench'])
      await check(`types of ${part}`, NATIVE_TSC, ['-p', part]);
    await check('boundaries', 'depcruise', [
      'core/src',
      'standins/src',
      'gateway/src',
      'app/src',
      'e2e',
      '--config',
      '.dependency-cruiser.cjs',
    ]);
    await check('unused code', 'knip', []);
    await check('lint', 'oxlint', ['--type-aware']);
    await check('format', 'prettier', ['--check', '--log-level', 'warn', '.']);
    return unitTests();
  })(),
  browserTests(),
]);
if (unitAgain.length > 0) await unitTestsAlone(unitAgain);
if (again) await browserTestsAlone();

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
