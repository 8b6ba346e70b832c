import type { Contradiction } from '@plain-trowel/core/control/programs/contradiction';
import { formatDuration, formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import { minuteText } from './timeText.ts';

/** Which two settings disagree, by how much, and how to resolve it. No default: a new kind fails to compile here until it has words. */
export function contradictionText({ kind, at, value, limit }: Contradiction): string {
  switch (kind) {
    case 'dose-over-run':
      return `The ${at === 'fallback' ? 'dose for a faulty probe' : 'dose'} takes ${formatDuration(value)}, and the maximum run is ${formatDuration(limit)}. Make the dose smaller or the maximum run longer.`;
    case 'dose-over-day':
      return `The ${at === 'fallback' ? 'dose for a faulty probe' : 'dose'} is ${formatVolume(value)}, and a day may have ${formatVolume(limit)}. Make the dose smaller or the daily maximum larger.`;
    case 'pulses-over-day':
      return `All doses of a round are ${formatVolume(value)}, and a day may have ${formatVolume(limit)}. Give fewer or smaller doses, or raise the daily maximum.`;
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
      return `A rise of ${formatNumber(value / 10, 1)} % could be noise, which moves by ${formatNumber(limit / 10, 1)} %. Ask for a larger rise.`;
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
    case 'tank-unread':
      return 'This reservoir has no channel or too few levels, so its water is unknown and nothing would run. Complete it on Bench, Dose.';
  }
}

function sensorWord(at: Contradiction['at']): string {
  switch (at) {
    case 'dark':
      return 'light';
    case 'air':
      return 'the air temperature';
    case 'soilTemperature':
      return 'the temperature of this soil';
    case 'rain':
      return 'rain';
    case 'battery':
      return 'the battery voltage';
    default:
      return 'this';
  }
}
