/**
 * Judges a practice calibration: which mistakes were made, and what each alone would have cost in a week of watering by it.
 *
 * The week is worked out hour by hour on a simple pot: it dries evenly, the board waters a fixed dose below the start limit, at most so much a day, and
 * what the pot cannot hold runs over. Moisture is the share of the way from dry to soaked.
 */
export const MISTAKES = [
  'too-early',
  'wrong-order',
  'wet-connector',
  'past-the-line',
  'other-supply',
  'not-soaked',
] as const;
export type Mistake = (typeof MISTAKES)[number];
export type Slot = 'dry' | 'wet';

/** A practice capture: what was captured, what it should have been, and what each mistake made of it. */
export type DrillCapture = {
  readonly rawCounts: number;
  readonly idealCounts: number;
  /** By how many counts each mistake alone moves the value. */
  readonly causes: Readonly<Partial<Record<Mistake, number>>>;
};

export type Week = {
  readonly givenMl: number;
  /** Water that the pot could not hold, ml. */
  readonly spiltMl: number;
  /** Hours below a quarter and above four fifths of the way from dry to soaked. */
  readonly dryHours: number;
  readonly wetHours: number;
};

export type Drill = {
  readonly mistakes: readonly { readonly slot: Slot; readonly mistake: Mistake; readonly week: Week }[];
  /** By what was captured, and by perfect references. */
  readonly yours: Week;
  readonly perfect: Week;
  /** How far the two references are off, percent of the true span. */
  readonly offPercent: { readonly dry: number; readonly wet: number };
};

/** A mistake that moves the value by less than this share of the span is none. */
const NOTICED = 0.02;

/** Week-long pot: 20 ml are one percent; it dries by twelve percent a day. */
const POT = {
  mlPerPercent: 20,
  dryingPerHour: 12 / 24,
  startPercent: 35,
  doseMl: 120,
  mostMlADay: 600,
  tooDry: 25,
  tooWet: 80,
  atFirst: 45,
} as const;
const HOURS = 7 * 24;

/** A week of watering by a dry and a wet reference, on a pot whose true references are others. */
export function weekBy(
  used: { readonly dry: number; readonly wet: number },
  real: { readonly dry: number; readonly wet: number },
): Week {
  let moisture: number = POT.atFirst;
  let givenMl = 0;
  let spiltMl = 0;
  let dryHours = 0;
  let wetHours = 0;
  let today = 0;
  for (let hour = 0; hour < HOURS; hour += 1) {
    if (hour % 24 === 0) today = 0;
    moisture = Math.max(0, moisture - POT.dryingPerHour);
    const raw = real.dry + (moisture / 100) * (real.wet - real.dry);
    const read = (100 * (raw - used.dry)) / (used.wet - used.dry);
    if (read < POT.startPercent && today + POT.doseMl <= POT.mostMlADay) {
      today += POT.doseMl;
      givenMl += POT.doseMl;
      const filled = moisture + POT.doseMl / POT.mlPerPercent;
      spiltMl += Math.max(0, filled - 100) * POT.mlPerPercent;
      moisture = Math.min(100, filled);
    }
    if (moisture < POT.tooDry) dryHours += 1;
    if (moisture > POT.tooWet) wetHours += 1;
  }
  return { givenMl, spiltMl, dryHours, wetHours };
}

/** Which mistakes were made, each with the week that it alone would have given. */
export function judgeDrill(captures: Readonly<Record<Slot, DrillCapture>>): Drill {
  const real = { dry: captures.dry.idealCounts, wet: captures.wet.idealCounts };
  const span = Math.abs(real.dry - real.wet);
  const mistakes = (['dry', 'wet'] as const).flatMap((slot) =>
    MISTAKES.flatMap((mistake) => {
      const moved = captures[slot].causes[mistake];
      if (moved === undefined || Math.abs(moved) < NOTICED * span) return [];
      return [{ slot, mistake, week: weekBy({ ...real, [slot]: real[slot] + moved }, real) }];
    }),
  );
  const yours = { dry: captures.dry.rawCounts, wet: captures.wet.rawCounts };
  return {
    mistakes,
    yours: weekBy(yours, real),
    perfect: weekBy(real, real),
    offPercent: {
      dry: (100 * (yours.dry - real.dry)) / span,
      wet: (100 * (yours.wet - real.wet)) / span,
    },
  };
}
