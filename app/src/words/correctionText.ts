import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { ComparisonIssue } from '@plain-trowel/core/temperature/comparison';
import type { LineIssue, TrimIssue } from '@plain-trowel/core/temperature/correction';
import type { SunSign } from '@plain-trowel/core/temperature/sunBias';
import type { ThreePointIssue } from '@plain-trowel/core/temperature/thermistor';

export const lineIssueText = (issue: LineIssue): string =>
  issue.kind === 'too-close'
    ? `The two points are ${formatNumber(issue.apart, 1)} °C apart; a gain needs at least ${formatNumber(issue.needed)} °C. Warm the bath and take it again.`
    : `These two points make a gain of ${formatNumber(issue.gain, 2)}; no thermometer is that far off. One of them was misread: take both again.`;

export const trimIssueText = (issue: TrimIssue): string =>
  issue.kind === 'not-positive'
    ? 'The meter and the board must both show more than nought. Check the battery’s wires.'
    : `That would change the multiplier to ${formatNumber(issue.multiplier, 2)}: far more than a tolerance. Check the divider’s resistors before you trim.`;

export function threePointText(issue: ThreePointIssue): string {
  switch (issue.kind) {
    case 'not-positive':
      return 'Every point needs a resistance above nought.';
    case 'too-close':
      return `Two points are ${formatNumber(issue.apartC, 1)} °C apart; at least ${issue.neededC} °C are needed.`;
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
    ? `At ${time} it rose by ${formatNumber(sign.ratePerHour)} °C an hour: that is the sun on its housing, not the air. Shade it.`
    : `At ${time} it stood ${formatNumber(sign.aboveC)} °C above the soil, which had not followed: the sun shines on it. Shade it.`;
