// npm start: the gateway by itself, for a machine that is left running. Builds the app where that was never done, and hands on whatever is typed.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { bin, build, endWithParent, ready, root, tied } from './ready.mjs';

ready();
if (!existsSync(join(root, 'app/dist/index.html'))) build();
const args = process.argv.slice(2);
if (args.includes('--set-passphrase')) {
  // It asks at the terminal, which only a process of this one's group may read.
  const asked = spawnSync(bin('tsx'), ['gateway/src/main.ts', ...args], { cwd: root, stdio: 'inherit' });
  process.exit(asked.status ?? 1);
}
endWithParent();
const server = tied(bin('tsx'), ['gateway/src/main.ts', ...args], { stdio: 'inherit' });
server.on('exit', (code) => process.exit(code ?? 0));
