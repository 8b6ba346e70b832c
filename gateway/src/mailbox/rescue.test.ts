import { spawn } from 'node:child_process';
import { existsSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { newFolder, newMailbox, NOON, report } from './mailboxForTests.ts';
import { inspectFolder, rescueIfDamaged } from './rescue.ts';

/** A mailbox of so many entries, closed. */
async function filled(count: number): Promise<string> {
  const folder = newFolder();
  const mailbox = newMailbox(1e9, folder);
  const puts = Array.from({ length: count }, (_, seq) =>
    mailbox.put('hare', report(seq), NOON + seq * 60_000),
  );
  await Promise.all(puts);
  await mailbox.close();
  return folder;
}
const fileOf = (folder: string) => join(folder, 'data.mdb');

test('a sound store is left as it is', async () => {
  const folder = await filled(20);
  expect(await inspectFolder(folder)).toEqual({ gardens: 1, entries: 20, damaged: 0, missing: 0 });
  expect(await rescueIfDamaged(folder, NOON)).toBeNull();
  expect(await rescueIfDamaged(newFolder(), NOON)).toBeNull();
});

describe('a damaged store is put aside, and what can be read of it goes on', () => {
  test.each([
    ['cut off', (file: string) => truncateSync(file, Math.floor(readFileSync(file).length * 0.6)), 0.3],
    [
      'without its first pages',
      (file: string) => writeFileSync(file, readFileSync(file).fill(0, 0, 8192)),
      1,
    ],
    [
      'with a number changed',
      (file: string) => {
        const bytes = readFileSync(file);
        for (let at = bytes.indexOf('"v":1700'); at >= 0; at = bytes.indexOf('"v":1700', at + 1))
          bytes[at + 4] = 57;
        writeFileSync(file, bytes);
      },
      0.99,
    ],
    ['of something else', (file: string) => writeFileSync(file, 'soil '.repeat(10_000)), 0],
  ])('%s', async (_, spoil, leastShare) => {
    const folder = await filled(400);
    spoil(fileOf(folder));
    const spoilt = readFileSync(fileOf(folder));
    const rescue = await rescueIfDamaged(folder, NOON);
    expect(rescue?.entries).toBeGreaterThanOrEqual(leastShare * 400);
    expect(readFileSync(join(rescue?.aside ?? '', 'data.mdb')).equals(spoilt)).toBe(true);
    // What goes on is true, and is taken for sound from now on.
    const mailbox = newMailbox(1e9, folder);
    const entries = mailbox.after('hare', 0, 1000);
    expect(entries).toHaveLength(rescue?.entries ?? -1);
    for (const { n, seq, readings } of entries) expect([n, readings[0]?.v]).toEqual([seq + 1, 1500 + seq]);
    // A report that was rescued is known again; one that was lost is news.
    const [first] = entries;
    if (first)
      expect(await mailbox.put('hare', report(first.seq), first.receivedMs)).toMatchObject({
        kind: 'again',
      });
    expect((await mailbox.put('hare', report(1000), NOON)).kind).toBe('kept');
    await mailbox.close();
    expect(await rescueIfDamaged(folder, NOON)).toBeNull();
  });
  test('under another name, so that nobody takes its numbers for the old ones', async () => {
    const folder = await filled(5);
    const before = newMailbox(1e9, folder);
    const old = before.store.id;
    await before.close();
    truncateSync(fileOf(folder), 30_000);
    await rescueIfDamaged(folder, NOON);
    const after = newMailbox(1e9, folder);
    expect(after.store.id).not.toBe(old);
    await after.close();
  });
});

test('killed at any moment, it has every report that was acknowledged, once', async () => {
  const folder = newFolder();
  const acknowledged: number[] = [];
  for (let round = 0; round < 3; round += 1) {
    const child = spawn(
      process.execPath,
      [
        '--import',
        'tsx',
        join(import.meta.dirname, 'writerForTests.ts'),
        folder,
        String(acknowledged.length),
      ],
      { stdio: ['ignore', 'pipe', 'ignore'] },
    );
    let isKilled = false;
    child.stdout.on('data', (part: Buffer) => {
      for (const line of part.toString().split('\n')) if (line !== '') acknowledged.push(Number(line));
      if (isKilled || acknowledged.length < (round + 1) * 300) return;
      isKilled = true;
      child.kill('SIGKILL');
    });
    await new Promise((done) => child.once('close', done));
  }
  expect(await inspectFolder(folder)).toMatchObject({ damaged: 0, missing: 0 });
  const mailbox = newMailbox(1e9, folder);
  const seqs = mailbox.after('hare', 0, 1e6).map(({ seq }) => seq);
  expect(new Set(seqs).size).toBe(seqs.length);
  const there = new Set(seqs);
  expect(acknowledged.length).toBeGreaterThan(900);
  expect(acknowledged.filter((seq) => !there.has(seq))).toEqual([]);
  await mailbox.close();
  expect(existsSync(join(folder, 'data.mdb'))).toBe(true);
});
