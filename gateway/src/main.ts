import { existsSync } from 'node:fs';
import http from 'node:http';
import { join } from 'node:path';
import { createServer } from './server.ts';
import { readOptions } from './options.ts';

const options = readOptions(process.argv.slice(2), process.env);
if (!options.ok) {
  console.error(options.issue);
  process.exit(2);
}
const { port } = options.value;
const appFolder = join(import.meta.dirname, '../../app/dist');
if (!existsSync(join(appFolder, 'index.html'))) {
  console.error('The app has not been built yet. Run "npm run demo", which builds it first.');
  process.exit(2);
}

const server = http.createServer(createServer(appFolder));
server.once('listening', () => {
  const address = `http://127.0.0.1:${port}`;
  console.log(
    `Plain Trowel is ready.\n  Sample garden:    ${address}/sample\n  Your own gardens: ${address}/\nStop it with Ctrl+C.`,
  );
});
server.once('error', (error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is in use. Stop the other program, or choose another port: npm run demo -- --port ${port + 1}`
      : `The server could not start: ${error.message}`,
  );
  process.exit(1);
});
server.listen(port, '127.0.0.1');
