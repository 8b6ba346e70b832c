import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { sketchNetlist } from '../wiring/sketchNetlist.ts';
import { buildCost, partsCsv, partsRows, yearCost, type Money } from './partsList.ts';

const catalogue = catalogueWith([]);
const money: Money = {
  currency: '£',
  prices: { 'probe-fork': 1.2, 'probe-capacitive': 3, 'cable-0.22': 0.4 },
  spares: { 'probe-fork': 2 },
  lives: { 'probe-capacitive': 2 },
};
const netlist = sketchNetlist(
  'm1: probe-fork; m2: probe-fork; l1: probe-capacitive; r1: resistor; r2: resistor; m1.gnd - l1.gnd @a; m2.gnd - l1.gnd @b',
  {
    parts: { r1: { settings: { ohm: 270 } }, r2: { settings: { ohm: 4700 } } },
    cables: { a: { lengthM: 2.5, areaMm2: 0.22 }, b: { lengthM: 4, areaMm2: 0.22 } },
  },
);
const rows = partsRows(netlist, catalogue, money, 600);
const at = (key: string) => rows.find((row) => row.key === key);

describe('the list', () => {
  test('counts by kind, resistors by value, cable by cross-section in metres', () => {
    expect(rows.map((row) => [row.key, row.count])).toEqual([
      ['probe-fork', 2],
      ['probe-capacitive', 1],
      ['resistor 270', 1],
      ['resistor 4700', 1],
      ['cable-0.22', 6.5],
    ]);
    expect(at('resistor 4700')?.name).toBe('resistor, 4\u202f700 Ω');
  });
  test('price × (count + spares): 1.20 × 4 = 4.80', () => {
    expect(at('probe-fork')?.cost).toBeCloseTo(4.8, 12);
  });
  test('per year: 1.20 × 2 over 0.4 years is 6.00; the life a person set counts before the catalogue’s', () => {
    expect(at('probe-fork')?.perYear).toBeCloseTo(6, 12);
    expect(at('probe-capacitive')?.perYear).toBeCloseTo(1.5, 12);
  });
  test('what has no price is left out of the sums and counted as missing', () => {
    const build = buildCost(rows, '£');
    // 4.80 + 3.00 + 0.40 × 6.5
    expect(build.worked.value).toBeCloseTo(10.4, 9);
    expect(build.missing).toBe(2);
    expect(build.worked.note).toMatch(/^2 lines have no price/);
    // 6.00 + 1.50 + 2.60 / 10
    expect(yearCost(rows, '£').worked.value).toBeCloseTo(7.76, 9);
  });
  test('forks powered only to be read last as the wear of both states says', () => {
    const parts = { m1: { perReading: true }, m2: { perReading: true } };
    const [fork] = partsRows(
      sketchNetlist('m1: probe-fork; m2: probe-fork', { parts }),
      catalogue,
      money,
      600,
    );
    // 0.4 s of each 600 s under power: 1 / (0.000667 / 0.4 + 0.999333 / 3)
    expect(fork?.lifeYears).toBeCloseTo(1 / (0.4 / 600 / 0.4 + (1 - 0.4 / 600) / 3), 9);
  });
});

describe('as CSV', () => {
  test('one line a row with a head, unknown cells empty', () => {
    const lines = partsCsv(rows, '£').split('\r\n');
    expect(lines[0]).toBe(
      'part,labels,count,unit,spares,have,to buy,unit price (£),life (years),cost (£),cost per year (£)',
    );
    expect(lines[1]).toBe('resistive fork,m1 m2,2,pieces,2,0,4,1.2,0.4,4.8,6');
    expect(lines[3]).toBe('"resistor, 270 Ω",r1,1,pieces,0,0,1,,10,,');
  });
  test('a label that looks like a formula stays text', () => {
    const list = partsRows(
      sketchNetlist('a: resistor', { parts: { a: { label: '=1+1' } } }),
      catalogue,
      money,
      600,
    );
    expect(partsCsv(list, '£')).toContain("'=1+1");
  });
});

test('what lies in the drawer is not bought: count and spares less what is there, never below nothing', () => {
  const of = (drawer: Record<string, number>) =>
    partsRows(
      netlist,
      catalogue,
      { ...money, spares: { 'probe-fork': 1 }, prices: { 'probe-fork': 2 } },
      600,
      drawer,
    ).find((row) => row.key === 'probe-fork');
  const count = of({})?.count ?? 0;
  expect(of({})).toMatchObject({ have: 0, buy: count + 1, cost: 2 * (count + 1) });
  expect(of({ 'probe-fork': 1 })).toMatchObject({ have: 1, buy: count, cost: 2 * count });
  expect(of({ 'probe-fork': 99 })).toMatchObject({ buy: 0, cost: 0 });
});
