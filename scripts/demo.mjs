// npm run demo: installs what is missing, builds, and serves the app on this machine with the sample garden ready to open; its boards, made up, report to the gateway, and its alerts go to a stand-in inbox.
import { join } from 'node:path';
import { bin, build, endWithParent, freePort, ready, root, tied, wantedPort } from './ready.mjs';

const args = process.argv.slice(2);
const port = await wantedPort('demo', args, 4860);
ready();
build();
endWithParent();
const mqttPort = await freePort();
const inboxPort = await freePort();
// Without a port of its own it lets the server read, and refuse, everything else that was typed.
const server = tied(
  bin('tsx'),
  [
    'gateway/src/main.ts',
    ...(args.length > 0 ? args : ['--port', String(port)]),
    ...(args.some((arg) => arg.startsWith('--mqtt-port')) ? [] : ['--mqtt-port', String(mqttPort)]),
    ...(args.some((arg) => arg.startsWith('--data')) ? [] : ['--data', join(root, 'gateway-data/demo')]),
  ],
  { stdio: 'inherit', env: { ...process.env, TROWEL_LOG: 'warn' } },
);
server.on('exit', (code) => process.exit(code ?? 0));
const address = `http://127.0.0.1:${port}`;
for (let tries = 0; tries < 600; tries += 1) {
  const answer = await fetch(`${address}/healthz`).catch(() => null);
  if (answer?.ok) break;
  await new Promise((done) => setTimeout(done, 100));
}
tied(
  bin('tsx'),
  [
    'standins/src/netBoard/main.ts',
    ...['--gateway', address, '--mqtt', `127.0.0.1:${mqttPort}`, '--inbox', String(inboxPort)],
  ],
  { stdio: ['ignore', 'ignore', 'inherit'] },
);
console.log(
  `  Alerts it sends:  http://127.0.0.1:${inboxPort}/ (a stand-in inbox; nothing leaves this machine)`,
);
