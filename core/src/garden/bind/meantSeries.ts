/** What the readings of a channel over time mean: percent where it is calibrated, else in its unit. */
import { readCurves } from '../../calibration/curve.ts';
import { isShownRaw, percentUnit } from '../../quantity/percentKind.ts';
import { UNIT_OF } from '../../quantity/quantities.ts';
import { meantOf } from '../../temperature/correction.ts';
import type { Channel, Garden } from '../document/schema.ts';
import { fullScaleOf } from './channels.ts';
import { fitOf } from './decided.ts';

export type MeantSeries = {
  /** One for each reading; NaN where it means nothing, as of a thermometer at its rail. */
  readonly values: Float64Array;
  /** "% span", "raw counts", "°C". */
  readonly unit: string;
};

/** @param raws as they were recorded */
export function meantSeries(garden: Garden, channel: Channel, raws: Float64Array): MeantSeries {
  const fit = channel.quantity === 'moisture' ? fitOf(garden, channel) : null;
  if (fit && !isShownRaw(fit.percentKind))
    return { values: readCurves(fit, raws), unit: percentUnit(fit.percentKind) };
  const scale = fullScaleOf(garden, channel);
  return {
    values: raws.map((raw) => meantOf(channel, raw, scale) ?? Number.NaN),
    unit: UNIT_OF[channel.quantity].unit,
  };
}
