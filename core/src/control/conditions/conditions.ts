/**
 * What a person may add to a program: conditions for automatic starts. What a condition needs and nobody knows holds the line, and says so. Each kind is one
 * record; a new one is a record here, a field in `Conditions` and in what the garden keeps, its words and its row in the form.
 */
import { z } from '../../quantity/schema.ts';
import type { Reason } from '../contract/reasons.ts';
import type { Around, EngineInput } from '../contract/types.ts';
import { isBetween } from '../../quantity/hours.ts';
import type { LineField } from '../programs/contradiction.ts';
import { DAY_S, minute } from '../programs/settings.ts';

/** As the engine goes by them; off is null or false. */
export type Conditions = {
  /** From one second of the day to another; over midnight when the first is later. */
  readonly hours: { readonly fromS: number; readonly toS: number } | null;
  /** Dark is a light sensor's value below this. */
  readonly darkBelow: number | null;
  readonly airBelowTenthsC: number | null;
  readonly soilAboveTenthsC: number | null;
  readonly noRain: boolean;
  readonly batteryAboveMv: number | null;
  /** A switch beside the plant holds it. */
  readonly noSkip: boolean;
};

/** As the garden keeps them. */
export const savedConditions = z.strictObject({
  hours: z.strictObject({ fromMinute: minute, toMinute: minute }).nullable(),
  darkBelow: z.number().min(-1e6).max(1e6).nullable(),
  airBelowC: z.number().min(-30).max(60).nullable(),
  soilAboveC: z.number().min(-10).max(40).nullable(),
  noRain: z.boolean(),
  batteryAboveV: z.number().min(1).max(60).nullable(),
  noSkip: z.boolean(),
});
export type SavedConditions = z.infer<typeof savedConditions>;

/** What a condition must be told: something about the line, or the board's battery. */
export type Sense = keyof Around | 'battery';

/** What conditions look at: the time, and what is about. */
export type Surroundings = Pick<EngineInput, 'nowS' | 'clock' | 'around' | 'batteryMv'>;

type Told = { readonly input: Surroundings; readonly around: Around };

type ConditionRecord<Limit> = {
  readonly field: LineField;
  /** What must be measured for it; null: the clock alone. */
  readonly sense: Sense | null;
  readonly bind: (saved: SavedConditions) => Limit;
  /** Why it holds the line; null when it does not. Asked only while it is on. */
  readonly unmet: (limit: NonNullable<Limit>, told: Told) => Reason | null;
  /** When it may be met although nothing is read, s since boot; null: not by time. */
  readonly wake?: (limit: NonNullable<Limit>, input: Surroundings) => number | null;
};

const tenths = (degrees: number | null) => (degrees === null ? null : Math.round(degrees * 10));

export const CONDITIONS: { readonly [Key in keyof Conditions]: ConditionRecord<Conditions[Key]> } = {
  hours: {
    field: 'hours',
    sense: null,
    bind: ({ hours }) => hours && { fromS: hours.fromMinute * 60, toS: hours.toMinute * 60 },
    unmet: ({ fromS, toS }, { input: { clock } }) => {
      if (!clock) return 'clock-unknown';
      return isBetween(fromS, toS, clock.daySecond) ? null : 'outside-hours';
    },
    wake: ({ fromS }, { clock, nowS }) => {
      if (!clock) return null;
      const aheadS = fromS - clock.daySecond;
      return nowS + (aheadS > 0 ? aheadS : aheadS + DAY_S);
    },
  },
  darkBelow: {
    field: 'dark',
    sense: 'light',
    bind: ({ darkBelow }) => (darkBelow === null ? null : Math.round(darkBelow)),
    unmet: (limit, { around: { light } }) =>
      light === null ? 'light-unknown' : light < limit ? null : 'not-dark',
  },
  airBelowTenthsC: {
    field: 'air',
    sense: 'airTenthsC',
    bind: ({ airBelowC }) => tenths(airBelowC),
    unmet: (limit, { around: { airTenthsC } }) =>
      airTenthsC === null ? 'air-unknown' : airTenthsC < limit ? null : 'air-warm',
  },
  soilAboveTenthsC: {
    field: 'soilTemperature',
    sense: 'soilTenthsC',
    bind: ({ soilAboveC }) => tenths(soilAboveC),
    unmet: (limit, { around: { soilTenthsC } }) =>
      soilTenthsC === null ? 'soil-temperature-unknown' : soilTenthsC > limit ? null : 'soil-cold',
  },
  noRain: {
    field: 'rain',
    sense: 'rain',
    bind: ({ noRain }) => noRain,
    unmet: (_, { around: { rain } }) => (rain === null ? 'rain-unknown' : rain ? 'rain' : null),
  },
  batteryAboveMv: {
    field: 'battery',
    sense: 'battery',
    bind: ({ batteryAboveV }) => (batteryAboveV === null ? null : Math.round(batteryAboveV * 1000)),
    unmet: (limit, { input: { batteryMv } }) =>
      batteryMv === null ? 'battery-unknown' : batteryMv >= limit ? null : 'battery-low',
  },
  noSkip: {
    field: 'skip',
    sense: 'skip',
    bind: ({ noSkip }) => noSkip,
    unmet: (_, { around: { skip } }) => (skip === null ? 'skip-unknown' : skip ? 'skip-switch' : null),
  },
};

const KEYS = Object.keys(CONDITIONS) as readonly (keyof Conditions)[];
type Of = ConditionRecord<Conditions[keyof Conditions]>;

/** Those that are on, each with its limit. */
const active = (
  conditions: Conditions,
): { readonly record: Of; readonly limit: NonNullable<Conditions[keyof Conditions]> }[] =>
  KEYS.flatMap((key) => {
    const limit = conditions[key];
    return limit === null || limit === false ? [] : [{ record: CONDITIONS[key] as Of, limit }];
  });

const NOTHING_KNOWN: Around = { airTenthsC: null, light: null, rain: null, soilTenthsC: null, skip: null };

/** The first condition that is not met; null when all are. @param line place of the line */
export function unmetCondition(conditions: Conditions, input: Surroundings, line: number): Reason | null {
  const told: Told = { input, around: input.around[line] ?? NOTHING_KNOWN };
  for (const { record, limit } of active(conditions)) {
    const why = record.unmet(limit, told);
    if (why) return why;
  }
  return null;
}

/** When conditions may be met although nothing is read, s since boot. */
export const conditionWakes = (conditions: Conditions, input: Surroundings): (number | null)[] =>
  active(conditions).map(({ record, limit }) => record.wake?.(limit, input) ?? null);

export const boundConditions = (saved: SavedConditions): Conditions =>
  Object.fromEntries(KEYS.map((key) => [key, CONDITIONS[key].bind(saved)])) as Conditions;

/** What the conditions of a line must be told, and the field that asks for it. */
export const sensesOfConditions = (
  saved: SavedConditions,
): { readonly field: LineField; readonly sense: Sense }[] =>
  active(boundConditions(saved)).flatMap(({ record: { field, sense } }) =>
    sense === null ? [] : [{ field, sense }],
  );
