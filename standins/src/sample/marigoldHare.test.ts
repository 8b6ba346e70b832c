import { expect, test } from 'vitest';
import { eventSchema } from '@plain-trowel/core/records/event';
import { marigoldHare, sampleHistory } from './marigoldHare.ts';

const NOW = Date.UTC(2026, 4, 1, 15, 20);
const garden = marigoldHare(NOW);
const history = sampleHistory(garden, NOW);

test('three days of readings for everything that the boards print, five minutes apart', () => {
  expect([...history.readings.keys()].sort()).toEqual([
    'channel-air',
    'channel-bat',
    'channel-c2',
    'channel-l1',
    'channel-m1',
    'channel-s1',
    'channel-t1',
    'channel-tank',
  ]);
  for (const readings of history.readings.values()) {
    expect(readings.length).toBeGreaterThan(860);
    expect(readings.every((reading) => reading.flags === 1)).toBe(true);
  }
});

test('the chilli crate was watered at least twice, never longer than its maximum run', () => {
  const stops = history.events.filter((event) => event.kind === 'pump-stopped');
  expect(stops.length).toBeGreaterThanOrEqual(2);
  for (const stop of stops) expect(stop.ranS).toBeLessThanOrEqual(15);
});

test('the mint probe reads full scale since its plug came out, and the log says so', () => {
  const mint = history.readings.get('channel-m1') ?? [];
  expect(mint.at(-1)?.raw).toBe(1023);
  expect(mint[0]?.raw).toBeLessThan(1000);
  expect(history.events).toContainEqual(
    expect.objectContaining({ kind: 'alert', alert: 'probe-fault', plotId: 'mint', phase: 'raised' }),
  );
});

test('every event fits the schema that storage checks it with', () => {
  expect(history.events.length).toBeGreaterThan(0);
  for (const event of history.events) expect(eventSchema.safeParse(event).success).toBe(true);
});

test('opened at the same moment it is the same garden with the same past', () => {
  expect(sampleHistory(marigoldHare(NOW), NOW)).toEqual(history);
});
