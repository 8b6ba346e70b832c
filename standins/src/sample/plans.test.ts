import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { readGardenFile, writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { catalogueOf, settingOf } from '@plain-trowel/core/garden/edits/plan';
import { gardenSchema, type Garden } from '@plain-trowel/core/garden/document/schema';
import { buildCost, partsRows } from '@plain-trowel/core/plan/partsList';
import { checkWiring } from '@plain-trowel/core/wiring/checks/all';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import { marigoldHare } from './marigoldHare.ts';
import { TEN_FAULTS, tenFaults } from './tenFaults.ts';

const findingsOf = (garden: Garden) =>
  checkWiring(readCircuit(garden.wiring, catalogueOf(garden)), settingOf(garden)).findings;
const serious = (garden: Garden) => findingsOf(garden).filter((one) => one.severity !== 'note');

describe('The Marigold Hare', () => {
  const garden = marigoldHare(Date.parse('2026-06-01T12:00:00Z'));
  test('has its complete plan: nothing is wrong with it and nothing is unknown', () => {
    expect(serious(garden).map((one) => one.says)).toEqual([]);
  });
  test('holds the boards, probes and pump of the garden, its bus probe and its thermistor too', () => {
    const stands = garden.wiring.parts.flatMap((part) => (part.stands ? [part.stands.id] : []));
    for (const id of [...garden.boards, ...garden.probes, ...garden.waterLines].map((one) => one.id))
      expect(stands).toContain(id);
    expect(garden.wiring.parts.map((part) => part.label)).toEqual(
      expect.arrayContaining(['B1', 'T1', 'Stern display', 'Battery', 'Panel']),
    );
  });
  test('lacks only the prices of five resistors', () => {
    const rows = partsRows(garden.wiring, catalogueOf(garden), garden.plan.money, garden.plan.supply.everyS);
    expect(buildCost(rows, '£').missing).toBe(5);
  });
});

describe('the ten faults', () => {
  test('all ten are found, and nothing else', () => {
    expect(
      serious(tenFaults())
        .map((one) => one.check)
        .sort(),
    ).toEqual([...TEN_FAULTS].sort());
  });
  test('the file in docs/examples is this garden', () => {
    const file = readFileSync(
      new URL('../../../docs/examples/ten-faults.garden.json', import.meta.url),
      'utf8',
    );
    expect(file).toBe(writeGardenFile(gardenSchema.parse(tenFaults())));
    expect(readGardenFile(file).ok).toBe(true);
  });
});
