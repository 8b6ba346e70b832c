/** Probes and channels, as a garden holds them. A probe is one thing in one plot; it has a channel for each quantity that it gives. */
import { BUS_SPEEDS } from '../../bus/timing.ts';
import { counts, id, name, text, time } from '../../quantity/fields.ts';
import { PROBE_KINDS } from '../../quantity/probeKind.ts';
import { z } from '../../quantity/schema.ts';
import { QUANTITIES } from '../../quantity/quantities.ts';
import { correctionSchema } from '../../temperature/correction.ts';
import { COLOUR_TAGS } from '../../wiring/netlist.ts';

/** How a probe lies in the soil: from the surface down, level on its edge at its depth, or whole in the soil with its middle at its depth. */
export const PROBE_LIES = ['upright', 'on edge', 'in the middle'] as const;
export type ProbeLies = (typeof PROBE_LIES)[number];

/** Steps of a first test, in the order they are done. */
export const TEST_STEPS = ['touch', 'air', 'water'] as const;
export type TestStep = (typeof TEST_STEPS)[number];

/** A step of the first test that was seen to work. */
const testResult = z.strictObject({
  rawCounts: counts,
  noiseCounts: z.number().min(0).max(1e9),
  takenAt: time,
  simulated: z.boolean(),
});

export const probe = z.strictObject({
  id,
  plotId: id,
  label: name,
  kind: z.enum(PROBE_KINDS),
  colour: z.enum(COLOUR_TAGS),
  depthCm: z.number().min(0).max(300),
  /** Where it sits, in words, and how it lies in the soil: for the placement sheet. */
  placement: z.strictObject({ where: text, between: text, mapNote: text, lies: z.enum(PROBE_LIES) }),
  firstTest: z.strictObject({
    touch: testResult.nullable(),
    air: testResult.nullable(),
    water: testResult.nullable(),
  }),
  /** When its label was proved by dipping it; null while it was not. */
  labelProvedAt: time.nullable(),
  /** How long after switching on its reading is good, s, and how many runs say so. */
  warmUp: z
    .strictObject({ waitS: z.number().min(0).max(3600), runs: z.int().min(1).max(1000), measuredAt: time })
    .nullable(),
  /** Its address, its register map, and the speed that it is set to, bits a second. */
  bus: z
    .strictObject({ address: z.int().min(1).max(247), mapId: id, baud: z.literal(BUS_SPEEDS) })
    .nullable(),
});

export const channel = z.strictObject({
  id,
  /** Null: the board measures it itself, such as its battery. */
  probeId: id.nullable(),
  boardId: id,
  quantity: z.enum(QUANTITIES),
  /** Its own name where there is no probe to name it; may be empty. */
  label: z.string().trim().max(60),
  /** Where it is connected, in words: "input 2". */
  pin: text,
  /** The name or column that the board prints in front of its value. */
  streamName: z.string().max(60),
  /** From what the board prints to what it means; moisture has calibrations instead. */
  correction: correctionSchema,
  /** The calibration in use; earlier versions stay in the garden. */
  calibrationId: id.nullable(),
});
