/**
 * Two resistors in series that hand on a share of a voltage, so that a pin sees no more than it may.
 *
 * The pair is searched over a whole series. It must not give more than the target, its source impedance must stay below the limit the
 * converter sets, and among pairs that are equally near the one with the larger sum wins, because it draws less.
 */
import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { eValues, nextDown, type ESeries } from './eSeries.ts';

export type DividerPair = { readonly upperOhm: number; readonly lowerOhm: number };

/** Two resistors side by side, ohm. Source: Ohm's law. */
export const parallelOhm = (oneOhm: number, otherOhm: number): number =>
  oneOhm === Infinity ? otherOhm : otherOhm === Infinity ? oneOhm : (oneOhm * otherOhm) / (oneOhm + otherOhm);

/**
 * Share of the input that appears across the lower resistor, 0..1, with a load beside it: (R2 ∥ Rload) / (R1 + R2 ∥ Rload).
 * @param loadOhm what hangs on the output; leave it out for none
 */
export function dividerShare({ upperOhm, lowerOhm }: DividerPair, loadOhm = Infinity): number {
  const low = parallelOhm(lowerOhm, loadOhm);
  return low / (upperOhm + low);
}

/** What the divider looks like to the converter behind it, ohm: both resistors side by side. */
export const dividerSourceOhm = ({ upperOhm, lowerOhm }: DividerPair): number =>
  parallelOhm(upperOhm, lowerOhm);

export type DividerAsked = {
  readonly inV: number;
  /** The most that may come out, V. */
  readonly targetV: number;
  readonly series: ESeries;
  /** The most source impedance the input behind it bears, ohm; 10 kΩ suits most converters. */
  readonly sourceLimitOhm: number;
  /** The least both resistors together may draw from, ohm: a probe with a source impedance must not be loaded. */
  readonly leastSumOhm: number;
  readonly loadOhm?: number;
};
export type DividerFound = DividerPair & {
  readonly outV: number;
  readonly sourceOhm: number;
  /** The number to multiply the measured voltage with, in code. */
  readonly multiplier: number;
  readonly worked: Worked;
};
export type DividerIssue =
  | { readonly kind: 'divider-not-needed'; readonly inV: number; readonly targetV: number }
  | { readonly kind: 'divider-no-pair'; readonly sourceLimitOhm: number; readonly leastSumOhm: number };

/** The pair that comes nearest to the target from below. */
export function bestDivider(asked: DividerAsked): Result<DividerFound, DividerIssue> {
  const { inV, targetV, series, sourceLimitOhm, leastSumOhm, loadOhm = Infinity } = asked;
  if (targetV >= inV) return fail({ kind: 'divider-not-needed', inV, targetV });
  const share = targetV / inV;
  let best: DividerPair | null = null;
  let bestOutV = 0;
  for (const upperOhm of eValues(series, 10, 1e7)) {
    const lowerOhm = lowerFor(upperOhm, share, series, loadOhm);
    if (lowerOhm === null) continue;
    const pair = { upperOhm, lowerOhm };
    if (dividerSourceOhm(pair) > sourceLimitOhm || upperOhm + lowerOhm < leastSumOhm) continue;
    const outV = inV * dividerShare(pair, loadOhm);
    // Pairs rise in their sum; one that is as near within a ten-thousandth replaces a smaller one.
    if (outV >= bestOutV - inV * 1e-4) {
      best = pair;
      bestOutV = Math.max(outV, bestOutV);
    }
  }
  if (!best) return fail({ kind: 'divider-no-pair', sourceLimitOhm, leastSumOhm });
  const about = workDivider({ ...best, inV, loadOhm });
  return ok({
    ...best,
    outV: about.value,
    sourceOhm: dividerSourceOhm(best),
    multiplier: inV / about.value,
    worked: about,
  });
}

/** The largest lower resistor that keeps the loaded share at or below the wanted one; null when no value does. */
function lowerFor(upperOhm: number, share: number, series: ESeries, loadOhm: number): number | null {
  const sideBySideOhm = (upperOhm * share) / (1 - share);
  // The load takes its part of what may stand below; the resistor beside it may be larger for that.
  const exactOhm =
    loadOhm === Infinity
      ? sideBySideOhm
      : sideBySideOhm < loadOhm
        ? (sideBySideOhm * loadOhm) / (loadOhm - sideBySideOhm)
        : Infinity;
  if (exactOhm === Infinity || exactOhm < 1) return null;
  return nextDown(series, exactOhm);
}

/** What comes out of a divider, V. */
export function workDivider(of: DividerPair & { readonly inV: number; readonly loadOhm?: number }): Worked {
  const loaded = of.loadOhm !== undefined && of.loadOhm !== Infinity;
  const lower = input('lower resistor', of.lowerOhm, 'Ω');
  const beside = loaded
    ? [
        step(
          {
            name: 'lower resistor beside its load',
            unit: 'Ω',
            formula: '{lower} × {load} ÷ ({lower} + {load})',
            inputs: { lower, load: input('load', of.loadOhm ?? 0, 'Ω') },
          },
          ({ lower, load }) => parallelOhm(lower, load),
        ),
      ]
    : [];
  const out = step(
    {
      name: 'out of the divider',
      unit: 'V',
      decimals: 3,
      formula: '{in} × {lower} ÷ ({upper} + {lower})',
      inputs: {
        in: input('voltage in', of.inV, 'V', 2),
        upper: input('upper resistor', of.upperOhm, 'Ω'),
        lower: beside[0] ? input('lower beside its load', beside[0].value, 'Ω') : lower,
      },
    },
    ({ in: inV, upper, lower }) => (inV * lower) / (upper + lower),
  );
  return worked('Divider output', [...beside, out] as [typeof out], {
    source: 'Ohm’s law; preferred values of IEC 60063.',
    note: `In code, multiply the measured voltage by ${(of.inV / out.value).toFixed(4)}; compare once with a multimeter and trim it.`,
    wouldChange: 'The resistors’ tolerance, a load on the output, another supply.',
  });
}

/**
 * The multiplier trimmed with a multimeter: what the meter shows at the divider's input over what the board made of it.
 * @returns null when the board read nothing
 */
export const trimMultiplier = (meterV: number, boardV: number): number | null =>
  boardV > 0 && meterV > 0 ? meterV / boardV : null;
