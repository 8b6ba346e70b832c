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

/** Adds what a report counted; a report that is missing, or a red exit with nothing red in it, is a failure of its own. */
function count(code, file, read) {
  const counted = existsSync(file) ? read(JSON.parse(readFileSync(file, 'utf8'))) : { passed: 0, failed: 1 };
  passed += counted.passed;
  failed += counted.failed + (code !== 0 && counted.failed === 0 ? 1 : 0);
}

async function unitTests() {
  const file = join(reports, 'unit.json');
  const code = await run('unit tests', 'vitest', [
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
  ]);
  count(code, file, (report) => ({
    passed: report.numPassedTests,
    failed:
      report.numFailedTests +
      report.testResults.filter((suite) => suite.status === 'failed' && suite.assertionResults.length === 0)
        .length,
  }));
}

const flaky = (suites = []) =>
  suites.flatMap((suite) => [
    ...flaky(suite.suites),
    ...suite.specs.flatMap((spec) =>
      spec.tests.some((one) => one.status === 'flaky') ? [`${spec.file}: ${spec.title}`] : [],
    ),
  ]);

async function browserTests() {
  if (!chromium({ mayInstall: true })) {
    console.log(`FAILED browser tests: ${NO_CHROMIUM}`);
    failed += 1;
    return;
  }
  if ((await run('build', 'vite', ['build', 'app', '--logLevel', 'warn'])) !== 0) {
    failed += 1;
    return;
  }
  const file = join(reports, 'browser.json');
  const code = await run('browser tests', 'playwright', ['test', '--reporter=list,json'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
    TROWEL_PORT: String(await freePort()),
  });
  count(code, file, (report) => {
    for (const title of flaky(report.suites)) console.log(`passed only at the second try: ${title}`);
    return {
      passed: report.stats.expected + report.stats.flaky,
      failed: report.stats.unexpected + report.errors.length,
    };
  });
}

// Before the lanes: two of them must not ask apt at once. Without it the tests that need it say so.
compiler({ mayInstall: true });

// Two lanes on two cores: the checks that only read, and what builds and drives the browser.
await Promise.all([
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
    await unitTests();
  })(),
  browserTests(),
]);

console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
