// npm run demo: installs what is missing, builds, and serves the app on this machine with the sample garden ready to open.
import { bin, build, endWithParent, ready, tied, wantedPort } from './ready.mjs';

const port = await wantedPort('demo', process.argv.slice(2), 4860);
ready();
build();
endWithParent();
// Without a port of its own it lets the server read, and refuse, everything else that was typed.
const args = process.argv.slice(2);
const server = tied(
  bin('tsx'),
  ['gateway/src/main.ts', ...(args.length > 0 ? args : ['--port', String(port)])],
  { stdio: 'inherit' },
);
server.on('exit', (code) => process.exit(code ?? 0));
