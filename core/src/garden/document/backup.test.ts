import { expect, test } from 'vitest';
import { backupAbout, backupVersion, channelOfFile, isBackupFile, readingsFileOf } from './backup.ts';

test('a backup says what it is', () => {
  expect(backupVersion(backupAbout(1_772_346_605_000))).toBe(1);
  expect(backupAbout(1_772_346_605_000)).toContain('"madeAt": "2026-03-01T06:30:05.000Z"');
});

test.each(['', '{', '[]', 'null', '{"format":"other","version":1}', '{"format":"plain-trowel-backup"}'])(
  '%j does not say that it is one',
  (text) => expect(backupVersion(text)).toBeNull(),
);

test('only the names of a backup are taken from a zip', () => {
  expect(channelOfFile(readingsFileOf('channel-c2'))).toBe('channel-c2');
  expect(['garden.json', 'events.ndjson', 'boards.json', 'readings/c2.csv'].every(isBackupFile)).toBe(true);
  for (const name of ['../garden.json', 'readings/../x.csv', 'readings/C 2.csv', 'readings/c2.csv/x', 'x'])
    expect(isBackupFile(name)).toBe(false);
});
