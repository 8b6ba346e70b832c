/** How a garden waters: lines with their programs, conditions and guards; reservoirs; signals and alerts. */
import { z } from '../../quantity/schema.ts';
import { ALERT_KINDS } from '../../control/alerts.ts';
import { savedConditions } from '../../control/conditions/conditions.ts';
import { PROGRAM_KINDS, savedProgram } from '../../control/programs/programs.ts';
import { minute, seconds, volumeMl, WEEK_S } from '../../control/programs/settings.ts';
import { DISPLAY_TEXT } from '../../control/display.ts';
import { BUZZES, LAMP_COLOURS, LAMP_RHYTHMS, SIGNAL_STATES } from '../../control/signals.ts';
import { LEVEL_RAW, MOST, MOST_LEVEL_ML } from '../../quantity/bounds.ts';
import { id, name, text, time } from '../../quantity/fields.ts';

/** What a person has seen of a pump before it may water by itself; null: not yet. */
const firstHour = z.strictObject({
  /** With the probe out of the soil it refused. */
  probeOutAt: time.nullable(),
  /** With the reservoir low it refused. */
  tankLowAt: time.nullable(),
  /** A run was watched from its start to its end. */
  watchedAt: time.nullable(),
  /** Why it was let go without the rest of it; empty: it was not. */
  overruled: text,
});
export type FirstHour = z.infer<typeof firstHour>;

/** Channels of the surroundings that a person has chosen; null: by place. */
export const around = z.strictObject({
  airId: id.nullable(),
  lightId: id.nullable(),
  rainId: id.nullable(),
  skipId: id.nullable(),
});

/** With what a pump was measured; null: not said. Another of them, and the trials hold no longer. */
const rig = z.strictObject({
  tubeM: z.number().min(0).max(500).nullable(),
  liftCm: z.number().min(-1000).max(5000).nullable(),
  tankPercent: z.number().min(0).max(100).nullable(),
  supplyV: z.number().min(1).max(60).nullable(),
});
export type Rig = z.infer<typeof rig>;

const trial = z.strictObject({
  id,
  runS: z.number().min(0.1).max(3600),
  volumeMl: z.number().min(0).max(1e6),
  used: z.boolean(),
  takenAt: time,
  simulated: z.boolean(),
  rig,
});

export const waterLine = z.strictObject({
  id,
  name,
  boardId: id,
  /** The plot whose probe decides; its outlets may water more. */
  plotId: id,
  /** What it delivers once the tube is full, ml per second, and how long that takes, s: as measured, or guessed by the person. */
  flowMlPerS: z.number().min(0.1).max(1000),
  tubeS: z.number().min(0).max(600),
  automatic: z.boolean(),
  firstHour,
  program: savedProgram,
  /** Programs that were laid aside for another kind, the last one last: taken up again they are as they were. */
  laidAside: z.array(savedProgram).max(PROGRAM_KINDS.length),
  conditions: savedConditions,
  /** Channels of its surroundings that a person has chosen; null: by place. */
  around,
  /** A small dose a day while the probe is faulty; 0: nothing. */
  fallbackMl: z.int().min(0).max(100_000),
  tankId: id.nullable(),
  maxRunS: z.int().min(1).max(3600),
  dailyMaxMl: volumeMl,
  minIntervalS: z.int().min(60).max(WEEK_S),
  staleAfterS: z.int().min(5).max(86_400),
  /** A dose must raise the reading by so much within the response time; so many doses in a row that do not lock the line. */
  rise: z.strictObject({
    tenths: z.int().min(5).max(500),
    responseS: z.int().min(30).max(86_400),
    times: z.int().min(1).max(20),
  }),
  /** Its outlets: where each one leads and what each gave into its cup in one run. */
  outlets: z
    .array(z.strictObject({ id, name, plotId: id.nullable(), cupMl: z.number().min(0).max(1e6).nullable() }))
    .max(MOST.outlets),
  /** Catch cups under a sprinkler: mouth of a cup, how long it ran, what each cup held. */
  cups: z
    .strictObject({
      areaCm2: z.number().min(1).max(5000),
      minutes: z.number().min(0.1).max(600),
      volumesMl: z.array(z.number().min(0).max(1e5)).max(MOST.cups),
    })
    .nullable(),
  rig,
  trials: z.array(trial).max(MOST.trials),
  /** Distance between the marks of the jug, or the step of the scale, ml; null: not asked yet. */
  jugStepMl: z.number().min(0).max(1000).nullable(),
  /** Anything else about the trials, in words. */
  trialNote: text,
});

export const reservoir = z.strictObject({
  id,
  name,
  /** `level`: a distance or counts at known volumes. `float`: a contact that only knows whether there is water. */
  kind: z.enum(['level', 'float']),
  /** Of a float: whether a high reading means water or an empty tank, and from which reading it is high (0.5 for 0 and 1). */
  float: z.strictObject({
    highIs: z.enum(['water', 'empty']),
    threshold: z.number().min(LEVEL_RAW.least).max(LEVEL_RAW.most),
  }),
  channelId: id.nullable(),
  levels: z
    .array(
      z.strictObject({
        raw: z.number().min(LEVEL_RAW.least).max(LEVEL_RAW.most),
        volumeMl: z.number().min(0).max(MOST_LEVEL_ML),
      }),
    )
    .max(MOST.levels),
  minimumMl: z.number().min(0).max(1e8),
});
export type GardenReservoir = z.infer<typeof reservoir>;

export const signalRule = z.strictObject({
  state: z.enum(SIGNAL_STATES),
  on: z.boolean(),
  lamp: z.enum(LAMP_COLOURS),
  rhythm: z.enum(LAMP_RHYTHMS),
  buzz: z.enum(BUZZES),
  display: z.string().max(DISPLAY_TEXT),
});

export const alertRule = z.strictObject({
  kind: z.enum(ALERT_KINDS),
  on: z.boolean(),
  hysteresis: z.int().min(0).max(10_000),
  holdOffS: seconds(86_400),
  repeatS: seconds(30 * 86_400),
  quiet: z.strictObject({ fromMinute: minute, toMinute: minute }).nullable(),
});

const degrees = z.number().min(-40).max(80).nullable();
/** Temperature limits of a plot's soil and of the air about it, °C; null: none. */
export const warmth = z.strictObject({
  soilLowC: degrees,
  soilHighC: degrees,
  airLowC: degrees,
  airHighC: degrees,
});
export type Warmth = z.infer<typeof warmth>;

/** How large a plot is: for its thirst. */
export const plotSize = z.discriminatedUnion('kind', [
  /** The wider of the mouth and the spread of the leaves counts. */
  z.strictObject({
    kind: z.literal('pot'),
    mouthCm: z.number().min(3).max(300),
    spreadCm: z.number().min(0).max(500),
  }),
  z.strictObject({ kind: z.literal('bed'), areaM2: z.number().min(0.01).max(10_000) }),
]);
export type PlotSize = z.infer<typeof plotSize>;

/** A line's surroundings go by place. */
export const NOTHING_CHOSEN = { airId: null, lightId: null, rainId: null, skipId: null } as const;
