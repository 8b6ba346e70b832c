/**
 * The catalogue: parts by their traits, never by a maker's name. An entry has typed terminals, facts, a source for its figures and what it
 * costs in wear. The built-in entries, a person's own ones and catalogue files all pass this schema.
 */
import { MOST } from '../quantity/bounds.ts';
import { z } from '../quantity/schema.ts';
import { i2cTalkSchema } from './i2cTalk.ts';
import { FACT_KEYS, FACTS, type FactKey } from './facts.ts';

const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'use small letters, digits and hyphens, at most 40');
const name = z.string().trim().min(1, 'must not be empty').max(80, 'at most 80 letters');
const words = z.string().max(400, 'at most 400 characters');
const volts = z.number().min(0).max(60).nullable();

/** What a part is for; the checks go by it. */
export const ROLES = [
  'probe',
  'humidity probe',
  'thermometer',
  'light sensor',
  'level sensor',
  'contact',
  'battery monitor',
  'board',
  'lamp',
  'LED',
  'buzzer',
  'display',
  'pump',
  'valve',
  'mains plug',
  'servo',
  'latching valve',
  'MOSFET',
  'transistor',
  'relay',
  'driver module',
  'diode',
  'resistor',
  'divider',
  'pull-ups',
  'shunt',
  'level shifter',
  'transceiver',
  'converter',
  'expander',
  'battery',
  'solar',
  'regulator',
  'supply',
  'fuse',
] as const;
export type Role = (typeof ROLES)[number];

/** What a board's pin can do. `in` and `out` are digital. */
export const PIN_CAPS = [
  'adc',
  'in',
  'out',
  'pwm',
  'interrupt',
  'sda',
  'scl',
  'rx',
  'tx',
  'one-wire',
] as const;
export type PinCap = (typeof PIN_CAPS)[number];

const base = { id, name };

/** A terminal with what electrics need to know of it. Null is unknown. `follows` names the supply terminal whose voltage a level follows. */
export const terminalSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('supply in'), ...base, minV: volts, maxV: volts }),
  z.strictObject({
    type: z.literal('supply out'),
    ...base,
    volts,
    maxMa: z.number().min(0).max(500_000).nullable(),
  }),
  z.strictObject({ type: z.literal('ground'), ...base }),
  z.strictObject({
    type: z.literal('pin'),
    ...base,
    caps: z.array(z.enum(PIN_CAPS)).min(1).max(12),
    maxV: volts,
    /** Voltage at which the converter reads full scale. */
    fullScaleV: volts.optional(),
    /** Converter group: "2" is lost while a radio is on where the board says so. */
    adcGroup: z.enum(['1', '2']).optional(),
    lostWithRadio: z.boolean().optional(),
    /** What this pin decides while the board starts: "must be high". */
    strap: words.optional(),
    serial: z.boolean().optional(),
    highAtBoot: z.boolean().optional(),
  }),
  z.strictObject({
    type: z.literal('analog out'),
    ...base,
    lowV: volts,
    highV: volts,
    follows: id.optional(),
    sourceOhm: z.number().min(0).max(1e8).nullable(),
  }),
  z.strictObject({ type: z.literal('analog in'), ...base, maxV: volts, fullScaleV: volts }),
  z.strictObject({
    type: z.literal('digital in'),
    ...base,
    maxV: volts,
    /** The least voltage it takes for high. */
    highFromV: volts,
    /** What it draws from a pin, mA. */
    takesMa: z.number().min(0).max(1000).nullable(),
  }),
  z.strictObject({ type: z.literal('digital out'), ...base, highV: volts, follows: id.optional() }),
  z.strictObject({ type: z.literal('open drain'), ...base, maxV: volts }),
  z.strictObject({ type: z.literal('i2c'), ...base, line: z.enum(['sda', 'scl']), maxV: volts }),
  z.strictObject({ type: z.literal('one-wire'), ...base, maxV: volts }),
  z.strictObject({ type: z.literal('uart out'), ...base, highV: volts, follows: id.optional() }),
  z.strictObject({ type: z.literal('uart in'), ...base, maxV: volts, highFromV: volts }),
  z.strictObject({ type: z.literal('rs485'), ...base, line: z.enum(['a', 'b']) }),
  z.strictObject({ type: z.literal('loop'), ...base, side: z.enum(['plus', 'minus']) }),
  z.strictObject({
    type: z.literal('load'),
    ...base,
    load: z.enum(['coil', 'motor', 'light']),
    side: z.enum(['plus', 'minus']),
  }),
  z.strictObject({ type: z.literal('control'), ...base, device: z.enum(['gate', 'base']) }),
  z.strictObject({ type: z.literal('switched'), ...base, side: z.enum(['low', 'common', 'open']) }),
  z.strictObject({
    type: z.literal('lead'),
    ...base,
    lead: z.enum(['any', 'anode', 'cathode', 'in', 'out']),
  }),
  z.strictObject({ type: z.literal('mains'), ...base }),
]);
export type Terminal = z.infer<typeof terminalSchema>;
export type TerminalType = Terminal['type'];
export type TerminalOf<Type extends TerminalType> = Extract<Terminal, { type: Type }>;

const factShape = Object.fromEntries(
  FACT_KEYS.map((key) => [key, z.number().min(FACTS[key].least).max(FACTS[key].most).nullable().optional()]),
) as Record<FactKey, z.ZodOptional<z.ZodNullable<z.ZodNumber>>>;
export const factsSchema = z.strictObject(factShape);

/** What it costs, as an order of magnitude; prices are the person's own. */
export const COST_CLASSES = ['pennies', 'cheap', 'moderate', 'dear'] as const;

export const entrySchema = z
  .strictObject({
    id,
    role: z.enum(ROLES),
    name,
    good: words,
    bad: words,
    terminals: z.array(terminalSchema).max(MOST.terminals),
    facts: factsSchema,
    /** Bus addresses that can be set; empty when it has none. */
    addresses: z.array(z.int().min(1).max(247)).max(247),
    /** How it is asked over I2C; absent: nobody has said. */
    i2c: i2cTalkSchema.optional(),
    cost: z.enum(COST_CLASSES),
    /** Where the figures come from. */
    source: words,
  })
  .superRefine((entry, ctx) => {
    const ids = new Set(entry.terminals.map((one) => one.id));
    if (ids.size < entry.terminals.length)
      ctx.addIssue({ code: 'custom', path: ['terminals'], message: 'has a terminal id twice' });
    for (const [at, one] of entry.terminals.entries())
      if ('follows' in one && one.follows !== undefined && !ids.has(one.follows))
        ctx.addIssue({
          code: 'custom',
          path: ['terminals', at, 'follows'],
          message: `names "${one.follows}", which is not a terminal of this entry`,
        });
  });
export type Entry = z.infer<typeof entrySchema>;
