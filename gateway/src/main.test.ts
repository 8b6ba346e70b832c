import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';

/** Runs the server's command and gives what it printed and its exit code. */
function run(args: readonly string[]): Promise<{ out: string; code: number | null }> {
  return new Promise((done) => {
    const child = spawn(process.execPath, ['--import', 'tsx', join(import.meta.dirname, 'main.ts'), ...args]);
    let out = '';
    child.stdout.on('data', (part: Buffer) => (out += part.toString()));
    child.stderr.on('data', (part: Buffer) => (out += part.toString()));
    child.on('close', (code) => done({ out: out.trim(), code }));
  });
}

test('an option nobody knows is one clear sentence', async () => {
  expect(await run(['--prot', '5'])).toEqual({
    out: '"--prot" is not an option here. There are: --port N, --host ADDRESS, --name NAME, --data FOLDER, --mqtt-port N, --keep-mb N, --broker URL, --take GARDEN, --cert FILE, --key FILE, --set-passphrase.',
    code: 2,
  });
});

test('a port in use is one clear sentence, and nothing claims to be ready', async () => {
  const other = http.createServer().listen(0, '127.0.0.1');
  await new Promise((ready) => other.once('listening', ready));
  const { port } = other.address() as AddressInfo;
  const { out, code } = await run([
    '--port',
    String(port),
    '--data',
    mkdtempSync(join(tmpdir(), 'trowel-main-')),
  ]);
  other.close();
  // Without a built app the sentence is about that instead; both are one line and an exit that is not 0.
  expect(out).toMatch(
    new RegExp(
      `^(Port ${port} is in use\\. Stop the other program, or choose another port: .*|The app has not been built yet\\. .*)$`,
    ),
  );
  expect(code).not.toBe(0);
});
