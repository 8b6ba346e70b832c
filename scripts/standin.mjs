// npm run standin:bus-probe -- --help, npm run standin:net-boards: a made-up probe on a bus, or the sample garden's boards on a network, as a process that real clients can talk to.
import { bin, endWithParent, ready, root, tied } from './ready.mjs';

const [which, ...args] = process.argv.slice(2);
ready();
endWithParent();
tied(bin('tsx'), [`${root}/standins/src/${which}/main.ts`, ...args], {
  stdio: 'inherit',
}).on('close', (code) => process.exit(code ?? 1));
