/** Faults of a garden document in words: where, and what may stand there. */
import type { Fault, Rule } from '@plain-trowel/core/garden/document/faults';
import { formatNumber } from '@plain-trowel/core/quantity/format';

/** What the fields of a garden are called where their own name would not do. */
const FIELDS: Readonly<Record<string, string>> = {
  plots: 'plot',
  boards: 'board',
  probes: 'probe',
  channels: 'channel',
  calibrations: 'calibration',
  runs: 'calibration under way',
  waterLines: 'water line',
  reservoirs: 'reservoir',
  catalogue: 'own parts',
  registerMaps: 'register map',
  parts: 'part',
  wires: 'wire',
  cables: 'cable',
  outlets: 'outlet',
  trials: 'trial',
  levels: 'level',
  points: 'point',
  captures: 'capture',
  bandEdges: 'band edge',
  slots: 'time',
  volumesMl: 'cup',
  madeAt: 'time it was made',
  takenAt: 'time it was taken',
  raw: 'raw value',
  logEveryS: 'log interval',
  knots: 'curve point',
};

const LISTS: Readonly<Record<string, string>> = {
  catalogue: 'own parts',
  bandEdges: 'band edges',
  volumesMl: 'cups',
  slots: 'times',
  runs: 'calibrations under way',
};

const UNITS: readonly (readonly [RegExp, string])[] = [
  [/MlPerS$/, 'ml/s'],
  [/Ml$/, 'ml'],
  [/Tenths$/, 'tenths of a percent'],
  [/Counts$/, 'counts'],
  [/Cm2$/, 'cm²'],
  [/Cm$/, 'cm'],
  [/M2$/, 'm²'],
  [/Mm2$/, 'mm²'],
  [/Mah$/, 'mAh'],
  [/[a-z]V$/, 'V'],
  [/[a-z]C$/, '°C'],
  [/[a-z]S$/, 's'],
  [/[a-z]M$/, 'm'],
];

/** "flowMlPerS" as "flow", "minIntervalS" as "min interval"; the unit is told with the bound. */
export function fieldWords(field: string): string {
  const known = FIELDS[field];
  if (known !== undefined) return known;
  const unit = UNITS.find(([pattern]) => pattern.test(field));
  const bare = unit ? field.replace(/(MlPerS|Ml|Tenths|Counts|Cm2|Cm|M2|Mm2|Mah|V|C|S|M)$/, '') : field;
  return bare.replace(/([a-z0-9])([A-Z])/g, '$1 $2').toLowerCase();
}

export const unitOf = (field: string): string => UNITS.find(([pattern]) => pattern.test(field))?.[1] ?? '';

/** "reservoir 1, levels": a path as a person would say it; entries of lists are counted from one. */
export function placeText({ path }: Pick<Fault, 'path'>): string {
  const words: string[] = [];
  for (const [at, part] of path.entries()) {
    const next = path[at + 1];
    if (typeof part === 'number') continue;
    if (typeof next === 'number') words.push(`${fieldWords(part)} ${next + 1}`);
    else
      words.push(
        LISTS[part] ??
          (at === path.length - 1 && part in FIELDS && isPlural(part) ? plural(part) : fieldWords(part)),
      );
  }
  return words.join(', ') || 'the garden';
}

const isPlural = (field: string): boolean => /s$/.test(field) && !/S$/.test(field);
const plural = (field: string): string => field.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();

function ruleText(rule: Rule, field: string): string {
  const unit = unitOf(field);
  const amount = (value: number) =>
    `${formatNumber(value, Number.isInteger(value) ? 0 : 2)}${unit === '' ? '' : ` ${unit}`}`;
  switch (rule.kind) {
    case 'too-many':
      return `at most ${formatNumber(rule.most)} can be kept`;
    case 'too-few':
      return `at least ${formatNumber(rule.least)} ${rule.least === 1 ? 'is' : 'are'} needed`;
    case 'too-long':
      return `at most ${formatNumber(rule.most)} characters`;
    case 'empty':
      return 'must not be empty';
    case 'above':
      return `at most ${amount(rule.most)}`;
    case 'below':
      return `at least ${amount(rule.least)}`;
    case 'not-whole':
      return 'must be a whole number';
    case 'not-a-number':
      return 'must be a number';
    case 'missing':
      return 'is missing';
    case 'not-one-of':
      return `must be ${rule.words.slice(0, 8).join(', ')}${rule.words.length > 8 ? ' …' : ''}`;
    case 'unknown-field':
      return 'is a field that no garden has';
    case 'other':
      return rule.message;
  }
}

const lastField = ({ path }: Pick<Fault, 'path'>): string =>
  path.findLast((part) => typeof part === 'string') ?? '';

/** "Reservoir 1, levels: at most 12 can be kept." */
export function faultText(fault: Fault): string {
  const place = placeText(fault);
  return `${place.charAt(0).toUpperCase()}${place.slice(1)}: ${ruleText(fault.rule, lastField(fault))}.`;
}

/** For a change that the gate in front of storage turned away. */
export function refusedText(faults: readonly Fault[]): string {
  const [first, ...others] = faults;
  const more =
    others.length > 0
      ? ` ${others.length} more ${others.length === 1 ? 'thing does' : 'things do'} not fit.`
      : '';
  return `This was not saved: it could not be opened again. ${first ? faultText(first) : ''}${more} The garden is as it was.`;
}
