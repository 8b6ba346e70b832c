// npm run bench: what things cost on this machine. With -- --ten-minutes the strip is watched for real.
import { spawnSync } from 'node:child_process';
import { bin, build, chromium, NO_CHROMIUM, ready, root } from './ready.mjs';

ready();
if (!chromium({ mayInstall: false })) {
  console.error(NO_CHROMIUM);
  process.exit(2);
}
build();
const done = spawnSync(bin('tsx'), ['bench/run.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(done.status ?? 1);
