/** Limits to begin with for a plot, as it stands: by its plant, soil, weather and calibration. */
import type { Curve } from '../../calibration/curve.ts';
import { plantGroup } from '../../plants/plantGroups.ts';
import { suggestLimits, type Suggestion } from '../../plants/suggestLimits.ts';
import type { SpanEnds } from '../../plants/availableTo.ts';
import { demandMm } from '../../plants/waterNeed.ts';
import { knownSoil } from '../../soils/soilKinds.ts';
import type { Calibration, Garden } from '../document/schema.ts';
import { plotParts, type PlotParts } from './plotParts.ts';

/** “Just right” reads half of the span until somebody says otherwise, percent. */
const USUAL_RIGHT = 50;

function spanEnds(calibration: Calibration | null): SpanEnds {
  if (calibration?.method === 'dry-soaked') return { kind: 'dry-drained' };
  if (calibration?.method === 'dry-right-soaked')
    return { kind: 'felt', rightPercent: calibration.inputs.rightPercent ?? USUAL_RIGHT };
  return { kind: 'nothing' };
}

export function suggestionFor({ garden, plot, calibration }: PlotParts, curve: Curve): Suggestion {
  const plant = plantGroup(plot.plantGroupId);
  return suggestLimits({
    plant,
    soil: knownSoil(plot.soil, plot.soil.kindId),
    kind: curve.percentKind,
    span: spanEnds(calibration),
    etMmPerDay: demandMm(plant, garden.weather),
    curve,
  });
}

/** Kinds of percent in which a number that nobody chose means nothing: what is wet in sand is dry in peat. */
const OF_THE_SOIL: ReadonlySet<string> = new Set(['volumetric', 'gravimetric', 'available']);

/** Whether the limits of a plot stand as at first, in a kind of percent in which those say nothing. */
export const areLimitsUnset = ({ plot, fit }: Pick<PlotParts, 'plot' | 'fit'>): boolean =>
  !plot.limitsSet && fit !== null && OF_THE_SOIL.has(fit.percentKind);

/** Limits of the soil for a plot that has none of its own yet, where the soil is known; else the same garden. */
export function withFirstLimits(garden: Garden, plotId: string): Garden {
  const parts = plotParts(garden, plotId);
  if (!parts?.fit || !areLimitsUnset(parts)) return garden;
  const given = suggestionFor(parts, parts.fit);
  if (given.kind === 'none') return garden;
  const limits = { startTenths: given.startTenths, stopTenths: given.stopTenths };
  return {
    ...garden,
    plots: garden.plots.map((plot) => (plot.id === plotId ? { ...plot, limits, limitsSet: true } : plot)),
  };
}
