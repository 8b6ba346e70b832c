// npm run standin:bus-probe -- --help: a made-up probe on a bus, as a process that real clients can talk to.
import { spawnSync } from 'node:child_process';
import { bin, ready, root } from './ready.mjs';

ready();
const done = spawnSync(bin('tsx'), [`${root}/standins/src/busProbe/main.ts`, ...process.argv.slice(2)], {
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
