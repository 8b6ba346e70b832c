import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { mkdirSync, mkdtempSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { freePort, nodeProblem, packagesAreStale, portIsFree, portOf } from './ready.mjs';

test.each(['20.19.0', '20.20.2', '22.0.0'])('Node %s will do', (version) => {
  expect(nodeProblem(version)).toBeNull();
});

test.each(['18.20.1', '20.18.3'])('Node %s is told so in one sentence', (version) => {
  expect(nodeProblem(version)).toContain(`this is Node ${version}`);
});

test('packages are stale when missing or older than the lock file', () => {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
  writeFileSync(join(folder, 'package-lock.json'), '{}');
  expect(packagesAreStale(folder)).toBe(true);
  mkdirSync(join(folder, 'node_modules'));
  writeFileSync(join(folder, 'node_modules/.package-lock.json'), '{}');
  utimesSync(join(folder, 'package-lock.json'), 1000, 1000);
  expect(packagesAreStale(folder)).toBe(false);
  utimesSync(join(folder, 'node_modules/.package-lock.json'), 900, 900);
  expect(packagesAreStale(folder)).toBe(true);
});

test.each([
  [[], {}, 4860],
  [['--port', '5000'], {}, 5000],
  [['--port=5001'], {}, 5001],
  [[], { PORT: '5002' }, 5002],
  [['--port', 'soon'], {}, null],
  [['--port'], {}, null],
  [['--port', '70000'], {}, null],
])('%j with %j asks for port %j', (args, environment, port) => {
  expect(portOf(args, 4860, environment)).toBe(port);
});

test('a port is free until somebody listens on it', async () => {
  const port = await freePort();
  expect(await portIsFree(port)).toBe(true);
  const other = createServer().listen(port, '127.0.0.1');
  await new Promise((ready) => other.once('listening', ready));
  expect(await portIsFree(port)).toBe(false);
  other.close();
});

const isAlive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

test.each(['SIGKILL', 'SIGTERM'])(
  'what was started ends with the one who started it, ended by %s',
  async (signal) => {
    const script = `
    import { endWithParent, tied } from ${JSON.stringify(join(import.meta.dirname, 'ready.mjs'))};
    endWithParent();
    const inner = 'console.log(process.pid); setInterval(() => {}, 1000)';
    tied(process.execPath, ['-e', inner], { stdio: 'inherit' });
  `;
    const starter = spawn(process.execPath, ['--input-type=module', '-e', script]);
    const pid = await new Promise((tell) => starter.stdout.once('data', (part) => tell(Number(part))));
    expect(isAlive(pid)).toBe(true);
    starter.kill(signal);
    await expect.poll(() => isAlive(pid), { timeout: 60_000 }).toBe(false);
  },
  240_000,
);
