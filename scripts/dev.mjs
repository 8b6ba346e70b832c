// npm run dev: the app with every change shown at once, for those who work on it.
import { bin, endWithParent, ready, tied, wantedPort } from './ready.mjs';

const port = await wantedPort('dev', process.argv.slice(2), 5173);
ready();
endWithParent();
const server = tied(bin('vite'), ['app', '--host', '127.0.0.1', '--port', String(port), '--strictPort'], {
  stdio: 'inherit',
});
server.on('exit', (code) => process.exit(code ?? 0));
