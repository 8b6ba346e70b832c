/** Probes and channels, as a garden holds them. A probe is one thing in one plot; it has a channel for each quantity that it gives. */
import { z } from '../quantity/schema.ts';
import { QUANTITIES } from '../quantity/quantities.ts';
import { correctionSchema } from '../temperature/correction.ts';
import { COLOUR_TAGS } from '../wiring/netlist.ts';

export const id = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'use small letters, digits and hyphens, at most 40');
export const name = z.string().trim().min(1, 'must not be empty').max(60, 'at most 60 letters');
export const text = z.string().max(400, 'at most 400 letters');
export const time = z.iso.datetime({ offset: true });
export const counts = z.number().min(-1e9).max(1e9);

/** Kinds that give a raw number to be calibrated. */
export const ANALOG_KINDS = [
  'capacitive stick',
  'resistive fork',
  'home-made electrodes',
  'analog volumetric probe',
] as const;
export const PROBE_KINDS = [
  ...ANALOG_KINDS,
  'steel-rod bus probe',
  'thermistor',
  'digital thermometer',
] as const;
export type ProbeKind = (typeof PROBE_KINDS)[number];

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
  /** Where it sits, in words: for the placement sheet. */
  placement: z.strictObject({ where: text, between: text, mapNote: text }),
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
  bus: z.strictObject({ address: z.int().min(1).max(247), mapId: id }).nullable(),
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
