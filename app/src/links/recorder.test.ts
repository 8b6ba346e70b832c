import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import type { Reading } from '@plain-trowel/core/records/series';
import { Recorder } from './recorder.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const at = (timeMs: number): Reading => ({ timeMs, raw: timeMs / 1000, flags: 0 });
const note: GardenEvent = { kind: 'note', atMs: 500, plotId: null, simulated: false, text: 'watered' };

function recording(fails = 0) {
  const saved: number[] = [];
  const events: GardenEvent[] = [];
  const reports: unknown[] = [];
  let failures = fails;
  const recorder = new Recorder(
    (readings, told) => {
      if (failures-- > 0) return Promise.reject(new Error('disk full'));
      for (const list of readings.values()) saved.push(...list.map((one) => one.timeMs));
      events.push(...told);
      return Promise.resolve();
    },
    (outcome) => reports.push(outcome),
  );
  return { recorder, saved, events, reports };
}

test('one reading an interval is kept, the first at once', async () => {
  const { recorder, saved } = recording();
  for (let ms = 0; ms <= 25_000; ms += 500) recorder.offer('c', at(ms), 10);
  await recorder.flush();
  expect(saved).toEqual([0, 10_000, 20_000]);
});

test('channels are thinned on their own', async () => {
  const { recorder, saved } = recording();
  recorder.offer('a', at(0), 10);
  recorder.offer('b', at(1000), 10);
  await recorder.flush();
  expect(saved).toEqual([0, 1000]);
});

test('a clock set back does not stop the record', async () => {
  const { recorder, saved } = recording();
  recorder.offer('c', at(60_000), 10);
  recorder.offer('c', at(5000), 10);
  await recorder.flush();
  expect(saved).toEqual([60_000, 5000]);
});

test('it writes by itself within two seconds and says up to when', async () => {
  const { recorder, saved, events, reports } = recording();
  recorder.offer('c', at(700), 10);
  recorder.note([note]);
  await vi.advanceTimersByTimeAsync(2000);
  expect(saved).toEqual([700]);
  expect(events).toEqual([note]);
  expect(reports).toEqual([{ savedToMs: 700 }]);
});

test('what could not be written waits, in order, and is tried again', async () => {
  const { recorder, saved, events, reports } = recording(1);
  recorder.offer('c', at(0), 10);
  recorder.note([note]);
  await recorder.flush();
  expect(reports).toEqual([{ problem: expect.stringContaining('could not write') as string }]);
  recorder.offer('c', at(10_000), 10);
  await vi.advanceTimersByTimeAsync(2000);
  expect(saved).toEqual([0, 10_000]);
  expect(events).toEqual([note]);
});

test('nothing to write writes nothing', async () => {
  const { recorder, reports } = recording();
  await recorder.flush();
  expect(reports).toEqual([]);
});
