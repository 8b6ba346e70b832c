import type { Finding } from '@plain-trowel/core/calibration/checks';
import type { ConvertIssue } from '@plain-trowel/core/calibration/convertPercent';
import type { CurveKind } from '@plain-trowel/core/calibration/curve';
import type { FactoryCheck } from '@plain-trowel/core/calibration/factoryCheck';
import type { FitIssue } from '@plain-trowel/core/calibration/fitCurve';
import type { InStep } from '@plain-trowel/core/calibration/meterPairs';
import type { KnownIssue } from '@plain-trowel/core/calibration/methods';
import type { Part } from '@plain-trowel/core/calibration/uncertainty';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { temperatureApartText } from './unitText.ts';

export const CURVE_WORDS: Readonly<Record<CurveKind, string>> = {
  line: 'straight line',
  inverse: 'one over the voltage',
  quadratic: 'quadratic',
  table: 'table, straight between',
  monotone: 'smooth through the points',
};

/** Where a ± comes from, and what would make it smaller. */
const PART_WORDS: Readonly<Record<Part, string>> = {
  noise: 'the noise of single readings: a calmer signal helps, or a longer cable taken away',
  quantisation: 'the coarse steps that the readings come in',
  repeatability: 'pushing the probe in again: capture each condition three times',
  unsettled: 'references captured while the reading still moved: capture them again, at rest',
  'known values': 'what the weighed or typed values may be off by',
  fit: 'what the points leave open, or the curve misses them by: more points between, or another curve',
  temperature: 'the temperature: a thermometer in the soil helps',
};
const shareText = (share: number) =>
  share < 10
    ? `Where it is widest, the ± is ${formatNumber(100 * share)} % of the whole scale.`
    : 'The ± is wider than the whole scale.';

/** What a calibration was taken into use in spite of. */
export const markText = (kinds: readonly string[]): string =>
  [
    kinds.includes('uncertain') && 'Its ± is wide, over 15 % of the scale.',
    kinds.includes('runs-the-other-way') && 'Its numbers rise when wet, though its kind falls.',
  ]
    .filter(Boolean)
    .join(' ');

/** The same in a few words, for a ruler. */
export const shortMark = (kinds: readonly string[]): string =>
  [
    kinds.includes('uncertain') && 'a wide ±',
    kinds.includes('runs-the-other-way') && 'rises when wet, though its kind falls',
  ]
    .filter(Boolean)
    .join('; ');

/** What stands against a calibration, and the next thing to do. */
export function findingText(finding: Finding): string {
  switch (finding.kind) {
    case 'span-too-small':
      if (finding.isTyped)
        return `The two numbers are ${formatNumber(finding.spanCounts)} counts apart; with this noise they must be at least ${formatNumber(finding.neededCounts, 1)} apart, or water would start and stop by chance. Take them further apart.`;
      return `The references are ${formatNumber(finding.spanCounts)} counts apart; with this noise they must be at least ${formatNumber(finding.neededCounts, 1)} apart. Most likely the probe had not moved from one condition to the other: capture one of them again.`;
    case 'at-the-rail':
      return `A reference reads ${formatCounts(finding.counts)}, an end of the converter: open, shorted or clipped. Look at the plug and the divider, then capture it again.`;
    case 'not-monotone':
      return 'The points turn back: one percent would stand for two raw values. Leave a wrong point out, or capture it again.';
    case 'out-of-order':
      return 'Not every wetter point reads further the same way. Two captures may be exchanged, or one was taken too early.';
    case 'runs-the-other-way':
      return 'This probe seems to rise when wet; its kind usually falls. Were dry and wet exchanged?';
    case 'used-twice':
      return 'Two conditions share one capture. Each condition needs its own: capture one of them again.';
    case 'mixed-boards':
      return 'The references were taken on different boards. Take them all on the board that will read the probe.';
    case 'mixed-supplies':
      return `The references were taken at different supplies (${formatNumber(finding.lowV, 2)} V and ${formatNumber(finding.highV, 2)} V). The reading moves with the supply: take them all at the one in use.`;
    case 'not-settled':
      return `${finding.points === 1 ? 'One reference was' : `${finding.points} references were`} captured while the reading still moved. The ± says what that costs; capturing again is cheaper.`;
    case 'once-only':
      return `${finding.points === 1 ? 'One condition was' : `${finding.points} conditions were`} captured once only. Three times shows the spread; until then a usual one is assumed.`;
    case 'repeats-apart':
      return `Repeats of one condition lie ${formatNumber(finding.counts)} counts apart, more than a twentieth of the ${formatNumber(finding.spanCounts)} between the references. One of them was not that condition, or had not come to rest: take it back.`;
    case 'same-readings':
      return 'Two captures of one condition were made of mostly the same readings. A repeat means taking the probe out, putting it back and letting it come to rest.';
    case 'one-word':
      return 'One word only was felt so far. Wait until it feels different, drier or wetter, and capture again: a cut needs something on either side.';
    case 'no-order':
      return 'What was felt goes neither up nor down with the numbers: the same word at both ends, or as many pairs one way as the other. Leave out a capture that was felt wrongly, or capture more, wet days and dry ones.';
    case 'too-uncertain':
      return `${shareText(finding.shareOfScale)} That hardly tells dry from wet, so nothing may go by it. Most of it comes from ${PART_WORDS[finding.mostly]}.`;
    case 'uncertain':
      return `${shareText(finding.shareOfScale)} Most of it comes from ${PART_WORDS[finding.mostly]}. To use it all the same, write down why; it stays marked.`;
    case 'old':
      return `The oldest reference is ${finding.weeks} weeks old. Soil, supply and probe may have changed since.`;
    case 'no-temperature':
      return 'No temperature was noted. Cheap probes drift with it; a thermometer in the plot would say by how much.';
    case 'temperatures-apart':
      return `The references lie ${temperatureApartText(finding.spanC)} apart. The temperature gets a number of its own only where the points can tell it from the moisture.`;
    case 'mind-the-line':
      return 'Water must stay below the printed line: above it the electronics get wet, and the reading is wrong for days.';
    case 'beyond-hundred':
      return 'The wettest point lies above 100 %, where a board’s table ends. Take percent by volume instead.';
  }
}

/** Why a point has no percent yet. */
export function knownText(issue: KnownIssue): string {
  switch (issue.kind) {
    case 'not-typed':
      return 'nothing was typed with it';
    case 'no-percent':
      return 'stands for no percent by itself';
    case 'nothing-known':
      return 'give the dry soil, or the soaked and the driest weight';
    case 'no-water-between':
      return 'the soaked and the driest weight are too near to each other';
    case 'lighter-than-dry':
      return `lighter than everything dry by ${formatNumber(issue.byG)} g: one of the weights is wrong`;
    case 'over-porosity':
      return `${formatNumber(100 * issue.volumetric, 1)} % VWC, and the pores hold ${formatNumber(100 * issue.porosity, 1)} %: not pressed down to the line, or a wrong volume`;
    case 'too-dense':
      return `a bulk density of ${formatNumber(issue.bulkDensity, 2)} g/cm³: grains would overlap; check the volume`;
    case 'full':
      return `the soil already holds ${formatNumber(100 * issue.volumetric, 1)} % of its ${formatNumber(100 * issue.porosity, 1)} % of pores: dry it first`;
    case 'sample-gained':
      return 'the sample weighs more dry than wet: exchange the two';
    case 'steps':
      return 'three to six steps';
    case 'not-positive':
      return `give a number above zero for every weight and the volume`;
  }
}

export function fitIssueText(issue: FitIssue): string {
  switch (issue.kind) {
    case 'too-few':
      return `needs ${issue.needs} points`;
    case 'not-monotone':
      return `turns back near ${formatCounts(Math.round(issue.atCounts))}`;
    case 'same-counts':
      return `two points at ${formatCounts(issue.counts)}`;
    case 'through-zero':
      return 'no value at 0 counts';
    case 'flat':
      return 'all points alike';
    case 'not-finite':
      return 'cannot be worked out';
  }
}

export function convertIssueText(issue: ConvertIssue): string {
  const names = {
    bulkDensity: 'the bulk density',
    capacityVwc: 'the capacity',
    wiltingVwc: 'the wilting point',
  };
  switch (issue.kind) {
    case 'relative-only':
      return 'Span and factory percent know nothing of the soil; only a method that weighs water can be turned into another kind.';
    case 'unknown':
      return `For this ${issue.needs.map((need) => names[need]).join(' and ')} must be known.`;
    case 'no-range':
      return 'Capacity and wilting point are too near to each other.';
  }
}

export function inStepText({ verdict, pairs, rank, low, high }: InStep): string {
  if (verdict === 'too-few')
    return `${pairs} ${pairs === 1 ? 'pair' : 'pairs'} so far; from five on, wet days and dry ones, something can be said of whether the two are in step.`;
  const way = rank < 0 ? 'the numbers fall as the meter rises' : 'the numbers rise with the meter';
  const range = `rank correlation between ${formatNumber(low, 2)} and ${formatNumber(high, 2)}, ${way}`;
  switch (verdict) {
    case 'in-step':
      return `In step: ${pairs} pairs, ${range}.`;
    case 'loosely':
      return `Loosely in step: ${pairs} pairs, ${range}. The ± will be wide.`;
    case 'not-in-step':
      return `Not in step: ${pairs} pairs, ${range}. One of the two measures something else; do not calibrate with it.`;
    case 'cannot-tell':
      return `${pairs} pairs say little yet: ${range}. More of them, wet days and dry ones, before you go by it.`;
  }
}

export function factoryText(check: FactoryCheck): string {
  const off = check.differences.map(({ percent }) => `${formatNumber(percent, 1)} % VWC`).join(' and ');
  switch (check.verdict) {
    case 'agrees':
      return `Agrees within its ±: off by ${off}. The sheet’s curve is kept as it is, as factory percent.`;
    case 'offset':
      return `Off by ${off}, more than chance. The curve is moved by ${formatNumber(check.offset, 1)} % VWC and becomes VWC percent.`;
    case 'gain':
      return `Off by ${off}, and not evenly. The curve is turned (× ${formatNumber(check.gain, 2)}, ${formatNumber(check.offset, 1)} % VWC) and becomes VWC percent.`;
  }
}
