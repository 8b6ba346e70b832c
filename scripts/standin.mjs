// npm run standin:bus-probe -- --help: a made-up probe on a bus, as a process that real clients can talk to. Ended, it takes its server along.
import { bin, endWithParent, ready, root, tied } from './ready.mjs';

ready();
endWithParent();
tied(bin('tsx'), [`${root}/standins/src/busProbe/main.ts`, ...process.argv.slice(2)], {
  stdio: 'inherit',
}).on('close', (code) => process.exit(code ?? 1));
