import { spawn } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { newFolder } from './mailboxForTests.ts';

const STRACE = '/usr/bin/strace';

/** What the writer asks of the system, call by call. */
async function callsOf(folder: string): Promise<readonly string[]> {
  const log = join(folder, 'calls.txt');
  const child = spawn(
    STRACE,
    [
      '-f',
      '-s',
      '16',
      '-e',
      'trace=openat,fdatasync,pwrite64,write',
      '-o',
      log,
      process.execPath,
      '--import',
      'tsx',
      join(import.meta.dirname, 'writerForTests.ts'),
      folder,
      '0',
      '1',
    ],
    { stdio: ['ignore', 'pipe', 'ignore'], detached: true },
  );
  let acknowledged = 0;
  await new Promise<void>((done) => {
    child.stdout.on('data', (part: Buffer) => {
      acknowledged += part.toString().split('\n').length - 1;
      if (acknowledged > 100) process.kill(-(child.pid ?? 0), 'SIGKILL');
    });
    child.once('close', () => done());
  });
  return readFileSync(log, 'latin1').split('\n');
}

// The long run sees to it that strace is there; elsewhere this one waits for a machine that has it.
test.skipIf(!existsSync(STRACE))(
  'what is acknowledged is on disk: the pages are made sure of, and the page that makes them count is written through, before the number is said',
  async () => {
    const calls = await callsOf(newFolder());
    const through = calls.findLast((call) => /data\.mdb".*O_DSYNC/.test(call));
    const throughFd = /= (\d+)$/.exec(through ?? '')?.[1];
    expect(throughFd).toBeDefined();
    // One letter for each call of interest: pages made sure of, made to count, acknowledged.
    const story = calls
      .map((call) => {
        // Where another thread spoke in between, a call is told in two parts, the second with what came of it.
        if (/ fdatasync(\(\d+| resumed>)\) += 0/.test(call)) return 's';
        if (call.includes(` pwrite64(${throughFd},`)) return 'c';
        return /write\(1, "\d+\\n"/.test(call) ? 'A' : '';
      })
      .join('');
    const acknowledged = story.match(/A/g)?.length ?? 0;
    expect(acknowledged).toBeGreaterThan(50);
    expect(story.match(/sc(?=A)/g)).toHaveLength(acknowledged);
  },
);
