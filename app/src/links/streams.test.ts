import { expect, test } from 'vitest';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { MOST_NAMES, Streams } from '@plain-trowel/core/live/streams';

const garden = marigoldHare(Date.UTC(2026, 4, 1));
const c2 = garden.channels.find((one) => one.id === 'channel-c2');
if (!c2) throw new Error('no channel');

test('a name that belongs to a channel keeps its last minutes, another its last value', () => {
  const streams = new Streams(garden);
  expect(streams.take(c2.boardId, 1000, { name: c2.streamName, value: 1512 })).toBe(c2);
  expect(streams.take(c2.boardId, 1000, { name: 'noise', value: 3 })).toBeNull();
  expect(streams.bufferOf(c2)?.last()).toEqual({ timeMs: 1000, value: 1512 });
  expect(streams.all().map((one) => [one.name, one.last])).toEqual([
    [c2.streamName, 1512],
    ['noise', 3],
  ]);
});

test('once somebody says what a name is, what it said before belongs to it', () => {
  const streams = new Streams(garden);
  for (let at = 0; at < 300; at += 1) streams.take('roof', at * 1000, { name: 'noise', value: at });
  const channel = { ...c2, boardId: 'roof', streamName: 'noise' };
  streams.setGarden({ ...garden, channels: [channel] });
  expect(streams.bufferOf(channel)?.last()).toEqual({ timeMs: 299_000, value: 299 });
  streams.take('roof', 300_000, { name: 'noise', value: 300 });
  expect(streams.bufferOf(channel)?.length).toBe(241);
  for (let at = 301; at < 2000; at += 1) streams.take('roof', at * 1000, { name: 'noise', value: at });
  expect(streams.bufferOf(channel)?.length).toBe(1940);
});

test('twenty thousand names cost no more than two hundred; the rest are counted, and a channel is still heard', () => {
  const streams = new Streams(garden);
  for (let at = 0; at < 20_000; at += 1) streams.take('roof', at, { name: `n${at}`, value: at });
  expect(streams.all()).toHaveLength(MOST_NAMES);
  expect(streams.more).toBe(10_000);
  expect(streams.take(c2.boardId, 5, { name: c2.streamName, value: 1512 })).toBe(c2);
});
