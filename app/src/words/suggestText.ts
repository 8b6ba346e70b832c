/** What a suggestion of limits rests on, and why there is none. */
import type { Rough } from '@plain-trowel/core/plants/availableTo';
import type { NoSuggestion, Suggested } from '@plain-trowel/core/plants/suggestLimits';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { percentUnit, type PercentScale } from '@plain-trowel/core/quantity/percentKind';

export function basisText(unknown: Suggested['unknown'], plant: string | undefined, soil: string): string {
  if (unknown.includes('percent'))
    return 'Percent of this calibration says nothing about the soil, so plant and soil cannot be turned into it. A calibration by mixing, pot weighing or a drain test can.';
  return `Plant: ${plant ?? 'not said, so it is taken to be thirsty'}. Soil: ${soil}.`;
}

/** Span percent is not linear in water: what its limits may stand for. */
export const roughText = ({ start, stop }: Rough): string =>
  `Rough: as probes of this kind bend, the start may stand for ${start[0]} to ${start[1]} % of the available water and the stop for ${stop[0]} to ${stop[1]} %. Watch the plant for a week, then set them from what you saw.`;

export function noSuggestionText(none: NoSuggestion, scale: PercentScale): string {
  const unit = percentUnit(scale.percentKind);
  const of = (percent: number) => `${formatNumber(percent, 1)} ${unit}`;
  switch (none.why) {
    case 'soil':
      return none.lacks === 'density'
        ? 'No limits can be suggested by mass: the bulk density of this soil is not known. A mixing series measures it.'
        : `No limits can be suggested: what this soil holds is not known, and the same ${unit} is wet in sand and dry in peat. Choose the soil, or make a drain test.`;
    case 'narrow':
      return `No limits can be suggested: in this soil start and stop would lie at ${of(none.startPercent)} and ${of(none.stopPercent)}, closer together than limits can be (1 %). Water by hand or by the clock, or use a soil that holds more.`;
    case 'curve':
      return `No limits can be suggested: for this plant and soil one would lie at ${of(none.percent)}, and this calibration reads from ${formatNumber(none.curveEnds[0], 1)} to ${of(none.curveEnds[1])}. Take further points, or check the soil.`;
  }
}
