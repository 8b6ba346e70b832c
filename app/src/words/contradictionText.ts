import type { Contradiction, LineField } from '@plain-trowel/core/control/programs/contradiction';
import type { OwnedContradiction } from '@plain-trowel/core/garden/bind/contradictions';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatDuration, formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { minuteText } from '@plain-trowel/core/quantity/timeText';

/** Which two settings disagree, by how much, and how to resolve it. No default: a new kind fails to compile here until it has words. */
export function contradictionText({ kind, at, against, value, limit, percentKind }: Contradiction): string {
  const percent = (tenths: number) => `${formatNumber(tenths / 10, 1)} ${percentUnit(percentKind ?? 'span')}`;
  switch (kind) {
    case 'dose-over-run':
      return `The ${at === 'fallback' ? 'dose for a faulty probe' : 'dose'} takes ${formatDuration(value)}, and the maximum run is ${formatDuration(limit)}. Make the dose smaller or the maximum run longer.`;
    case 'dose-over-day':
      return `The ${at === 'fallback' ? 'dose for a faulty probe' : 'dose'} is ${formatVolume(value)}, and a day may have ${formatVolume(limit)}. Make the dose smaller or the daily maximum larger.`;
    case 'pulses-over-day':
      return `All doses of a round are ${formatVolume(value)}, and a day may have ${formatVolume(limit)}. Give fewer or smaller doses, or raise the daily maximum.`;
    case 'limits-unset':
      return 'Nobody has set the limits of this plot, and in percent of the soil a number that nobody chose means nothing. Choose its soil, or set the limits.';
    case 'limits-beyond':
      return value > limit
        ? `The stop limit, ${percent(value)}, lies above what this calibration or this soil can read, ${percent(limit)}: it would never stop by itself. Lower it.`
        : `The start limit, ${percent(value)}, lies below what this calibration can read, ${percent(limit)}: it would never start. Raise it.`;
    case 'run-over-interval':
      return `The maximum run of ${formatDuration(value)} is longer than the minimum interval of ${formatDuration(limit)} from start to start. Shorten the run or lengthen the interval.`;
    case 'soak-under-interval':
      return `The wait of ${formatDuration(value)} is shorter than the minimum interval of ${formatDuration(limit)}, which would hold the next dose anyway. Wait longer or shorten the interval.`;
    case 'soak-under-response':
      return `The wait of ${formatDuration(value)} is shorter than the ${formatDuration(limit)} in which a dose must be seen to arrive. Wait longer or expect the rise sooner.`;
    case 'rest-under-soak':
      return `The rest of ${formatDuration(value)} is shorter than the wait of ${formatDuration(limit)} between two doses. Rest longer.`;
    case 'interval-under-interval':
      return `The time between two doses, ${formatDuration(value)}, is shorter than the minimum interval of ${formatDuration(limit)}. Lengthen it or shorten the minimum interval.`;
    case 'slots-too-close':
      return `Two times are ${formatDuration(value)} apart, and the minimum interval is ${formatDuration(limit)}. Move one of them or shorten the interval.`;
    case 'slot-outside-hours':
      return `The time ${minuteText(value)} lies outside of the hours in which it may run. Move the time or widen the hours.`;
    case 'no-hours':
      return 'The hours begin and end at the same minute, so it could never run. Move one of them.';
    case 'stale-under-logging':
      return `A reading counts for ${formatDuration(value)}, but only one is taken each ${formatDuration(limit)}. Let it count for longer.`;
    case 'rise-under-noise':
      return `A rise of ${percent(value)} could be noise, which moves by ${percent(limit)}. Ask for a larger rise.`;
    case 'leader-missing':
      return 'Its leader is not another line of the same board. Choose one, or another program.';
    case 'leader-follows':
      return 'Its leader follows a line itself. Follow that one.';
    case 'leader-never-runs':
      return 'Its leader only alerts and never runs. Choose another leader, or give that one a program.';
    case 'no-probe':
      return 'This program goes by a probe, and the plot has none. Add a probe, or choose the timer.';
    case 'no-sensor':
      return `Nothing in this garden measures ${sensorWord(at)}, so it would never run. Name a channel for it on Bench, Readout, or leave this out.`;
    case 'which-sensor':
      return `${formatNumber(value)} channels measure ${sensorWord(at)}. Choose which of them this line goes by.`;
    case 'cell-crossed':
      return `It goes out above ${formatNumber(value)}, and on below ${formatNumber(limit)}: the first must be the larger number, and larger than what the cell reads with the lamp on.`;
    case 'no-latitude':
      return 'Sunrise and sunset need the latitude of the garden. Give it below, or go by the clock.';
    case 'hours-over-most':
      return `Its hours are ${formatDuration(value)} long, and it may be on for ${formatDuration(limit)} ${against === 'mostOn' ? 'at a stretch' : 'a day'}. Shorten the hours or raise that limit.`;
    case 'tank-unread':
      return 'This reservoir has no channel or too few levels, so its water is unknown and nothing would run. Complete it on Bench, Dose.';
  }
}

function sensorWord(at: Contradiction['at']): string {
  switch (at) {
    case 'dark':
    case 'cell':
      return 'light';
    case 'air':
      return 'the air temperature';
    case 'soilTemperature':
      return 'the temperature of this soil';
    case 'rain':
      return 'rain';
    case 'battery':
      return 'the battery voltage';
    case 'skip':
      return 'a skip switch';
    default:
      return 'this';
  }
}

/** A field as a sentence names it: "the maximum run". */
export function fieldName(field: LineField): string {
  return FIELD_NAMES[field];
}

const FIELD_NAMES: Readonly<Record<LineField, string>> = {
  dose: 'the dose',
  fallback: 'the dose for a faulty probe',
  pulses: 'the doses of a round',
  soak: 'the time it soaks',
  rest: 'the rest',
  interval: 'the time between two doses',
  slots: 'the times',
  leader: 'the leader',
  maxRun: 'the maximum run',
  dailyMax: 'the daily maximum',
  minInterval: 'the minimum interval',
  stale: 'how long a reading counts',
  rise: 'the rise that is asked for',
  response: 'the time in which it must rise',
  hours: 'the hours',
  dark: 'the condition “it is dark”',
  air: 'the condition on the air',
  soilTemperature: 'the condition on the soil',
  rain: 'the rain switch',
  battery: 'the condition on the battery',
  tank: 'the reservoir',
  program: 'the program',
  limits: 'the limits',
  skip: 'the skip switch',
  cell: 'the light cell',
  sun: 'sunrise and sunset',
  mostOn: 'the longest stretch',
  dayMost: 'the most of a day',
};

/** "A day may ask for 480 ml; 130 ml are allowed: only the first run is whole." */
export function budgetText({
  askedMl,
  allowedMl,
  wholeRuns,
}: {
  readonly askedMl: number;
  readonly allowedMl: number;
  readonly wholeRuns: number;
}): string {
  const both = `A day may ask for ${formatVolume(askedMl)}; ${formatVolume(allowedMl)} are allowed`;
  if (wholeRuns === 0) return `${both}: not one run is whole.`;
  if (askedMl <= allowedMl) return `${both}.`;
  return wholeRuns === 1
    ? `${both}: only the first run is whole.`
    : `${both}: only the first ${wholeRuns} runs are whole.`;
}

/** What a change has brought in, told once it is kept: which lines water nothing by themselves now, and which lost the guard of their reservoir. */
export function broughtText(
  brought: readonly OwnedContradiction[],
  withoutTank: readonly WaterLine[],
): string | null {
  const sentences = [
    ...standsStill(brought, 'line'),
    ...standsStill(brought, 'contact'),
    ...withoutTank.map(
      ({ name, rise }) =>
        `${name} has no reservoir to watch any more: nothing stops it when it runs dry, and it is only noticed after ${rise.times} ${rise.times === 1 ? 'dose' : 'doses'} that raise nothing.`,
    ),
  ];
  return sentences.length === 0 ? null : sentences.join(' ');
}

function standsStill(brought: readonly OwnedContradiction[], is: 'line' | 'contact'): string[] {
  const own = brought.filter((one) => one.owner.is === is);
  const [first] = own;
  if (!first) return [];
  const names = [...new Set(own.map((one) => one.owner.name))];
  const isOne = names.length === 1;
  const still =
    is === 'line'
      ? `${isOne ? 'waters' : 'water'} nothing by ${isOne ? 'itself' : 'themselves'}`
      : `${isOne ? 'stays' : 'stay'} at rest`;
  return [`${names.join(' and ')} ${still} until this is solved: ${contradictionText(first)}`];
}
