import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { fullScaleCounts } from './converter.ts';
import { nextDown, type ESeries } from './eSeries.ts';

/** A 4–20 mA loop: full scale, zero, and the level below which the wire is broken (NAMUR NE 43), mA. */
export const LOOP = { fullMa: 20, zeroMa: 4, brokenMa: 3.6, overMa: 21 } as const;

export type ShuntAsked = {
  /** The most the input may see, V. */
  readonly inputV: number;
  readonly loopV: number;
  /** The least voltage the probe itself needs, V. */
  readonly probeV: number;
  readonly cableOhm: number;
  readonly adcBits: number;
  readonly series: ESeries;
};
export type ShuntFound = {
  readonly ohm: number;
  readonly fullV: number;
  readonly zeroV: number;
  readonly brokenCounts: number;
  readonly spareV: number;
  readonly worked: Worked;
};
export type ShuntIssue = {
  readonly kind: 'loop-voltage-short';
  readonly ohm: number;
  readonly loopV: number;
  readonly neededV: number;
};

/** What a loop needs at 20 mA: the shunt's and the cable's drop and the probe's own least voltage, V. */
export const loopNeededV = (of: { shuntOhm: number; cableOhm: number; probeV: number }): number =>
  (LOOP.fullMa / 1000) * (of.shuntOhm + of.cableOhm) + of.probeV;

/** Shunt of a 4–20 mA probe: full scale / 21 mA, rounded down, so that an over-range current still fits; the loop's voltage is proved. */
export function shuntFor(asked: ShuntAsked): Result<ShuntFound, ShuntIssue> {
  const exact = step(
    {
      name: 'exact shunt',
      unit: 'Ω',
      decimals: 1,
      formula: '{input} ÷ {over} × 1000',
      inputs: {
        input: input('full scale of the input', asked.inputV, 'V', 2),
        over: input('over-range current', LOOP.overMa, 'mA'),
      },
    },
    ({ input, over }) => (input / over) * 1000,
  );
  const ohm = nextDown(asked.series, exact.value);
  const needed = step(
    {
      name: 'voltage the loop needs',
      unit: 'V',
      decimals: 2,
      formula: '0.020 × ({shunt} + {cable}) + {probe}',
      inputs: {
        shunt: input(`next ${asked.series} value below`, ohm, 'Ω'),
        cable: input('cable, both wires', asked.cableOhm, 'Ω', 1),
        probe: input('least voltage of the probe', asked.probeV, 'V', 1),
      },
    },
    ({ shunt, cable, probe }) => loopNeededV({ shuntOhm: shunt, cableOhm: cable, probeV: probe }),
  );
  if (needed.value > asked.loopV)
    return fail({ kind: 'loop-voltage-short', ohm, loopV: asked.loopV, neededV: needed.value });
  const fullV = (LOOP.fullMa * ohm) / 1000;
  const chosen = step(
    {
      name: 'shunt to take',
      unit: 'Ω',
      formula: `next ${asked.series} value not above {exact}`,
      inputs: { exact: input('exact shunt', exact.value, 'Ω', 1) },
    },
    () => ohm,
  );
  return ok({
    ohm,
    fullV,
    zeroV: (LOOP.zeroMa * ohm) / 1000,
    brokenCounts: Math.floor(((LOOP.brokenMa * ohm) / 1000 / asked.inputV) * fullScaleCounts(asked.adcBits)),
    spareV: asked.loopV - needed.value,
    worked: worked('Shunt', [exact, needed, chosen], {
      source: 'Ohm’s law; 4–20 mA current loop, 3.6 mA and 21 mA as its limits.',
      note: '4 mA is zero, not zero; below 3.6 mA the wire is broken.',
      wouldChange: 'The input’s full scale, the loop’s supply, a longer cable.',
    }),
  });
}
