/**
 * What a board and its parts take on average, and how long a battery lasts with it. A day is cut into states; each has a current and a
 * number of seconds a day.
 */
import { input, step, worked, type Worked, type WorkedInput } from '../quantity/worked.ts';

export const POWER_STATES = ['sleep', 'wake', 'measure', 'radio', 'pump'] as const;
export type PowerState = (typeof POWER_STATES)[number];
/** Current while in the state, mA, and time in it, s a day. The state `sleep` fills what the others leave. */
export type StateUse = {
  readonly state: PowerState;
  readonly currentMa: number;
  readonly secondsPerDay: number;
};

const DAY_S = 86_400;
const MONTH_DAYS = 365.25 / 12;

/** Fills the day with sleep: what the other states leave of 86 400 s, never less than zero. */
export function fillDay(
  busy: readonly StateUse[],
  sleepMa: number,
): { readonly uses: readonly StateUse[]; readonly overfull: boolean } {
  const busyS = busy.reduce((sum, one) => sum + one.secondsPerDay, 0);
  return {
    uses: [{ state: 'sleep', currentMa: sleepMa, secondsPerDay: Math.max(0, DAY_S - busyS) }, ...busy],
    overfull: busyS > DAY_S,
  };
}

/** Average current, mA: sum of current × seconds over 86 400 s. */
export function workAverage(uses: readonly StateUse[]): Worked {
  const inputs: Record<string, WorkedInput> = {};
  const terms = uses.map((one, at) => {
    inputs[`i${at}`] = input(`${one.state} current`, one.currentMa, 'mA', one.currentMa < 1 ? 3 : 1);
    inputs[`t${at}`] = input(`${one.state}, a day`, one.secondsPerDay, 's', one.secondsPerDay < 100 ? 1 : 0);
    return `{i${at}} × {t${at}}`;
  });
  const average = step(
    { name: 'average', unit: 'mA', decimals: 2, formula: `(${terms.join(' + ')}) ÷ 86 400`, inputs },
    () => uses.reduce((sum, one) => sum + one.currentMa * one.secondsPerDay, 0) / DAY_S,
  );
  return worked('Average current', [average], {
    source: 'Time-weighted mean over a day.',
    wouldChange: 'A longer interval, a shorter radio time, a probe that is powered only while it is read.',
  });
}

/** What a battery chemistry does in the cold and by itself. Editable rules of thumb; a battery's own sheet goes first. */
export const CHEMISTRIES = {
  'lead-acid': { usableFrac: 0.5, selfDischargePerMonthFrac: 0.04, perCFrac: 0.008, chargesBelowZero: true },
  'lithium iron phosphate': {
    usableFrac: 0.8,
    selfDischargePerMonthFrac: 0.03,
    perCFrac: 0.005,
    chargesBelowZero: false,
  },
  'lithium cell': {
    usableFrac: 0.8,
    selfDischargePerMonthFrac: 0.03,
    perCFrac: 0.006,
    chargesBelowZero: false,
  },
  'nickel metal hydride': {
    usableFrac: 0.8,
    selfDischargePerMonthFrac: 0.2,
    perCFrac: 0.005,
    chargesBelowZero: true,
  },
  'alkaline cells': {
    usableFrac: 0.7,
    selfDischargePerMonthFrac: 0.003,
    perCFrac: 0.01,
    chargesBelowZero: true,
  },
} as const;
export type Chemistry = keyof typeof CHEMISTRIES;
export const CHEMISTRY_NAMES = Object.keys(CHEMISTRIES) as [Chemistry, ...Chemistry[]];

/** Share of the rated capacity that is left at a temperature: 1 at 25 °C and above, less by `perCFrac` for each degree below, at least 0.3. */
export const coldFrac = (temperatureC: number, perCFrac: number): number =>
  Math.min(1, Math.max(0.3, 1 - perCFrac * (25 - temperatureC)));

export type BatteryAsked = {
  readonly averageMa: number;
  readonly capacityMah: number;
  readonly usableFrac: number;
  readonly temperatureC: number;
  readonly perCFrac: number;
  readonly selfDischargePerMonthFrac: number;
};

/** Days that a battery lasts: usable capacity in the cold, over the average current plus what the battery loses by itself. */
export function workBatteryDays(asked: BatteryAsked): Worked {
  const capacity = input('rated capacity', asked.capacityMah, 'mAh');
  const usable = step(
    {
      name: 'usable capacity',
      unit: 'mAh',
      formula: '{capacity} × {usable} × {cold}',
      inputs: {
        capacity,
        usable: input('share that may be used', asked.usableFrac, '', 2),
        cold: input('share left in the cold', coldFrac(asked.temperatureC, asked.perCFrac), '', 2),
      },
    },
    ({ capacity, usable, cold }) => capacity * usable * cold,
  );
  const self = step(
    {
      name: 'lost by itself',
      unit: 'mA',
      decimals: 3,
      formula: '{capacity} × {self} ÷ 730.5 h',
      inputs: { capacity, self: input('self-discharge a month', asked.selfDischargePerMonthFrac, '', 3) },
    },
    ({ capacity, self }) => (capacity * self) / (MONTH_DAYS * 24),
  );
  const days = step(
    {
      name: 'lasts',
      unit: 'days',
      decimals: 1,
      formula: '{usable} ÷ ({average} + {self}) ÷ 24',
      inputs: {
        usable: input('usable capacity', usable.value, 'mAh'),
        average: input('average current', asked.averageMa, 'mA', 2),
        self: input('lost by itself', self.value, 'mA', 3),
      },
    },
    ({ usable, average, self }) => usable / (average + self) / 24,
  );
  return worked('Battery life', [usable, self, days], {
    source: 'Charge over current; shares by chemistry are rules of thumb, your battery’s sheet goes first.',
    note: 'Without any sun or charger.',
    wouldChange: 'Average current, capacity, a warmer place.',
  });
}
