// npm run gateway:export and gateway:verify: what lies in the gateway's mailbox as files, and whether all of it can be read.
import { spawnSync } from 'node:child_process';
import { bin, ready, root } from './ready.mjs';

ready();
const done = spawnSync(bin('tsx'), ['gateway/src/tools/main.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
