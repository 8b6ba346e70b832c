import { describe, expect, test } from 'vitest';
import { receivedAt } from '@plain-trowel/core/faults/wrongSpeed';
import { readBenchRecording } from '@plain-trowel/core/signal/benchRecording';
import { StreamBuffer } from '@plain-trowel/core/signal/streamBuffer';
import { BenchRecorder } from './benchRecorder.ts';
import { ChannelWatch } from '@plain-trowel/core/live/channelWatch';
import { LinesWatch } from './linesWatch.ts';

const scale = { lowCounts: 20, highCounts: 4075, spanCounts: 1800, references: null };
const filled = (value: (at: number) => number, count: number) => {
  const watch = new ChannelWatch(scale, { everyS: 1, phaseS: 0 });
  const buffer = new StreamBuffer();
  for (let at = 0; at < count; at += 1) {
    // Whole steps of noise, never twice the same in a row.
    const counts = value(at) + ((at * 7) % 5) - 2;
    buffer.push(at * 500, counts);
    watch.push(at * 500, counts);
  }
  return { watch, buffer };
};

describe('the watch of a channel', () => {
  test('says that a calm stream has stopped moving and nothing of its faults', () => {
    const { watch, buffer } = filled(() => 2100, 600);
    watch.look(buffer, 10_000);
    expect(watch.settling.verdict).toBe('stopped');
    expect(watch.faults).toEqual([]);
  });
  test('a leap is a fault, unless a hand is known to have been at work', () => {
    const leap = (at: number) => (at < 100 ? 2100 : 1700);
    const { watch, buffer } = filled(leap, 200);
    watch.look(buffer, 10_000);
    expect(watch.faults.map((one) => one.kind)).toEqual(['leap']);
    watch.handledAt(49_500);
    watch.look(buffer, 10_000);
    expect(watch.faults).toEqual([]);
  });
  test('is calm since the last thing a hand did, and since a leap that nobody announced', () => {
    const { watch } = filled(() => 2100, 40);
    expect(watch.calmSinceMs).toBe(0);
    watch.handledAt(15_000);
    expect(watch.calmSinceMs).toBe(15_000);
    const leapt = filled(() => 2100, 200).watch;
    for (let at = 200; at < 206; at += 1) leapt.push(at * 500, 1500);
    const sinceMs = leapt.calmSinceMs;
    expect(sinceMs === null || sinceMs >= 99_500).toBe(true);
  });
  test('is moving after a hand or a leap until it has stopped, and an hour later it is the soil that moves', () => {
    // Towards 1700 with a time constant of ten minutes, from the 100th reading on.
    const creep = (at: number) => (at < 100 ? 2100 : 1700 + 400 * Math.exp(-(at - 100) / 1200));
    const { watch } = filled(creep, 500);
    expect(watch.isMoving(250_000)).toBe(true);
    expect(watch.isMoving(250_000 + 3_600_000)).toBe(false);
    expect(filled(() => 2100, 600).watch.isMoving(300_000)).toBe(false);
  });
  test('new references change the scale it is watched on', () => {
    const { watch, buffer } = filled(() => 2100, 400);
    const before = watch.settling.toleranceCounts;
    watch.setScale({ ...scale, spanCounts: 900 }, buffer);
    expect(watch.settling.toleranceCounts).toBeCloseTo(before / 2, 9);
  });
});

describe('the watch of the lines', () => {
  test('is content while lines come, and tells silence with what came before', () => {
    const lines = new LinesWatch(0);
    expect(lines.fault(4000)).toBeNull();
    expect(lines.fault(6000)).toEqual({ kind: 'silence', forS: 6, before: 'never' });
    for (let at = 0; at < 5; at += 1) lines.line(6000 + at * 500, false);
    expect(lines.fault(8500)).toBeNull();
    expect(lines.fault(15_000)).toMatchObject({ kind: 'silence', before: 'lines' });
  });
  test('keeps the newest bytes, and names the speed that they were sent at', () => {
    const lines = new LinesWatch(0);
    const bytes = Uint8Array.from(receivedAt('c2=1512 l1=2240\r\n'.repeat(40), 9600, 57_600));
    for (let at = 0; at < bytes.length; at += 50) lines.bytes(bytes.slice(at, at + 50), 57_600);
    for (let at = 0; at < 6; at += 1) lines.line(at * 100, true);
    expect(lines.fault(700)).toEqual({ kind: 'garbage', shareFrac: 1, likelyBaud: 9600 });
  });
});

const T0 = Date.UTC(2026, 4, 1, 10);

test('a bench session is written down between start and stop, and only then', () => {
  const recorder = new BenchRecorder('bench', null);
  const line = (text: string, atMs: number) => ({ boardId: 'roof', text, atMs });
  recorder.take(line('before', T0));
  expect(recorder.stop()).toBeNull();
  recorder.start({ garden: 'G', source: 'S', startedAt: '2026-05-01T10:00:00Z', simulated: true }, T0);
  recorder.take(line('c2=1', T0 + 3));
  recorder.take(line('\u0001garbage', T0 + 4));
  expect(recorder.lines).toBe(2);
  const read = readBenchRecording(recorder.stop() ?? '');
  expect(read.ok && read.value.lines.map((one) => one.text)).toEqual(['c2=1', '\u0001garbage']);
  expect(recorder.lines).toBeNull();
});
