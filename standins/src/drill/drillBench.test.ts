import { describe, expect, test } from 'vitest';
import { judgeDrill } from '@plain-trowel/core/calibration/drill';
import {
  captureDrill,
  connectorIsWet,
  drips,
  feedDrill,
  moveDrill,
  newDrill,
  pourDrill,
  readDrill,
  stepDrill,
  wipeConnector,
  type DrillBench,
} from './drillBench.ts';

const wait = (bench: DrillBench, seconds: number): DrillBench => {
  let now = bench;
  for (let at = 0; at < seconds; at += 1) now = stepDrill(now, 1);
  return now;
};
const start = newDrill(7);
const captured = (bench: DrillBench, slot: 'dry' | 'wet') =>
  captureDrill(bench, slot, readDrill(bench).value);
const inAir = wait(moveDrill(start, 'air'), 60);
const inJar = wait(moveDrill(start, 'jar'), 60);
const mistakesOf = (dry: DrillBench, wet: DrillBench) =>
  judgeDrill({ dry: captured(dry, 'dry'), wet: captured(wet, 'wet') }).mistakes.map(
    ({ slot, mistake }) => `${slot} ${mistake}`,
  );

describe('the practice bench', () => {
  test('a reading creeps to its end, faster in air than in soil', () => {
    const air = stepDrill(moveDrill(start, 'air'), 3);
    // One time constant of three seconds: 1 − 1/e of the way from 2740 to 2950.
    expect(air.counts).toBeCloseTo(2740 + 210 * (1 - Math.exp(-1)), 6);
    expect(inAir.counts).toBeCloseTo(2950, 3);
  });
  test('past the line the connector is wet for 45 seconds after, unless it is wiped', () => {
    const past = wait(moveDrill(start, 'past the line'), 20);
    const out = moveDrill(past, 'air');
    expect(connectorIsWet(out)).toBe(true);
    expect(connectorIsWet(wait(out, 26))).toBe(false);
    expect(connectorIsWet(wipeConnector(out))).toBe(false);
    expect(connectorIsWet(wipeConnector(past))).toBe(true);
  });
  test('the pot drips from 600 ml on', () => {
    expect(drips(pourDrill(start, 449))).toBe(false);
    expect(drips(pourDrill(start, 450))).toBe(true);
  });
});

describe('mistakes that are told', () => {
  test('none where everything was done right, in air and water as in soil', () => {
    expect(mistakesOf(inAir, inJar)).toEqual([]);
    const soaked = wait(moveDrill(pourDrill(start, 500), 'pot'), 120);
    expect(mistakesOf(wait(start, 30), soaked)).toEqual([]);
  });
  test('captured seconds after it was moved', () => {
    expect(mistakesOf(inAir, stepDrill(moveDrill(inAir, 'jar'), 3))).toEqual(['wet too-early']);
  });
  test('dry and wet exchanged', () => {
    expect(mistakesOf(inJar, inAir)).toEqual(['dry wrong-order', 'wet wrong-order']);
  });
  test('past the line, and the wet connector that comes of it', () => {
    const past = wait(moveDrill(start, 'past the line'), 40);
    expect(mistakesOf(inAir, past)).toEqual(['wet wet-connector', 'wet past-the-line']);
    const wetAir = wait(moveDrill(past, 'air'), 4);
    expect(mistakesOf(wetAir, inJar)).toContain('dry wet-connector');
  });
  test('another supply', () => {
    expect(mistakesOf(wait(feedDrill(inAir, 5), 60), inJar)).toEqual(['dry other-supply']);
  });
  test('a pot that was not soaked', () => {
    expect(mistakesOf(wait(start, 30), wait(moveDrill(start, 'pot'), 120))).toEqual(['wet not-soaked']);
  });
});
