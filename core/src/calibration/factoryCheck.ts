/** A maker's curve, checked against one or two conditions whose water content is known in another way. */
import type { Uncertain } from './convertPercent.ts';

type Said = Omit<Uncertain, 'common'>;

export type FactoryPoint = { readonly says: Said; readonly known: Said };
export type FactoryCheck = {
  /** What the probe says less what is known, percent, and in how many standard deviations. */
  readonly differences: readonly { readonly percent: number; readonly sigmas: number }[];
  readonly verdict: 'agrees' | 'offset' | 'gain';
  /** Known ≈ gain · said + offset; gain 1 from a single point. */
  readonly gain: number;
  readonly offset: number;
  /** The soils that it was checked by: what they hold, and what that and the reading in them may be off by. */
  readonly anchors: readonly [Said, ...Said[]];
};

/** Beyond so many standard deviations a difference is no chance (95 in 100). */
const CHANCE = 1.96;

/** @param points one or two; with two, the wider they lie apart the better the gain is known */
export function checkFactory(points: readonly [FactoryPoint, ...FactoryPoint[]]): FactoryCheck {
  const [first, ...others] = points;
  const anchors = [first.known, ...others.map((one) => one.known)] as const;
  const differences = points.map(({ says, known }) => {
    const percent = says.percent - known.percent;
    return {
      percent,
      sigmas: Math.abs(percent) / (Math.hypot(says.sigmaPercent, known.sigmaPercent) || 1e-9),
    };
  });
  const meanOff = differences.reduce((sum, one) => sum + one.percent, 0) / differences.length;
  const [a, b] = points;
  if (differences.every((one) => one.sigmas <= CHANCE))
    return { differences, anchors, verdict: 'agrees', gain: 1, offset: 0 };
  if (!b || a.says.percent === b.says.percent)
    return { differences, anchors, verdict: 'offset', gain: 1, offset: -meanOff };
  const gain = (b.known.percent - a.known.percent) / (b.says.percent - a.says.percent);
  const sigma = Math.hypot(
    a.says.sigmaPercent,
    b.says.sigmaPercent,
    a.known.sigmaPercent,
    b.known.sigmaPercent,
  );
  const unequal = Math.abs((differences[0]?.percent ?? 0) - (differences[1]?.percent ?? 0));
  if (unequal <= CHANCE * sigma)
    return { differences, anchors, verdict: 'offset', gain: 1, offset: -meanOff };
  return { differences, anchors, verdict: 'gain', gain, offset: a.known.percent - gain * a.says.percent };
}
