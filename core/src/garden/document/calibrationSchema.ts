/** Calibrations and the runs that make them, as a garden holds them. A calibration is an immutable version; a run can be left and taken up again. */
import { z } from '../../quantity/schema.ts';
import { PERCENT_KIND_IDS } from '../../quantity/percentKind.ts';
import { BAND_NAMES } from '../../quantity/bands.ts';
import { CONDITIONS, METHOD_IDS } from '../../calibration/conditions.ts';
import { MOST } from '../../quantity/bounds.ts';
import { counts, id, text, time } from '../../quantity/fields.ts';
import { SETTLING_VERDICTS } from '../../settling/settlingWatch.ts';

const sigma = z.number().min(0).max(1e9);
const percent = z.number().min(-1000).max(10_000);
const temperatureC = z.number().min(-40).max(100).nullable();

/** A raw value captured while the probe sat in a known condition. Never edited. */
export const capture = z.strictObject({
  rawCounts: counts,
  noiseCounts: sigma,
  spreadCounts: sigma,
  readings: z.int().min(1).max(1e6),
  windowS: z.number().min(0).max(1e6),
  takenAt: time,
  supplyV: z.number().min(1).max(30),
  boardId: id,
  /** Taken from the stand-in board, not from a real probe. */
  simulated: z.boolean(),
  /** What the settling watch said when it was taken; null for one taken before there was a watch. */
  settling: z
    .strictObject({
      verdict: z.enum(SETTLING_VERDICTS),
      /** Distance of the captured value from the end that was foreseen, counts; null when none was. */
      fromEndCounts: counts.nullable(),
    })
    .nullable(),
});

/** One condition, captured once or several times. */
const point = z.strictObject({
  id,
  condition: z.enum(CONDITIONS),
  /** What was typed with it: a weight, what a meter shows, a known content. */
  typed: z.number().min(-1e6).max(1e6).nullable(),
  felt: z.enum(BAND_NAMES).nullable(),
  temperatureC,
  /** Left out by hand, it stays in the record. */
  used: z.boolean(),
  captures: z.array(capture).max(MOST.captures),
});

/** What is known of a soil: g/cm³, percent by volume; null where it is not known. */
export const soilFacts = z.strictObject({
  bulkDensity: z.number().min(0.02).max(2.6).nullable(),
  capacityVwc: z.number().min(0).max(100).nullable(),
  wiltingVwc: z.number().min(0).max(100).nullable(),
});

const gathered = {
  channelId: id,
  method: z.enum(METHOD_IDS),
  inputs: z.record(z.string().max(40), z.number().min(-1e9).max(1e9)),
  points: z.array(point).max(MOST.points),
  /** Another kind of percent than the method gives, and what it takes to get there. */
  convert: z.strictObject({ to: z.enum(PERCENT_KIND_IDS), soil: soilFacts }).nullable(),
};

export const run = z.strictObject({ id, ...gathered, startedAt: time });

const fitted = z.strictObject({
  kind: z.enum(['line', 'inverse', 'quadratic']),
  origin: z.number(),
  unit: z.number(),
  weights: z.array(z.number()).min(2).max(3),
  temperature: z.strictObject({ perDegree: z.number(), atC: z.number() }).nullable(),
});
const knotted = z.strictObject({
  kind: z.enum(['table', 'monotone']),
  knots: z.array(z.strictObject({ counts, percent })).min(2).max(100),
});

export const calibration = z.strictObject({
  id,
  ...gathered,
  percentKind: z.enum(PERCENT_KIND_IDS),
  shape: z.union([fitted, knotted]),
  /** Working range: raw values between which the curve holds. */
  range: z.strictObject({ lowCounts: counts, highCounts: counts }),
  noiseCounts: sigma,
  /** Where and how it holds. */
  place: z.strictObject({
    boardId: id,
    supplyV: z.number().min(1).max(30),
    depthCm: z.number().min(0).max(300),
    soil: text,
    temperatureC,
  }),
  who: z.string().max(60),
  note: text,
  /** What was warned of when it was made. */
  warnings: z.array(z.string().max(40)).max(40),
  /** Copied from a sister probe's calibration as a starting guess; null when its own points made it. */
  guessOf: id.nullable(),
  madeAt: time,
  recalibrateBy: time.nullable(),
});
