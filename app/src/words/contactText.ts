/** What outputs that hold a state do, in plain words. */
import type { ContactAnswer } from '@plain-trowel/core/control/host/answers';
import type { Contact, ContactRule, SavedEdge } from '@plain-trowel/core/garden/document/contactSchema';
import type { Plot } from '@plain-trowel/core/garden/document/schema';
import { formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import type { PercentScale } from '@plain-trowel/core/quantity/percentKind';
import { plainConditions, driesTo, onlyWhile, stopText } from './programText.ts';
import { contactReasonText } from './reasonText.ts';
import { capital } from './spoken.ts';
import { minuteText, shortTime } from '@plain-trowel/core/quantity/timeText';

export const CONTACT_WORDS: Readonly<
  Record<ContactRule['kind'], { readonly name: string; readonly when: string }>
> = {
  permit: {
    name: 'Permit contact',
    when: 'A contact in series with the valve of a timer that you have already. The timer waters as it always did; the contact can only forbid. Right where a ready-made timer is to stay in charge.',
  },
  light: {
    name: 'Grow light',
    when: 'Switches a lamp by hours, by sunrise and sunset, and by a light cell.',
  },
};

/** "06:00", "sunset", "30 min before sunset". */
export function edgeText({ by, minute }: SavedEdge): string {
  if (by === 'clock') return minuteText(minute);
  if (minute === 0) return by;
  return `${formatDuration(Math.abs(minute) * 60)} ${minute < 0 ? 'before' : 'after'} ${by}`;
}

/** What a contact will do, in sentences. @param scale what the plot's limits are a percent of */
export function contactSentence(contact: Contact, plot: Plot, scale: PercentScale | null): string {
  const { rule, conditions, mostOnMin, dayMaxMin } = contact;
  const { hours } = conditions;
  const during = hours
    ? [`it is between ${minuteText(hours.fromMinute)} and ${minuteText(hours.toMinute)}`]
    : [];
  const only = onlyWhile([...during, ...plainConditions(conditions)]);
  const most = mostText(mostOnMin, dayMaxMin);
  if (rule.kind === 'light') {
    const cell = rule.cell
      ? `, once the light cell reads below ${formatNumber(rule.cell.darkBelow)} until it reads above ${formatNumber(rule.cell.brightAbove)}`
      : '';
    return `Lit from ${edgeText(rule.from)} to ${edgeText(rule.to)}${cell}${most}.${only} Where nobody can tell, it is dark.`;
  }
  const rest =
    rule.atRest === 'forbids'
      ? 'Where nobody can tell, and without current, it forbids.'
      : 'Where nobody can tell, and without current, it lets the timer water.';
  return `${capital(driesTo(plot.name, plot.limits.startTenths, scale))}, the other timer may water until ${plot.name} has ${stopText(plot.limits.stopTenths, scale)}; then it may not, until ${plot.name} is as dry as that again${most}.${only} ${rest}`;
}

function mostText(mostOnMin: number | null, dayMaxMin: number | null): string {
  const parts = [
    ...(mostOnMin === null ? [] : [`${formatDuration(mostOnMin * 60)} at a stretch`]),
    ...(dayMaxMin === null ? [] : [`${formatDuration(dayMaxMin * 60)} a day`]),
  ];
  return parts.length === 0 ? '' : `; never more than ${parts.join(' and ')}`;
}

/** What it does now: "lit since 06:00: it is within its hours". */
export function contactState(use: ContactRule['kind'], answer: ContactAnswer, timeZone: string): string {
  const does =
    use === 'light'
      ? answer.isOn
        ? 'lit'
        : 'dark'
      : answer.isOn
        ? 'lets the timer water'
        : 'forbids the timer';
  const rest = answer.isResting ? ' (at rest)' : '';
  return `${does}${rest} since ${shortTime(answer.sinceMs, timeZone)}: ${contactReasonText(answer.reason)}`;
}
