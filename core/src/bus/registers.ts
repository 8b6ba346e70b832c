/** Register maps: where a probe keeps which quantity, as data. A map is part of the garden and of its file. */
import { byId } from '../quantity/byId.ts';
import { MOST } from '../quantity/bounds.ts';
import { z } from '../quantity/schema.ts';
import { MOST_READ, type Request } from './frame.ts';

export const REGISTER_TYPES = ['int16', 'uint16', 'int32', 'uint32', 'float32'] as const;
export type RegisterType = (typeof REGISTER_TYPES)[number];
export const WORD_ORDERS = ['high first', 'low first'] as const;
export type WordOrder = (typeof WORD_ORDERS)[number];

export const BUS_QUANTITIES = [
  'moisture',
  'temperature',
  'conductivity',
  'pH',
  'nitrogen',
  'phosphorus',
  'potassium',
  'other',
] as const;
export type BusQuantity = (typeof BUS_QUANTITIES)[number];

const field = z.strictObject({
  quantity: z.enum(BUS_QUANTITIES),
  /** Short name, used in the stream: "moisture". */
  name: z.string().regex(/^[a-z][a-z0-9]{0,19}$/i, 'a letter, then letters and digits, at most 20'),
  unit: z.string().max(12),
  register: z.int().min(0).max(0xffff),
  type: z.enum(REGISTER_TYPES),
  wordOrder: z.enum(WORD_ORDERS),
  /** Value = number in the register × scale + offset. */
  scale: z
    .number()
    .min(-1e6)
    .max(1e6)
    .refine((value) => value !== 0, 'must not be 0'),
  offset: z.number().min(-1e6).max(1e6),
});

export const registerMapSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'use small letters, digits and hyphens, at most 40'),
  name: z.string().trim().min(1, 'must not be empty').max(60, 'at most 60 characters'),
  readFunction: z.union([z.literal(3), z.literal(4)]),
  fields: z.array(field).min(1, 'needs a field').max(MOST.registerFields),
  /** Where the probe keeps its own address, and the function that writes it; null when it cannot be changed over the bus. */
  address: z
    .strictObject({
      register: z.int().min(0).max(0xffff),
      writeFunction: z.union([z.literal(6), z.literal(16)]),
    })
    .nullable(),
});

export type RegisterField = z.infer<typeof field>;
export type RegisterMap = z.infer<typeof registerMapSchema>;

const tenth = (
  quantity: BusQuantity,
  name: string,
  unit: string,
  register: number,
  scale = 0.1,
  type: RegisterType = 'uint16',
): RegisterField => ({ quantity, name, unit, register, type, wordOrder: 'high first', scale, offset: 0 });

const MOISTURE = tenth('moisture', 'moisture', '%', 0);
const TEMPERATURE = tenth('temperature', 'temperature', '°C', 1, 0.1, 'int16');
const EC = tenth('conductivity', 'ec', 'µS/cm', 2, 1);
const PH = tenth('pH', 'ph', 'pH', 3);
const NPK = [
  tenth('nitrogen', 'nitrogen', 'mg/kg', 4, 1),
  tenth('phosphorus', 'phosphorus', 'mg/kg', 5, 1),
  tenth('potassium', 'potassium', 'mg/kg', 6, 1),
];
const ADDRESS = { register: 0x07d0, writeFunction: 6 } as const;

/** Layouts that many probes share; a probe’s own sheet decides, and its map can be written by hand. */
export const BUILT_IN_MAPS: readonly RegisterMap[] = [
  {
    id: 'two',
    name: 'Moisture and temperature',
    readFunction: 3,
    fields: [MOISTURE, TEMPERATURE],
    address: ADDRESS,
  },
  {
    id: 'three',
    name: 'With conductivity (EC)',
    readFunction: 3,
    fields: [MOISTURE, TEMPERATURE, EC],
    address: ADDRESS,
  },
  {
    id: 'four',
    name: 'With EC and pH',
    readFunction: 3,
    fields: [MOISTURE, TEMPERATURE, EC, PH],
    address: ADDRESS,
  },
  {
    id: 'seven',
    name: 'With EC, pH and N-P-K',
    readFunction: 3,
    fields: [MOISTURE, TEMPERATURE, EC, PH, ...NPK],
    address: ADDRESS,
  },
];

/** Own maps first, so that one with a built-in id stands in its place. */
export const mapOf = (own: readonly RegisterMap[], id: string): RegisterMap | null =>
  byId([...own, ...BUILT_IN_MAPS], id) ?? null;

const wordsOf = (type: RegisterType): number => (type === 'int16' || type === 'uint16' ? 1 : 2);

/** The number that one or two registers hold, each 0..65535, in the order they were read. */
export function decode(type: RegisterType, order: WordOrder, words: readonly number[]): number {
  const [first = 0, second = 0] = words;
  const view = new DataView(new ArrayBuffer(4));
  if (wordsOf(type) === 1) {
    view.setUint16(0, first);
    return type === 'int16' ? view.getInt16(0) : first;
  }
  view.setUint16(0, order === 'high first' ? first : second);
  view.setUint16(2, order === 'high first' ? second : first);
  return type === 'int32' ? view.getInt32(0) : type === 'uint32' ? view.getUint32(0) : view.getFloat32(0);
}

/** Whole registers that hold a number; what does not fit is cut to the nearest that does. Inverse of `decode`. */
export function encode(type: RegisterType, order: WordOrder, value: number): number[] {
  const view = new DataView(new ArrayBuffer(4));
  const whole = (least: number, most: number) => Math.min(most, Math.max(least, Math.round(value)));
  switch (type) {
    case 'int16':
      view.setInt16(0, whole(-32_768, 32_767));
      return [view.getUint16(0)];
    case 'uint16':
      return [whole(0, 65_535)];
    case 'int32':
      view.setInt32(0, whole(-2_147_483_648, 2_147_483_647));
      break;
    case 'uint32':
      view.setUint32(0, whole(0, 4_294_967_295));
      break;
    case 'float32':
      view.setFloat32(0, value);
  }
  const words = [view.getUint16(0), view.getUint16(2)];
  return order === 'high first' ? words : words.reverse();
}

/** Fields whose registers may be read in one request, with that request. Fields further apart than a frame holds come in several. */
export type ReadPlan = {
  readonly request: Request & { function: 3 | 4 };
  readonly fields: readonly RegisterField[];
};

export function planReads(map: RegisterMap, address: number): ReadPlan[] {
  const sorted = map.fields.toSorted((a, b) => a.register - b.register);
  const groups: RegisterField[][] = [];
  for (const one of sorted) {
    const group = groups.at(-1);
    const start = group?.[0]?.register ?? 0;
    // Gaps of a few registers cost less than a second request; larger ones may not exist in the probe at all.
    const previous = group?.at(-1);
    const gap = previous ? one.register - (previous.register + wordsOf(previous.type)) : Infinity;
    if (group && gap <= 4 && one.register + wordsOf(one.type) - start <= MOST_READ) group.push(one);
    else groups.push([one]);
  }
  return groups.map((fields) => {
    const register = fields[0]?.register ?? 0;
    const end = Math.max(...fields.map((one) => one.register + wordsOf(one.type)));
    return { request: { function: map.readFunction, address, register, count: end - register }, fields };
  });
}

export type BusValue = { readonly field: RegisterField; readonly value: number };

/** The values of a plan's fields out of the registers that its request brought. A number that is not finite (a float's NaN) is left out. */
export function valuesOf(plan: ReadPlan, registers: readonly number[]): BusValue[] {
  return plan.fields.flatMap((one) => {
    const at = one.register - plan.request.register;
    const number = decode(one.type, one.wordOrder, registers.slice(at, at + wordsOf(one.type)));
    return Number.isFinite(number) ? [{ field: one, value: number * one.scale + one.offset }] : [];
  });
}
