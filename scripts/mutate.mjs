// npm run mutate -- ROOM [SHARE [SEED]]: changes lines of a room, drawn with a seed, and asks whether a test notices; of another share of its lines, or other ones, where that is given. Rooms: control, calibration, dosing, settling, sketch, wiring.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { mutantsOf, tryMutants } from './mutateWritten.mjs';
import { bin, ready, root } from './ready.mjs';

/** Which files are changed, which tests must notice, and how large a share of the lines is drawn, so that there are two hundred mutants or more. */
const ROOMS = {
  control: {
    files: ['control/engine', 'control/programs', 'control/conditions', 'control/host', 'control/contract'],
    tests: [
      'control/engine/engine.test.ts',
      'control/programs',
      'control/host',
      'control/contract',
      'control/codes.test.ts',
      'control/vectors/vectorFile.test.ts',
      'garden/bind',
    ],
    share: 0.25,
  },
  calibration: { files: ['calibration'], tests: ['calibration'], share: 0.1 },
  dosing: { files: ['dosing'], tests: ['dosing'], share: 0.6 },
  // Its loops are so long that switches in them, and counters, take minutes.
  settling: { files: ['settling'], tests: ['settling'], share: 0.3, written: true },
  // Its programs are compiled when its tests are collected, so each mutant is tried by all of them.
  sketch: {
    files: ['sketch'],
    tests: [
      'bus',
      'changes',
      'checklist',
      'cpp',
      'cppBus',
      'planner',
      'python',
      'senses',
      'settable',
      'talk',
      'wear',
    ].map((one) => `sketch/${one}.test.ts`),
    share: 0.05,
    wholeRuns: true,
  },
  wiring: { files: ['wiring/checks'], tests: ['wiring'], share: 0.12 },
};
const SEED = 20_261_127;

const [name = '', asked = '', seed = ''] = process.argv.slice(2);
const room = ROOMS[name];
if (!room) {
  console.error(`Say which room: ${Object.keys(ROOMS).join(', ')}.`);
  process.exit(2);
}
ready();
const share = Number(asked) > 0 ? Number(asked) : room.share;

let at = Number(seed) > 0 ? Number(seed) : SEED;
const draw = () => {
  at = (Math.imul(at, 1_664_525) + 1_013_904_223) >>> 0;
  return at / 4_294_967_296;
};
const sources = (folder) =>
  readdirSync(join(root, 'core/src', folder))
    .filter((file) => file.endsWith('.ts') && !/test\.ts$|ForTests/.test(file))
    .map((file) => `core/src/${folder}/${file}`);
const drawn = room.files.flatMap(sources).map((file) => [
  file,
  readFileSync(join(root, file), 'utf8')
    .split('\n')
    .flatMap((_, line) => (draw() < share ? [line] : [])),
]);
const tests = room.tests.map((one) =>
  one.endsWith('.ts') ? `core/src/${one}` : `core/src/${one}/**/*.test.ts`,
);

if (room.written) {
  const mutants = await mutantsOf(drawn);
  const unnoticed = await tryMutants(mutants, tests);
  const noticed = mutants.length - unnoticed.length;
  console.log(`${noticed} of ${mutants.length} noticed (${((100 * noticed) / mutants.length).toFixed(1)} %)`);
  process.exit(0);
}

mkdirSync(join(root, 'reports'), { recursive: true });
writeFileSync(
  join(root, 'reports/vitest.mutate.config.mjs'),
  `export default { root: process.cwd(), test: { include: ${JSON.stringify(tests)}, environment: 'node', isolate: false, testTimeout: 60_000 } };\n`,
);
writeFileSync(
  join(root, 'reports/stryker.config.json'),
  JSON.stringify({
    testRunner: 'vitest',
    vitest: { configFile: join(root, 'reports/vitest.mutate.config.mjs'), related: false },
    mutate: drawn.flatMap(([file, lines]) => lines.map((line) => `${file}:${line + 1}-${line + 1}`)),
    coverageAnalysis: room.wholeRuns ? 'off' : 'perTest',
    reporters: ['clear-text', 'json'],
    jsonReporter: { fileName: join(root, `reports/mutation-${name}.json`) },
    clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
    concurrency: 2,
    timeoutMS: 15_000,
    ignoreStatic: !room.wholeRuns,
    tempDirName: 'reports/stryker',
    thresholds: { high: 85, low: 75, break: null },
  }),
);
const done = spawnSync(bin('stryker'), ['run', 'reports/stryker.config.json'], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
