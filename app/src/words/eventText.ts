import { AMOUNTS, type EntryIssue, type Written } from '@plain-trowel/core/records/entry';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import {
  formatCounts,
  formatDuration,
  formatNumber,
  formatPercent,
  formatVolume,
} from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { alertWords } from '@plain-trowel/core/telling/alertWords';
import { alertPhaseWord } from './alertText.ts';
import { contactReasonText, reasonText } from './reasonText.ts';

/** What people write down, as it is called. */
export const WRITTEN_NAMES: Readonly<Record<Written, string>> = {
  watered: 'Watered',
  fed: 'Fed',
  rain: 'Rain',
  flower: 'Flower',
  'yellow leaf': 'Yellow leaf',
  repotted: 'Repotted',
  mulched: 'Mulched',
  moved: 'Moved',
  'probe changed': 'Probe changed',
  dial: 'Dial meter',
  photo: 'Photo',
  note: 'Note',
};

const amountText = (what: Written, amount: number): string => {
  const { unit, decimals } = AMOUNTS[what] ?? { unit: '', decimals: 1 };
  return unit === 'ml'
    ? formatVolume(amount)
    : `${formatNumber(amount, decimals)}${unit === '' ? '' : ` ${unit}`}`;
};

export function entryIssueText(issue: EntryIssue): string {
  switch (issue.kind) {
    case 'no-amount':
      return issue.amount.unit === '' ? 'What did it show?' : `How much was it, in ${issue.amount.unit}?`;
    case 'amount-out':
      return `From ${formatNumber(issue.amount.least)} to ${formatNumber(issue.amount.most)}${issue.amount.unit === '' ? '' : ` ${issue.amount.unit}`}.`;
    case 'no-photo':
      return 'Choose a picture.';
    case 'no-text':
      return 'Write a few words.';
    case 'no-time':
      return 'That is no time between 2000 and 2100.';
    case 'in-future':
      return 'That time has not come yet.';
  }
}

/** "at 31.0 % span: ", or the raw counts where those decide alone. */
function atText({
  tenths,
  percentKind = 'span',
  rawCounts,
}: Extract<GardenEvent, { kind: 'pump-started' }>): string {
  if (percentKind === 'counts')
    return rawCounts === undefined ? '' : `at ${formatCounts(rawCounts)} counts: `;
  return `at ${formatPercent((tenths ?? 0) / 10, percentKind)}: `;
}

/** What happened, in a few words, and the rest of the story. */
export function eventText(event: GardenEvent): { what: string; detail: string } {
  switch (event.kind) {
    case 'pump-started':
      return {
        what: 'Pump on',
        detail:
          event.tenths === null ? reasonText(event.reason) : `${atText(event)}${reasonText(event.reason)}`,
      };
    case 'pump-stopped':
      return {
        what: 'Pump off',
        detail: `after ${formatDuration(event.ranS)}, about ${formatVolume(event.volumeMl)}: ${reasonText(event.reason)}`,
      };
    case 'contact-on':
      return {
        what: event.use === 'light' ? 'Light on' : 'Let through',
        detail: `${event.contactName}: ${contactReasonText(event.reason)}`,
      };
    case 'contact-off':
      return {
        what: event.use === 'light' ? 'Light off' : 'Forbidden',
        detail: `${event.contactName}, after ${formatDuration(event.onS)}: ${contactReasonText(event.reason)}`,
      };
    case 'held':
      return { what: 'Held', detail: reasonText(event.reason) };
    case 'line-locked':
      return { what: 'Locked', detail: `${event.lineName}: ${reasonText('locked')}` };
    case 'line-unlocked':
      return { what: 'Unlocked', detail: `${event.lineName}, by hand` };
    case 'order-refused':
      return { what: 'Refused', detail: `an order by hand: ${reasonText(event.reason)}` };
    case 'alert':
      return { what: alertPhaseWord(event.phase), detail: `${event.subject}: ${alertWords(event.alert)}` };
    case 'poured':
      return {
        what: 'Watered',
        detail: `${formatVolume(event.volumeMl)} by hand${event.text ? `: ${event.text}` : ''}`,
      };
    case 'entry':
      return {
        what: WRITTEN_NAMES[event.what],
        detail: [event.amount === undefined ? '' : amountText(event.what, event.amount), event.text]
          .filter((one) => one !== '')
          .join(': '),
      };
    case 'probe-moved':
      return {
        what: 'Probe moved',
        detail:
          event.to === 'soil'
            ? 'into the soil'
            : event.to === 'air'
              ? 'out into the air'
              : 'into the water jar',
      };
    case 'reference':
      return {
        what: 'Reference',
        detail: `${event.condition}: ${formatCounts(event.rawCounts)} counts, spread ± ${formatNumber(event.spreadCounts, 1)}`,
      };
    case 'calibrated':
      return {
        what: 'Calibrated',
        detail: `${percentUnit(event.percentKind ?? 'span')}: dry ${formatCounts(event.dryCounts)}, wet ${formatCounts(event.wetCounts)} counts`,
      };
    case 'imported':
      return {
        what: 'Imported',
        detail: `${formatNumber(event.readings)} new ${event.readings === 1 ? 'reading' : 'readings'} from ${event.what}${
          (event.beside ?? 0) > 0 ? `, ${formatNumber(event.beside ?? 0)} of them beside recorded ones` : ''
        }`,
      };
    case 'removed':
      return {
        what: 'Deleted',
        detail: `${formatNumber(event.readings)} ${event.readings === 1 ? 'reading' : 'readings'} of ${event.what}`,
      };
    case 'note':
      return { what: 'Note', detail: event.text };
  }
}
