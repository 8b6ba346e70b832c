/**
 * A plot's words and its limits are one vocabulary: what lies between start and stop is right, what lies above is wet and then flooded, what lies below is low and
 * then dry. Words that a person has moved apart from the limits stay apart, and it is said.
 */
import { edgesByLimits, edgesNear, type BandEdges } from '../../quantity/bands.ts';
import { knownSoil } from '../../soils/soilKinds.ts';
import { soilMarks, type SoilMarks } from '../../soils/soilMarks.ts';
import type { Limits } from '../../control/limits.ts';
import { plotParts } from './plotParts.ts';
import type { Garden, Plot } from '../document/schema.ts';

/** Where wilting, capacity and pores stand on the scale that a plot is read by. */
export const marksOf = (garden: Garden, { id, soil }: Plot): SoilMarks =>
  soilMarks(plotParts(garden, id)?.fit?.percentKind ?? 'span', knownSoil(soil, soil.kindId));

/** The words that go with a plot's limits. */
export const usualEdges = (garden: Garden, plot: Plot, { startTenths, stopTenths }: Limits): BandEdges =>
  edgesByLimits(startTenths, stopTenths, marksOf(garden, plot));

/** Whether “right” stands elsewhere than between the limits. */
export function areWordsApart(garden: Garden, plot: Plot): boolean {
  const usual = usualEdges(garden, plot, plot.limits);
  return plot.bandEdges[1] !== usual[1] || plot.bandEdges[2] !== usual[2];
}

/**
 * The words of a plot after its limits, its soil or its kind of percent have changed: they go with the limits, unless they stood apart. Where “dry” or “flooded”
 * begins stays, if a person has said so.
 */
export function edgesAfter(before: Garden, after: Garden, plotId: string, limits: Limits): BandEdges {
  const [held, plot] = [before, after].map((garden) => garden.plots.find((one) => one.id === plotId));
  if (!held || !plot) return edgesByLimits(limits.startTenths, limits.stopTenths, NOTHING_KNOWN);
  if (areWordsApart(before, held)) return plot.bandEdges;
  const usualBefore = usualEdges(before, held, held.limits);
  const usual = usualEdges(after, plot, limits);
  const isOwn = (at: 0 | 3) => held.bandEdges[at] !== usualBefore[at];
  return edgesNear([
    isOwn(0) ? plot.bandEdges[0] : usual[0],
    usual[1],
    usual[2],
    isOwn(3) ? plot.bandEdges[3] : usual[3],
  ]);
}

const NOTHING_KNOWN = { wiltingTenths: null, capacityTenths: null } as const;
