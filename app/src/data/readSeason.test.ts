import 'fake-indexeddb/auto';
import { expect, test } from 'vitest';
import { lineBetween } from '@plain-trowel/core/calibration/curveForTests';
import { FEEL_EDGES } from '@plain-trowel/core/quantity/bands';
import { seasonOf } from '@plain-trowel/core/records/seasonDays';
import { DAY_MS } from '@plain-trowel/core/records/series';
import { zoneClock } from '@plain-trowel/core/records/zoneClock';
import { openDb } from './db.ts';
import { readSeason } from './readSeason.ts';
import { addRecords } from './recordStore.ts';

const MAY = Date.UTC(2026, 4, 1);
test('a season over months is worked out from every reading, and names the days that cannot be read', async () => {
  const db = await openDb('season');
  await db.put('gardens', { id: 'g', revision: 1, doc: {} });
  const minute = (at: number) => MAY + at * 60_000;
  // Sixty days of minutes at 40 %, each hour with one minute at 100 %; one day is damaged.
  for (let day = 0; day < 60; day += 1) {
    const rows = Array.from({ length: 1440 }, (_, at) => ({
      timeMs: minute(day * 1440 + at),
      raw: at % 60 === 20 ? 100 : 40,
      flags: 0,
    }));
    await addRecords(db, 'g', new Map([['c', rows]]));
  }
  const damagedMs = MAY + 9 * DAY_MS;
  const stored = await db.get('blocks', ['g', 'c', damagedMs]);
  await db.put('blocks', { ...stored, rows: 3 } as never);
  const channels = [{ channelId: 'c', curve: lineBetween(0, 100), edges: FEEL_EDGES }];
  const span = { fromMs: MAY, toMs: MAY + 90 * DAY_MS };
  const read = (await readSeason(db, 'g', channels, span, 'UTC')).get('c');
  if (!read) throw new Error('not read');
  expect(read.damagedDays).toEqual([damagedMs]);
  const days = seasonOf(read.season, FEEL_EDGES, zoneClock('UTC'));
  const whole = days.filter(({ dayMs }) => dayMs !== damagedMs);
  expect(whole).toHaveLength(59);
  // 24 of 1,440 minutes at 100 %.
  for (const { mean } of whole) expect(mean).toBeCloseTo(40 + (60 * 24) / 1440, 6);
});
