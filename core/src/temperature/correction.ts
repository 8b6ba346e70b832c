/**
 * From what a channel gives to what it means, for everything that is not moisture: a thermometer's offset or line, a thermistor's curve, a battery
 * divider's multiplier. A correction is small, dated data in the garden.
 */
import { z } from '../quantity/schema.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { isTemperature, type Quantity } from '../quantity/quantities.ts';
import { ohmOfCounts, temperatureOfOhm } from './thermistor.ts';

const finite = z.number().min(-1e9).max(1e9);
const made = { madeAt: z.iso.datetime({ offset: true }), against: z.string().max(120) };

export const correctionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  /** Value + offset. */
  z.strictObject({ kind: z.literal('offset'), offset: finite, ...made }),
  /** Value × gain + offset. */
  z.strictObject({ kind: z.literal('line'), gain: finite, offset: finite, ...made }),
  /** Counts of a divider with a thermistor. */
  z.strictObject({
    kind: z.literal('thermistor'),
    a: finite,
    b: finite,
    c: finite,
    fixedOhm: z.number().min(1).max(1e8),
    side: z.enum(['ground', 'supply']),
    /** Added afterwards, from a comparison with a trusted thermometer, °C. */
    offset: finite,
    ...made,
  }),
]);

export type Correction = z.infer<typeof correctionSchema>;
export const NO_CORRECTION: Correction = { kind: 'none' };

/** The corrected value; null where there is none (a thermistor's divider at a rail). */
function corrected(correction: Correction, value: number, fullScaleCounts: number): number | null {
  switch (correction.kind) {
    case 'none':
      return value;
    case 'offset':
      return value + correction.offset;
    case 'line':
      return value * correction.gain + correction.offset;
    case 'thermistor': {
      const ohm = ohmOfCounts(value, { ...correction, fullScaleCounts });
      return ohm === null ? null : temperatureOfOhm(correction, ohm) + correction.offset;
    }
  }
}

/** No soil and no air that a plant lives in is beyond these, °C; what says so is open, shorted or not read. */
const COLDEST_C = -55;
const WARMEST_C = 85;
/** What digital thermometers say while they have not measured, °C (−127 for no answer lies beyond the coldest). */
const NOT_MEASURED_C = 85;

/** What a channel's raw value means; null for a thermometer that is open, shorted or says a fault code: that is no reading, whatever else would be made of it. */
export function meantOf(
  { quantity, correction }: { readonly quantity: Quantity; readonly correction: Correction },
  value: number,
  fullScaleCounts: number,
): number | null {
  const meant = corrected(correction, value, fullScaleCounts);
  if (meant === null || !isTemperature(quantity)) return meant;
  const isDegrees = correction.kind === 'none' || correction.kind === 'offset';
  if (isDegrees && value === NOT_MEASURED_C) return null;
  return meant > COLDEST_C && meant < WARMEST_C ? meant : null;
}

export type Pair = { readonly read: number; readonly trusted: number };
export type LineIssue =
  | { readonly kind: 'too-close'; readonly apart: number; readonly needed: number }
  /** A gain this far from one is no thermometer's: a point was misread. */
  | { readonly kind: 'odd-gain'; readonly gain: number };

/** Two points nearer than this carry no gain, °C. */
const LEAST_APART_C = 10;

/** Offset from one trusted value: trusted − read. */
export const offsetOf = (pair: Pair): number => pair.trusted - pair.read;

/** Gain and offset through two trusted points, ice slush and a warm bath. */
export function lineOf(low: Pair, high: Pair): Result<{ gain: number; offset: number }, LineIssue> {
  const apart = Math.min(Math.abs(high.read - low.read), Math.abs(high.trusted - low.trusted));
  if (apart < LEAST_APART_C) return fail({ kind: 'too-close', apart, needed: LEAST_APART_C });
  const gain = (high.trusted - low.trusted) / (high.read - low.read);
  if (gain < 0.8 || gain > 1.25) return fail({ kind: 'odd-gain', gain });
  return ok({ gain, offset: low.trusted - gain * low.read });
}

export type TrimIssue =
  { readonly kind: 'not-positive' } | { readonly kind: 'far-off'; readonly multiplier: number };

/** Multiplier of a battery monitor: what the multimeter says ÷ what the board reports. More than one half off is a wiring fault, not a tolerance. */
export function trimOf(of: { meterV: number; reported: number; now: number }): Result<number, TrimIssue> {
  if (!(of.meterV > 0 && of.reported > 0 && of.now > 0)) return fail({ kind: 'not-positive' });
  const multiplier = of.now * (of.meterV / of.reported);
  const change = of.meterV / of.reported;
  return of.now === 1 || (change > 0.67 && change < 1.5)
    ? ok(multiplier)
    : fail({ kind: 'far-off', multiplier });
}

/** A tensiometer at nothing, and at a suction that a gauge or its sheet tells: nearer together they carry no line, kPa. */
const LEAST_APART_KPA = 20;
/** A tensiometer that is to decide must tell tensions up to this, kPa; and no sensor of one reaches further than these, which are its sign that a point was misread. */
const LEAST_REACH_KPA = 60;
const MOST_REACH_KPA = { from: -150, to: 300 } as const;

export type TensionIssue =
  | { readonly kind: 'too-close'; readonly apartKpa: number; readonly neededKpa: number }
  | { readonly kind: 'same-reading' }
  /** The converter ends before the tensions that are asked for, or far beyond those of any sensor. */
  | { readonly kind: 'odd-reach'; readonly fromKpa: number; readonly toKpa: number };

/** From counts to kPa through two points: in water, and at a known suction. @param fullScaleCounts of the converter */
export function tensionLine(
  one: Pair,
  other: Pair,
  fullScaleCounts: number,
): Result<{ gain: number; offset: number }, TensionIssue> {
  const apartKpa = Math.abs(other.trusted - one.trusted);
  if (apartKpa < LEAST_APART_KPA) return fail({ kind: 'too-close', apartKpa, neededKpa: LEAST_APART_KPA });
  if (Math.abs(other.read - one.read) < 2 * apartKpa) return fail({ kind: 'same-reading' });
  const gain = (other.trusted - one.trusted) / (other.read - one.read);
  const offset = one.trusted - gain * one.read;
  const ends = [offset, gain * fullScaleCounts + offset];
  const [fromKpa, toKpa] = [Math.min(...ends), Math.max(...ends)];
  const reaches = fromKpa <= 0 && toKpa >= LEAST_REACH_KPA;
  return reaches && fromKpa >= MOST_REACH_KPA.from && toKpa <= MOST_REACH_KPA.to
    ? ok({ gain, offset })
    : fail({ kind: 'odd-reach', fromKpa, toKpa });
}

const SOURCE: Readonly<Record<Correction['kind'], string>> = {
  none: 'As the board gives it.',
  offset: 'One point against a trusted thermometer.',
  line: 'Two points against trusted values; a straight line between and beyond.',
  thermistor: 'Steinhart & Hart 1968; the divider is ratiometric, so the supply cancels.',
};

/** How a value came about. @param of.unit of the result; `readUnit` of what is read, where that is another one */
export function workCorrection(
  correction: Correction,
  value: number,
  of: { fullScaleCounts: number; title: string; unit: string; decimals: number; readUnit?: string },
): Worked {
  const { unit, decimals, title } = of;
  const last = { name: title.toLowerCase(), unit, decimals };
  const read = input(
    'value read',
    value,
    correction.kind === 'thermistor' ? 'counts' : (of.readUnit ?? unit),
    Number.isInteger(value) ? 0 : 2,
  );
  const after = (steps: Parameters<typeof worked>[1]) =>
    worked(title, steps, {
      source: SOURCE[correction.kind],
      wouldChange: 'A comparison with a trusted instrument.',
    });
  switch (correction.kind) {
    case 'none':
      return after([step({ ...last, formula: '{read}', inputs: { read } }, (x) => x.read)]);
    case 'offset':
      return after([
        step(
          {
            ...last,
            formula: '{read} + {offset}',
            inputs: { read, offset: input('offset', correction.offset, unit, 2) },
          },
          (x) => x.read + x.offset,
        ),
      ]);
    case 'line':
      return after([
        step(
          {
            ...last,
            formula: '{read} × {gain} + {offset}',
            inputs: {
              read,
              gain: input('gain', correction.gain, '', 4),
              offset: input('offset', correction.offset, unit, 2),
            },
          },
          (x) => x.read * x.gain + x.offset,
        ),
      ]);
    case 'thermistor': {
      const { fixedOhm, side, offset } = correction;
      const full = input('full scale', of.fullScaleCounts, 'counts');
      const fixed = input('fixed resistor', fixedOhm, 'Ω');
      const ohm = step(
        {
          name: 'resistance',
          unit: 'Ω',
          decimals: 0,
          formula:
            side === 'ground'
              ? '{fixed} × {read} ÷ ({full} − {read})'
              : '{fixed} × ({full} − {read}) ÷ {read}',
          inputs: { fixed, read, full },
        },
        (x) =>
          side === 'ground' ? (x.fixed * x.read) / (x.full - x.read) : (x.fixed * (x.full - x.read)) / x.read,
      );
      const warmth = step(
        {
          ...last,
          formula: '1 ÷ ({a} + {b} × ln {ohm} + {c} × (ln {ohm})³) − 273.15 + {offset}',
          inputs: {
            a: input('A', correction.a, '', 6),
            b: input('B', correction.b, '', 6),
            c: input('C', correction.c, '', 10),
            ohm: input('resistance', ohm.value, 'Ω'),
            offset: input('offset', offset, '°C', 2),
          },
        },
        (x) => temperatureOfOhm(x, x.ohm) + x.offset,
      );
      return after([ohm, warmth]);
    }
  }
}
