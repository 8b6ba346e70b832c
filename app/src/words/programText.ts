/** What a program will do, in plain words, and the names of its parts. */
import type { Garden, Plot, WaterLine } from '@plain-trowel/core/garden/schema';
import type { ProgramKind } from '@plain-trowel/core/garden/waterSchema';
import { formatDuration, formatNumber, formatPercent } from '@plain-trowel/core/quantity/format';
import type { PercentKind } from '@plain-trowel/core/quantity/percentKind';
import { minuteText } from './timeText.ts';

export const PROGRAM_NAMES: Readonly<Record<ProgramKind, { readonly name: string; readonly when: string }>> =
  {
    'alert-only': {
      name: 'Alert only',
      when: 'A person waters; the lamp and the alerts say when. Right where nothing must run unseen.',
    },
    timer: {
      name: 'Timer',
      when: 'At fixed times a fixed dose, whatever the probe says. Right without a probe, and for plants that drink the same every day.',
    },
    'pulse-soak': {
      name: 'Pulse and soak',
      when: 'A small dose, a wait, another look. Right for pots: the probe sees water late, and this never overshoots by more than a dose.',
    },
    'until-wet': {
      name: 'Until wet',
      when: 'Runs until the probe says stop. Right for slow drippers; a fast pump floods the pot before the probe has noticed.',
    },
    'single-dose': {
      name: 'Single dose',
      when: 'One dose when it is dry, then nothing for a good while. Right for plants that like to dry out between waterings.',
    },
    veto: {
      name: 'Timer with veto',
      when: 'A timer that a wet probe holds back. Right for lawns and beds with their hours.',
    },
    follower: {
      name: 'Follow another line',
      when: 'Runs as long as its leader did. Right for a zone without a probe beside one that has one.',
    },
  };

const DAYS = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'];
const ALL_DAYS = 127;

const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`;

const daysText = (days: number): string =>
  days === ALL_DAYS ? 'every day' : `on ${listed(DAYS.filter((_, at) => ((days >> at) & 1) === 1))}`;

function slotsText(slots: readonly { minute: number; days: number }[]): string {
  const sorted = [...slots].sort((a, b) => a.minute - b.minute);
  const [first] = sorted;
  if (!first) return 'At no time';
  const sameDays = sorted.every((slot) => slot.days === first.days);
  return sameDays
    ? `At ${listed(sorted.map((slot) => minuteText(slot.minute)))} ${daysText(first.days)}`
    : `At ${listed(sorted.map((slot) => `${minuteText(slot.minute)} ${daysText(slot.days)}`))}`;
}

const ml = (volume: number): string =>
  volume >= 10_000 ? `${formatNumber(volume / 1000, 1)} litres` : `${formatNumber(volume)} ml`;

/** What must be so, besides: "only in the dark, when no rain is told". */
function conditionsText({ conditions, tankId }: WaterLine, garden: Garden): string[] {
  const { darkBelow, airBelowC, soilAboveC, noRain, batteryAboveV } = conditions;
  const tank = garden.reservoirs.find((one) => one.id === tankId);
  return [
    ...(darkBelow === null ? [] : ['it is dark']),
    ...(airBelowC === null ? [] : [`the air is below ${formatNumber(airBelowC, 1)} °C`]),
    ...(soilAboveC === null ? [] : [`the soil is above ${formatNumber(soilAboveC, 1)} °C`]),
    ...(noRain ? ['it does not rain'] : []),
    ...(batteryAboveV === null ? [] : [`the battery has ${formatNumber(batteryAboveV, 1)} V or more`]),
    ...(tank ? [`${tank.name} is above its minimum`] : []),
  ];
}

/** The whole program as sentences. @param kind of percent that the plot's limits are in */
export function programSentence(garden: Garden, line: WaterLine, plot: Plot, kind: PercentKind): string {
  const { program, conditions } = line;
  if (program.kind === 'alert-only')
    return `Nothing runs by itself: when ${plot.name} falls below ${formatPercent(plot.limits.startTenths / 10, kind)}, the lamp and the alert say so, and a person waters.`;
  const hours = conditions.hours
    ? `Between ${minuteText(conditions.hours.fromMinute)} and ${minuteText(conditions.hours.toMinute)}, `
    : '';
  const only = conditionsText(line, garden);
  const also = only.length > 0 ? ` Only while ${listed(only)}.` : '';
  const sentence = `${hours}${middle(garden, line, plot, kind)}`;
  const capital = sentence.charAt(0).toUpperCase() + sentence.slice(1);
  const fallback =
    line.fallbackMl > 0 ? ` While the probe is faulty, ${ml(line.fallbackMl)} once a day.` : '';
  return `${capital}; never more than ${ml(line.dailyMaxMl)} a day.${also}${fallback}`;
}

function middle(garden: Garden, line: WaterLine, plot: Plot, kind: PercentKind): string {
  const { program } = line;
  const { startTenths, stopTenths } = plot.limits;
  const below = `when ${plot.name} falls below ${formatPercent(startTenths / 10, kind)}`;
  switch (program.kind) {
    case 'pulse-soak':
      return `${below}, give ${ml(program.pulseMl)}, wait ${formatDuration(program.soakS)}, look again until it has ${formatPercent(stopTenths / 10, kind)}; at most ${program.mostPulses} ${program.mostPulses === 1 ? 'time' : 'times'}, then rest ${formatDuration(program.restS)}`;
    case 'until-wet':
      return `${below}, run until it has ${formatPercent(stopTenths / 10, kind)}, but give no more than ${ml(program.capMl)} in one go`;
    case 'single-dose':
      return `${below}, give ${ml(program.doseMl)} once, and not again within ${formatDuration(program.intervalS)}`;
    case 'timer':
      return `${lower(slotsText(program.slots))}, give ${ml(program.doseMl)}`;
    case 'veto':
      return `${lower(slotsText(program.slots))}, give ${ml(program.doseMl)}, unless ${plot.name} has ${formatPercent(stopTenths / 10, kind)} or more${program.interrupts ? '; if it gets there under way, stop' : ''}`;
    case 'follower': {
      const leader = garden.waterLines.find((one) => one.id === program.leaderId);
      const nth = program.everyNth === 1 ? 'each run' : `every ${ordinal(program.everyNth)} run`;
      const share = program.sharePercent === 100 ? 'as long' : `${program.sharePercent} % as long`;
      return `after ${nth} of ${leader?.name ?? 'its leader'}, run ${share}`;
    }
    case 'alert-only':
      return 'nothing runs';
  }
}

const lower = (sentence: string): string => sentence.charAt(0).toLowerCase() + sentence.slice(1);
const ordinal = (n: number): string => `${n}${n === 2 ? 'nd' : n === 3 ? 'rd' : 'th'}`;
