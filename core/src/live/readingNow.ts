import { byId } from '../quantity/byId.ts';
import { countsAtPercent } from '../calibration/curve.ts';
import { asGuess, uncertaintyOf, type Uncertainty } from '../calibration/uncertainty.ts';
import { fullScaleOf } from '../garden/bind/channels.ts';
import { calibratedOfVersion } from '../garden/bind/curveOf.ts';
import type { PlotParts } from '../garden/bind/plotParts.ts';
import type { Calibration, Garden } from '../garden/document/schema.ts';
import type { PresentValue } from '../signal/presentValue.ts';
import { meantOf } from '../temperature/correction.ts';

/** Soil temperature of a plot as it comes in now, °C; null where no thermometer of it speaks. */
export function soilTemperatureNow(
  garden: Garden,
  plotId: string,
  present: ReadonlyMap<string, PresentValue>,
): number | null {
  for (const channel of garden.channels) {
    if (channel.quantity !== 'soil temperature') continue;
    const probe = byId(garden.probes, channel.probeId);
    const value = present.get(channel.id);
    if (probe?.plotId !== plotId || !value) continue;
    const meant = meantOf(channel, value.rawCounts, fullScaleOf(garden, channel));
    if (meant !== null && Number.isFinite(meant)) return meant;
  }
  return null;
}

/** How far the percent of a present value may be off under a calibration; a guess copied from a sister differs from unit to unit besides. */
function uncertaintyNow(
  calibration: Calibration,
  present: Pick<PresentValue, 'rawCounts' | 'noiseCounts' | 'readings' | 'stepCounts'>,
  temperatureC: number | null,
): Uncertainty | null {
  const calibrated = calibratedOfVersion(calibration);
  if (!calibrated) return null;
  const of = uncertaintyOf(calibrated, {
    rawCounts: present.rawCounts,
    noiseCounts: present.noiseCounts,
    readings: present.readings,
    stepCounts: present.stepCounts,
    temperatureC,
  });
  return calibration.guessOf === null ? of : asGuess(of, calibrated, present.rawCounts);
}

/** ± of a plot's reading as it comes in, with all that is known of it. */
export const plotUncertainty = (
  garden: Garden,
  parts: PlotParts,
  present: ReadonlyMap<string, PresentValue>,
): Uncertainty | null => {
  const value = present.get(parts.channel?.id ?? '');
  return parts.calibration && value
    ? uncertaintyNow(parts.calibration, value, soilTemperatureNow(garden, parts.plot.id, present))
    : null;
};

/** How far a single calm reading at a limit may be off, percent; null where several probes decide, or none is calibrated. @param percent where the limit stands */
export function plusMinusAt({ calibration, deciders, fit }: PlotParts, percent: number): number | null {
  if (!calibration || !fit || deciders.by !== 'one') return null;
  const at = {
    rawCounts: countsAtPercent(fit, percent),
    noiseCounts: fit.noiseCounts,
    readings: 1,
    stepCounts: 1,
  };
  return uncertaintyNow(calibration, at, null)?.plusMinus ?? null;
}
