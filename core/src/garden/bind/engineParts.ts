/** Pieces of an engine's settings that others ask for too: noise in tenths, a line's flow, a reservoir's minimum as a raw value. */
import { percentPerCount, type Curve } from '../../calibration/curve.ts';
import { AROUND_STALE_S } from '../../control/host/boardEngine.ts';
import type { TankConfig } from '../../control/engine/settings.ts';
import { rawAtVolume, reservoirOf } from '../../dosing/reservoir.ts';
import { remembered } from '../../quantity/remembered.ts';
import type { Reservoir, WaterLine } from '../document/schema.ts';

/** Noise of single readings in the middle of a calibration, tenths of a percent. */
export const noiseTenthsOf = (curve: Curve): number =>
  percentPerCount(curve, (curve.dryCounts + curve.wetCounts) / 2) * curve.noiseCounts * 10;

/** A line's flow as its engine reckons with it. */
export const flowOf = ({ flowMlPerS, tubeS }: Pick<WaterLine, 'flowMlPerS' | 'tubeS'>) => ({
  flowMlPerMin: Math.max(1, Math.round(flowMlPerS * 60)),
  tubeMs: Math.round(tubeS * 1000),
});

/** A reservoir that is not fully described is unknown at every level, and its lines do not run. */
const UNKNOWN_TANK: TankConfig = {
  minimumRaw: 0,
  fallsWithWater: false,
  lowRaw: 1,
  highRaw: 0,
  staleAfterS: AROUND_STALE_S,
};
/** How far a level may lie beyond the known ones before it is taken for a fault, as a share of their span. */
const BEYOND_LEVELS = 0.3;

export const tankConfig = remembered((tank: Reservoir): TankConfig => {
  if (tank.channelId === null) return UNKNOWN_TANK;
  if (tank.kind === 'float') return floatConfig(tank);
  const curve = reservoirOf(tank.levels);
  if (!curve.ok) return UNKNOWN_TANK;
  const { knots } = curve.value;
  const [first, last] = [knots[0], knots.at(-1)];
  if (!first || !last) return UNKNOWN_TANK;
  const falls = last.percent < first.percent;
  const beyond = BEYOND_LEVELS * (last.counts - first.counts);
  // To six decimals, so that halving does not push a whole number over its edge.
  const minimum = Math.round(1e6 * rawAtVolume(curve.value, tank.minimumMl)) / 1e6;
  return {
    // Rounded towards more water, so that the minimum is never undercut.
    minimumRaw: falls ? Math.floor(minimum) : Math.ceil(minimum),
    fallsWithWater: falls,
    lowRaw: Math.floor(first.counts - beyond),
    highRaw: Math.ceil(last.counts + beyond),
    staleAfterS: AROUND_STALE_S,
  };
});

/** A contact as a level with one step. What it reads as 0 and 1 must be one of the two; counts of an analog input may be anything that an input gives. */
function floatConfig({ float: { highIs, threshold } }: Reservoir): TankConfig {
  const isDigital = threshold > 0 && threshold <= 1;
  const [lowRaw, highRaw] = isDigital ? [0, 1] : [-MOST_CONTACT_RAW, MOST_CONTACT_RAW];
  const high = Math.ceil(threshold);
  return highIs === 'water'
    ? { minimumRaw: high, fallsWithWater: false, lowRaw, highRaw, staleAfterS: AROUND_STALE_S }
    : { minimumRaw: high - 1, fallsWithWater: true, lowRaw, highRaw, staleAfterS: AROUND_STALE_S };
}
const MOST_CONTACT_RAW = 1_000_000;
