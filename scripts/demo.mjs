// npm run demo: installs what is missing, builds, and serves the app on this machine with the sample garden ready to open.
import { spawn } from 'node:child_process';
import { bin, build, ready, root } from './ready.mjs';

ready();
build();
const server = spawn(bin('tsx'), ['gateway/src/main.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
