/** What a program will do, in plain words, and the names of its parts. */
import { byId } from '@plain-trowel/core/quantity/byId';
import type { Garden, Plot, WaterLine } from '@plain-trowel/core/garden/document/schema';
import { usesProbe, type ProgramKind, type SavedProgram } from '@plain-trowel/core/control/programs/programs';
import {
  formatDuration,
  formatNumber,
  formatPercent,
  formatVolume,
} from '@plain-trowel/core/quantity/format';
import { risesDrying, type PercentScale } from '@plain-trowel/core/quantity/percentKind';
import type { LineField } from '@plain-trowel/core/control/programs/contradiction';
import { capital, plainText, spoken } from './spoken.ts';
import { minuteText } from '@plain-trowel/core/quantity/timeText';
import { temperatureText, litresText } from './unitText.ts';

/** Words that stand for a setting of a line, or for one that is made elsewhere. */
export type SaidField = LineField | 'share' | 'nth' | 'interrupts';
const said = (field: SaidField, words: string): string => spoken(field, words);

/** "when Lemon barrel falls below 31.0 % span": a tension rises as the soil dries, a comparator says so. */
export function driesTo(name: string, startTenths: number, scale: PercentScale | null): string {
  if (scale?.percentKind === 'switch') return `when ${name} is dry by its comparator`;
  const limit = formatPercent(startTenths / 10, scale ?? 'span');
  return scale && risesDrying(scale)
    ? `when ${name} rises above ${limit}`
    : `when ${name} falls below ${limit}`;
}

const DAYS = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'];
const ALL_DAYS = 127;

/** "a, b and c". */
export const listed = (words: readonly string[]): string =>
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

const ml = (volume: number): string => (volume >= 10_000 ? litresText(volume) : formatVolume(volume));

/** What must be so, besides, as it is read: "it is dark", "it does not rain". Hours stand elsewhere. */
export const plainConditions = (conditions: WaterLine['conditions']): string[] =>
  conditionWords(conditions).map(plainText);

function conditionWords(conditions: WaterLine['conditions']): string[] {
  const { darkBelow, airBelowC, soilAboveC, noRain, batteryAboveV, noSkip } = conditions;
  return [
    ...(darkBelow === null ? [] : [said('dark', 'it is dark')]),
    ...(airBelowC === null ? [] : [said('air', `the air is below ${temperatureText(airBelowC)}`)]),
    ...(soilAboveC === null
      ? []
      : [said('soilTemperature', `the soil is above ${temperatureText(soilAboveC)}`)]),
    ...(noRain ? [said('rain', 'it does not rain')] : []),
    ...(batteryAboveV === null
      ? []
      : [said('battery', `the battery has ${formatNumber(batteryAboveV, 1)} V or more`)]),
    ...(noSkip ? [said('skip', 'the skip switch is off')] : []),
  ];
}

/** " Only while it does not rain and the skip switch is off."; nothing where nothing must be so. */
export const onlyWhile = (words: readonly string[]): string =>
  words.length > 0 ? ` Only while ${listed(words)}.` : '';

/** What a program's sentence speaks of. */
type Spoken = {
  readonly plot: string;
  /** "when Lemon falls below 31 % of its span", and the stop limit with its kind of percent. */
  readonly below: string;
  readonly stop: string;
  readonly nameOf: (lineId: string) => string | null;
};

type ProgramWords<Kind extends ProgramKind> = {
  readonly name: string;
  readonly when: string;
  /** The middle of a sentence. */
  readonly says: (program: Extract<SavedProgram, { kind: Kind }>, of: Spoken) => string;
};

export const PROGRAM_WORDS: { readonly [Kind in ProgramKind]: ProgramWords<Kind> } = {
  'alert-only': {
    name: 'Alert only',
    when: 'A person waters; the lamp and the alerts say when. Right where nothing must run unseen.',
    says: () => 'nothing runs',
  },
  timer: {
    name: 'Timer',
    when: 'At fixed times a fixed dose, whatever the probe says. Right without a probe, and for plants that drink the same every day.',
    says: ({ slots, doseMl }) =>
      `${said('slots', lower(slotsText(slots)))}, give ${said('dose', ml(doseMl))}`,
  },
  'pulse-soak': {
    name: 'Pulse and soak',
    when: 'A small dose, a wait, another look. Right for pots: the probe sees water late, and this never overshoots by more than a dose.',
    says: ({ pulseMl, soakS, mostPulses, restS }, { below, stop }) =>
      `${below}, give ${said('dose', ml(pulseMl))}, wait ${said('soak', formatDuration(soakS))}, look again until it has ${stop}; at most ${said('pulses', `${mostPulses} ${mostPulses === 1 ? 'time' : 'times'}`)}, then rest ${said('rest', formatDuration(restS))}`,
  },
  'until-wet': {
    name: 'Until wet',
    when: 'Runs until the probe says stop. Right for slow drippers; a fast pump floods the pot before the probe has noticed.',
    says: ({ capMl }, { below, stop }) =>
      `${below}, run until it has ${stop}, but give no more than ${said('dose', ml(capMl))} in one go`,
  },
  'single-dose': {
    name: 'Single dose',
    when: 'One dose when it is dry, then nothing for a good while. Right for plants that like to dry out between waterings.',
    says: ({ doseMl, intervalS }, { below }) =>
      `${below}, give ${said('dose', ml(doseMl))} once, and not again within ${said('interval', formatDuration(intervalS))}`,
  },
  veto: {
    name: 'Timer with veto',
    when: 'A timer that a wet probe holds back. Right for lawns and beds with their hours.',
    says: ({ slots, doseMl, interrupts }, { plot, stop }) =>
      `${said('slots', lower(slotsText(slots)))}, give ${said('dose', ml(doseMl))}, unless ${plot} has ${stop} or more${interrupts ? `; ${said('interrupts', 'if it gets there under way, stop')}` : ''}`,
  },
  follower: {
    name: 'Follow another line',
    when: 'Runs as long as its leader did. Right for a zone without a probe beside one that has one.',
    says: ({ leaderId, everyNth, sharePercent }, { nameOf }) => {
      const nth = everyNth === 1 ? 'each run' : `every ${ordinal(everyNth)} run`;
      const share = sharePercent === 100 ? 'as long' : `${sharePercent} % as long`;
      return `after ${said('nth', nth)} of ${said('leader', nameOf(leaderId) ?? 'its leader')}, run ${said('share', share)}`;
    },
  },
};

/** The whole program as sentences. @param scale what the plot's limits are a percent of */
export const programSentence = (
  garden: Garden,
  line: WaterLine,
  plot: Plot,
  scale: PercentScale | null,
): string => plainText(spokenProgram(garden, line, plot, scale));

/** The same with its settings marked, to be pressed where they are shown. */
export function spokenProgram(
  garden: Garden,
  line: WaterLine,
  plot: Plot,
  scale: PercentScale | null,
): string {
  const { program, conditions } = line;
  if (program.kind === 'alert-only')
    return `Nothing runs by itself: ${saidLimit(driesTo(plot.name, plot.limits.startTenths, scale))}, the lamp and the alert say so, and a person waters.`;
  const hours = conditions.hours
    ? `${said('hours', `Between ${minuteText(conditions.hours.fromMinute)} and ${minuteText(conditions.hours.toMinute)}`)}, `
    : '';
  const tank = byId(garden.reservoirs, line.tankId);
  const also = onlyWhile([
    ...conditionWords(conditions),
    ...(tank ? [`${said('tank', tank.name)} is above its minimum`] : []),
  ]);
  const fallback =
    line.fallbackMl > 0 && usesProbe(program.kind)
      ? ` While the probe is faulty, ${said('fallback', ml(line.fallbackMl))} once a day.`
      : '';
  return `${capital(`${hours}${middle(garden, line, plot, scale)}`)}; never more than ${said('dailyMax', ml(line.dailyMaxMl))} a day.${also}${fallback}`;
}

/** The limit in "when Lemon falls below 31.0 % span" is what can be changed. */
const saidLimit = (sentence: string): string =>
  sentence.replace(
    / (below|above) (.+)$/,
    (_, side: string, limit: string) => ` ${side} ${said('limits', limit)}`,
  );

function middle(garden: Garden, line: WaterLine, plot: Plot, scale: PercentScale | null): string {
  const { startTenths, stopTenths } = plot.limits;
  const words = PROGRAM_WORDS[line.program.kind] as ProgramWords<ProgramKind>;
  return words.says(line.program, {
    plot: plot.name,
    below: saidLimit(driesTo(plot.name, startTenths, scale)),
    stop: said('limits', stopText(stopTenths, scale)),
    nameOf: (id) => byId(garden.waterLines, id)?.name ?? null,
  });
}

/** What the plot has when it is wet enough: "45.0 % span". */
export const stopText = (stopTenths: number, scale: PercentScale | null): string =>
  scale?.percentKind === 'switch' ? 'turned wet' : formatPercent(stopTenths / 10, scale ?? 'span');

const lower = (sentence: string): string => sentence.charAt(0).toLowerCase() + sentence.slice(1);
const ordinal = (n: number): string => `${n}${n === 2 ? 'nd' : n === 3 ? 'rd' : 'th'}`;
