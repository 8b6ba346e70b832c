import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { setLimits } from '@plain-trowel/core/garden/edits/plots';
import { marigoldHare, sampleHistory } from '@plain-trowel/standins/sample/marigoldHare';
import type { LinkMemory } from '../data/linkStore.ts';
import { GardenLink } from './gardenLink.ts';
import { StandInSource } from './standInSource.ts';

const T0 = Date.UTC(2026, 4, 1, 9);
const garden = marigoldHare(T0);
const { world } = sampleHistory(garden, T0);
const clocks = { nowMs: () => Date.now(), tickMs: () => Date.now() };

beforeEach(() => vi.useFakeTimers({ now: T0 }));
afterEach(() => vi.useRealTimers());

function opened(memory: LinkMemory, exclusive = true) {
  const kept: LinkMemory[] = [];
  const link = new GardenLink(
    garden,
    memory,
    exclusive,
    {
      addRecords: () => Promise.resolve({ beside: 0 }),
      saveMemory: (saved) => {
        kept.push(saved);
        return Promise.resolve();
      },
    },
    clocks,
  );
  return { link, kept };
}

const sourceOf = (link: GardenLink) => link.session.getSnapshot().source;

describe('a garden’s link', () => {
  test('goes on with the stand-ins as they were left', async () => {
    const { link } = opened({ world, openAtStart: true, alerts: {} });
    await vi.advanceTimersByTimeAsync(300);
    const source = sourceOf(link);
    expect(source).toBeInstanceOf(StandInSource);
    const root = (source as StandInSource).memory().pots.chilli?.rootMl ?? 0;
    expect(Math.abs(root - (world.pots.chilli?.rootMl ?? 0))).toBeLessThan(1);
    await link.dispose();
  });

  test('stays closed when it was closed, and remembers being closed', async () => {
    const { link, kept } = opened({ world, openAtStart: false, alerts: {} });
    await vi.advanceTimersByTimeAsync(300);
    expect(sourceOf(link)).toBeNull();
    await link.openStandIn();
    expect(kept.at(-1)?.openAtStart).toBe(true);
    await link.disconnect();
    expect(sourceOf(link)).toBeNull();
    expect(kept.at(-1)).toMatchObject({ openAtStart: false });
    expect(kept.at(-1)?.world).not.toBeNull();
    await link.dispose();
  });

  test('remembers the pots every few seconds and when it is left', async () => {
    const { link, kept } = opened({ world, openAtStart: true, alerts: {} });
    await vi.advanceTimersByTimeAsync(5200);
    const before = kept.length;
    expect(before).toBeGreaterThanOrEqual(1);
    await link.leave();
    expect(kept.length).toBe(before + 1);
    await link.dispose();
  });

  test('held by another tab, it neither opens nor overwrites what is remembered', async () => {
    const { link, kept } = opened({ world, openAtStart: true, alerts: {} }, false);
    await vi.advanceTimersByTimeAsync(6000);
    await link.dispose();
    expect(sourceOf(link)).toBeNull();
    expect(kept).toEqual([]);
  });

  test('hands new limits on to the boards', async () => {
    const { link } = opened({ world, openAtStart: true, alerts: {} });
    await vi.advanceTimersByTimeAsync(300);
    link.setGarden(setLimits(garden, 'chilli', { startTenths: 900, stopTenths: 950 }));
    await vi.advanceTimersByTimeAsync(1500);
    expect(link.session.getSnapshot().answers['line-roof']).toMatchObject({ reason: 'min-interval' });
    expect(link.session.getSnapshot().signals.chilli?.state).toBe('too-dry');
    await link.dispose();
  });
});
