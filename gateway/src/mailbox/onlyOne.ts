/** One gateway for one folder: what two of them keep in mind would not be the same. */
import { unlinkSync } from 'node:fs';
import { connect, createServer, type Server } from 'node:net';
import { join } from 'node:path';

/** Holds a folder for as long as this process lives, however it ends. @returns null where another process holds it */
export async function holdFolder(folder: string): Promise<Server | null> {
  const path =
    process.platform === 'win32'
      ? `\\\\.\\pipe\\trowel-${Buffer.from(folder).toString('hex').slice(-60)}`
      : join(folder, 'in-use.sock');
  const first = await listen(path);
  if (first || (await answers(path))) return first;
  // Left behind by one that was killed.
  unlinkSync(path);
  return listen(path);
}

const listen = (path: string): Promise<Server | null> =>
  new Promise((tell) => {
    const server = createServer((socket) => socket.destroy());
    server.once('error', () => tell(null));
    server.listen(path, () => {
      server.unref();
      tell(server);
    });
  });

const answers = (path: string): Promise<boolean> =>
  new Promise((tell) => {
    const socket = connect(path);
    socket.once('error', () => tell(false));
    socket.once('connect', () => {
      socket.destroy();
      tell(true);
    });
  });
