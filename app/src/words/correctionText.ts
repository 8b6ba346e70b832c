import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { ComparisonIssue } from '@plain-trowel/core/temperature/comparison';
import type { LineIssue, TensionIssue, TrimIssue } from '@plain-trowel/core/temperature/correction';
import type { SunSign } from '@plain-trowel/core/temperature/sunBias';
import type { ThreePointIssue } from '@plain-trowel/core/temperature/thermistor';
import { temperatureApartText } from './unitText.ts';

export const lineIssueText = (issue: LineIssue): string =>
  issue.kind === 'too-close'
    ? `The two points are ${temperatureApartText(issue.apart)} apart; a gain needs at least ${temperatureApartText(issue.needed, 0)}. Warm the bath and take it again.`
    : `These two points make a gain of ${formatNumber(issue.gain, 2)}; no thermometer is that far off. One of them was misread: take both again.`;

export const trimIssueText = (issue: TrimIssue): string =>
  issue.kind === 'not-positive'
    ? 'The meter and the board must both show more than zero. Check the battery’s wires.'
    : `That would change the multiplier to ${formatNumber(issue.multiplier, 2)}: far more than a tolerance. Check the divider’s resistors before you trim.`;

export function tensionIssueText(issue: TensionIssue): string {
  switch (issue.kind) {
    case 'too-close':
      return `The two points are ${formatNumber(issue.apartKpa, 1)} kPa apart; a line needs at least ${issue.neededKpa} kPa.`;
    case 'same-reading':
      return 'The reading has hardly moved between the two points: a count would be worth more than half a kPa. Look at its wires and at the air in its tube, and take both again.';
    case 'odd-reach':
      return `By these two points the board could tell ${formatNumber(issue.fromKpa, 0)} to ${formatNumber(issue.toKpa, 0)} kPa. It must tell 0 to 60, and no sensor of this kind goes far beyond 100. One of the points was misread, or the divider before the pin is wrong.`;
  }
}

export function threePointText(issue: ThreePointIssue): string {
  switch (issue.kind) {
    case 'not-positive':
      return 'Every point needs a resistance above zero.';
    case 'too-close':
      return `Two points are ${temperatureApartText(issue.apartC)} apart; at least ${temperatureApartText(issue.neededC, 0)} are needed.`;
    case 'not-falling':
      return 'The warmer the thermistor, the lower its resistance. Two of the points are exchanged or misread.';
  }
}

export const comparisonText = (issue: ComparisonIssue): string =>
  issue.kind === 'too-few'
    ? 'Two thermometers at least are needed.'
    : `They have ${formatNumber(issue.hours, 1)} hours in common; ${issue.neededHours} are needed. Leave them side by side for a night.`;

export const sunText = (sign: SunSign, time: string): string =>
  sign.kind === 'too-fast'
    ? `At ${time} it rose by ${temperatureApartText(sign.ratePerHour, 0)} an hour: that is the sun on its housing, not the air. Shade it.`
    : `At ${time} it stood ${temperatureApartText(sign.aboveC, 0)} above the soil, which had not followed: the sun shines on it. Shade it.`;
