import { expect, test } from 'vitest';
import { packDay } from './packDay.ts';
import { StorageUse } from './storageUse.ts';

const day = (dayMs: number, rows: number) => ({
  channelId: 'c',
  dayMs,
  offsetsMs: Uint32Array.from({ length: rows }, (_, at) => at * 60_000),
  raw: Float64Array.from({ length: rows }, (_, at) => 1500 + (at % 200)),
  flags: new Uint8Array(rows),
});

test('readings and bytes by year, newest first; what is no day is left out', () => {
  const use = new StorageUse();
  use.add(packDay(day(Date.UTC(2025, 11, 31), 100)));
  use.add(day(Date.UTC(2026, 0, 1), 50));
  use.add(packDay(day(Date.UTC(2026, 0, 2), 10)));
  use.add({ dayMs: 5 });
  use.add(null);
  // Even steps and flags take 8 bytes each, values of less than 256 counts apart one byte.
  expect(use.byYear()).toEqual([
    { year: 2026, readings: 60, bytes: 50 + 16 + 10 + 16 },
    { year: 2025, readings: 100, bytes: 116 },
  ]);
});
