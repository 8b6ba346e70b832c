import { expect, test } from 'vitest';
import { catalogueWith } from '../../catalogue/catalogue.ts';
import { formulaInNumbers } from '../../quantity/worked.ts';
import { readCircuit } from '../circuit.ts';
import type { Finding } from '../finding.ts';
import { inMa, inV } from '../look.ts';
import { netlistSchema } from '../netlist.ts';
import { sketchNetlist, type Sketched } from '../sketchNetlist.ts';
import { checkWiring } from './all.ts';

const catalogue = catalogueWith([]);
const findingsOf = (text: string, more: Sketched = {}) =>
  checkWiring(readCircuit(netlistSchema.parse(sketchNetlist(text, more)), catalogue), {
    radioOn: true,
    tapWater: false,
  }).results.flatMap(({ findings, isSolved }) => (isSolved ? findings : []));

const roof = 'roof: board-wifi-two-groups; u: supply-usb; u.out - roof.v5; u.gnd - roof.gnd';
const pumpOn12 = 'bat: battery-12v; pump: pump-12v; pump.plus - bat.plus';

/** How a sentence would write a working's value. */
const written = ({ worked }: Finding): string =>
  worked === undefined
    ? '?'
    : worked.unit === 'V'
      ? inV(Math.abs(worked.value))
      : worked.unit === 'mA'
        ? inMa(Math.abs(worked.value))
        : worked.unit === 'mW'
          ? worked.value < 1000
            ? `${Math.round(worked.value)} mW`
            : `${(worked.value / 1000).toFixed(worked.value < 10_000 ? 1 : 0)} W`
          : '?';

const WIRINGS: Readonly<Record<string, readonly [check: string, text: string, more?: Sketched]>> = {
  'a pin on a battery': [
    'over-voltage',
    `${roof}; bat: battery-12v; bat.gnd - roof.gnd; roof.p34 - bat.plus`,
  ],
  'a probe on a battery': [
    'supply-range',
    `${roof}; bat: battery-12v; bat.gnd - roof.gnd; l1: probe-capacitive; l1.vcc - bat.plus; l1.gnd - roof.gnd`,
  ],
  'a pump straight on its battery': ['load-runs', `${pumpOn12}; pump.minus - bat.gnd`],
  'a lamp without a resistor': [
    'led-resistor',
    `${roof}; l: lamp-led; l.anode - roof.p18; l.cathode - roof.gnd`,
  ],
  'a resistor across a battery': [
    'heat',
    'bat: battery-12v; r: resistor; r.a - bat.plus; r.b - bat.gnd',
    { parts: { r: { settings: { ohm: 100 } } } },
  ],
  'a probe with its wires exchanged': [
    'unpowered',
    `${roof}; l1: probe-capacitive; l1.vcc - roof.gnd; l1.gnd - roof.out33`,
  ],
};

test.each(Object.entries(WIRINGS))(
  '%s: the figure in the sentence opens the working that it comes from',
  (_, [check, text, more]) => {
    const found = findingsOf(text, more).filter(
      (one) => one.check === check && / (V|mA|A|mW|W)\b/.test(one.says),
    );
    expect(found.length).toBeGreaterThan(0);
    for (const finding of found) {
      expect(finding.says).toContain(written(finding));
      const last = finding.worked?.steps.at(-1);
      expect(last && formulaInNumbers(last)).toMatch(/\d/);
    }
  },
);

test('the heat of 100 Ω on a full battery is worked by hand: 14.4 V, 144 mA, 2.1 W', () => {
  const [, text, more] = WIRINGS['a resistor across a battery'] as [string, string, Sketched];
  const worked = findingsOf(text, more).find((one) => one.check === 'heat')?.worked;
  expect(worked?.steps.map(({ unit }) => unit)).toEqual(['mA', 'mW']);
  const [current, heat] = worked?.steps ?? [];
  // The battery's own 50 mΩ take a thousandth away.
  expect(current?.value).toBeCloseTo(144, 0);
  expect(heat?.value).toBeGreaterThan(2060);
  expect(heat?.value).toBeLessThan(2080);
});

test('a verdict is plain data: it comes out of a worker as it went in', () => {
  const circuit = readCircuit(
    netlistSchema.parse(sketchNetlist(`${roof}; ${pumpOn12}; pump.minus - bat.gnd`)),
    catalogue,
  );
  const verdict = checkWiring(circuit, { radioOn: null, tapWater: null });
  expect(structuredClone(verdict)).toEqual(verdict);
  expect(verdict.findings.length).toBeGreaterThan(0);
});
