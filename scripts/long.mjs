// npm run test:long: what takes too long for every change. The React compiler's rules, the engine's laws over ten thousand worlds and days, ten thousand hostile files a parser, three hundred sound
// wirings spoilt, two thousand random gardens wired, random edits by the thousand, the false "steady" of every family of streams, the coverage of the ± printed, and two hundred rounds of storage torture in a real browser.
import {
  broker,
  bin,
  build,
  chromium,
  compiler,
  endWithParent,
  freePort,
  NO_CHROMIUM,
  ready,
  tied,
  tracer,
} from './ready.mjs';

ready();
endWithParent();
compiler({ mayInstall: true });
if (!tracer({ mayInstall: true })) {
  console.error('The tests of the gateway’s store need strace. Install it with: apt-get install strace');
  process.exit(2);
}
if (!broker({ mayInstall: true })) {
  console.error(
    'The tests of the gateway need a broker. Install it with: apt-get install mosquitto mosquitto-clients',
  );
  process.exit(2);
}
if (!chromium({ mayInstall: true })) {
  console.error(NO_CHROMIUM);
  process.exit(2);
}
build();
const env = { ...process.env, TROWEL_LONG: '1', TROWEL_PORT: String(await freePort()) };
const run = (command, args) =>
  new Promise((done) =>
    tied(bin(command), args, { stdio: 'inherit', env }).on('close', (code) => done(code ?? 1)),
  );

const codes = [
  await run('oxlint', ['-c', '.oxlintrc.react.json', 'app/src']),
  await run('vitest', [
    'run',
    'core/src/garden/bind/admit.test.ts',
    'app/src/data/hostileFiles.test.ts',
    'core/src/control/engine/engine.properties.test.ts',
    'core/src/control/vectors',
    'core/src/sketch',
    'standins/src/interpreter',
    'bench/wiring',
    'bench/settling.test.ts',
    'bench/calibration',
    'gateway/src',
  ]),
  await run('playwright', ['test', 'e2e/torture.spec.ts', '--reporter=list']),
];
process.exit(codes.every((code) => code === 0) ? 0 : 1);
