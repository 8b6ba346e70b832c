/** How a part on I2C is asked, as data: the bytes that are written, how long it takes, and how its answer becomes a whole number. An entry of the catalogue carries it. */
import { z } from '../quantity/schema.ts';

const bytes = z.array(z.int().min(0).max(255)).max(4);

/** What a value is; `input`: the voltage at an input of a converter, in its counts. */
export const I2C_GIVES = ['moisture', 'humidity', 'temperature', 'light', 'input'] as const;

export const MOST_WAIT_MS = 50;
const MOST_READ = 9;

const i2cRead = z
  .strictObject({
    gives: z.enum(I2C_GIVES),
    /** The terminal of a converter that it is read at; null: the part itself. */
    terminal: z.string().max(40).nullable(),
    /** Written first; then it is waited, ms. */
    ask: bytes,
    waitMs: z.int().min(0).max(MOST_WAIT_MS),
    /** Written right before reading, the bus held: the register that is read. */
    from: bytes,
    read: z.int().min(1).max(MOST_READ),
    /** "each two": behind every two bytes stands their check, the polynomial 0x31 from 0xFF on. */
    check: z.enum(['none', 'each two']),
    /** The first byte of the value in the answer, how many it has, and their order. */
    at: z
      .int()
      .min(0)
      .max(MOST_READ - 1),
    bytes: z.union([z.literal(1), z.literal(2)]),
    order: z.enum(['high first', 'low first']),
    signed: z.boolean(),
    /** Value × times / per + plus, towards nothing, is a whole number of the last of its decimals. */
    times: z.int().min(1).max(32_767),
    per: z.int().min(1).max(65_535),
    plus: z.int().min(-1_000_000).max(1_000_000),
    decimals: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]),
    /** Whole numbers outside of these are no readings. */
    least: z.int().min(-1_000_000).max(1_000_000),
    most: z.int().min(-1_000_000).max(1_000_000),
  })
  .refine((one) => one.at + one.bytes <= one.read, {
    message: 'its value lies beyond what is read',
    path: ['at'],
  })
  .refine((one) => one.least < one.most, { message: 'must lie above least', path: ['most'] });

export const i2cTalkSchema = z.strictObject({
  /** Written once, each by itself, after it is fed; nothing is read in the second that follows. */
  begin: z.array(bytes.min(1)).max(4),
  reads: z.array(i2cRead).min(1).max(8),
});

export type I2cTalk = z.infer<typeof i2cTalkSchema>;
export type I2cRead = I2cTalk['reads'][number];

/** The whole number of a value, as boards reckon it. @param word 0 to 255 or 65535, as it was read */
export function i2cValue(read: I2cRead, word: number): number {
  const half = read.bytes === 1 ? 128 : 32_768;
  const value = read.signed && word >= half ? word - 2 * half : word;
  return Math.trunc((value * read.times) / read.per) + read.plus;
}
