import { terminalSchema, type Terminal, type TerminalType } from '@plain-trowel/core/catalogue/schema';

export const TERMINAL_TYPES: readonly TerminalType[] = terminalSchema.options.map(
  (option) => option.shape.type.value,
);

type NumberField = {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly most: number;
  readonly decimals: number;
};
type PickField = { readonly key: string; readonly label: string; readonly of: readonly string[] };

const volts = (key: string, label: string): NumberField => ({ key, label, unit: 'V', most: 60, decimals: 2 });
const NONE = [] as const;

/** The numbers of each type, as the form asks for them. Emptied, they are unknown. */
export const NUMBER_FIELDS: Readonly<Record<TerminalType, readonly NumberField[]>> = {
  'supply in': [volts('minV', 'from'), volts('maxV', 'to')],
  'supply out': [
    volts('volts', 'gives'),
    { key: 'maxMa', label: 'at most', unit: 'mA', most: 500_000, decimals: 0 },
  ],
  ground: NONE,
  pin: [volts('maxV', 'bears'), volts('fullScaleV', 'full scale')],
  'analog out': [
    volts('lowV', 'from'),
    volts('highV', 'to'),
    { key: 'sourceOhm', label: 'behind it', unit: 'Ω', most: 1e8, decimals: 0 },
  ],
  'analog in': [volts('maxV', 'bears'), volts('fullScaleV', 'full scale')],
  'digital in': [
    volts('maxV', 'bears'),
    volts('highFromV', 'high from'),
    { key: 'takesMa', label: 'takes', unit: 'mA', most: 1000, decimals: 2 },
  ],
  'digital out': [volts('highV', 'high')],
  'open drain': [volts('maxV', 'bears')],
  i2c: [volts('maxV', 'bears')],
  'one-wire': [volts('maxV', 'bears')],
  'uart out': [volts('highV', 'high')],
  'uart in': [volts('maxV', 'bears'), volts('highFromV', 'high from')],
  rs485: NONE,
  loop: NONE,
  load: NONE,
  control: NONE,
  switched: NONE,
  lead: NONE,
  mains: NONE,
};

const pick = (key: string, label: string, ...of: string[]): readonly PickField[] => [{ key, label, of }];
export const PICK_FIELDS: Readonly<Record<TerminalType, readonly PickField[]>> = {
  'supply in': NONE,
  'supply out': NONE,
  ground: NONE,
  pin: NONE,
  'analog out': NONE,
  'analog in': NONE,
  'digital in': NONE,
  'digital out': NONE,
  'open drain': NONE,
  i2c: pick('line', 'line', 'sda', 'scl'),
  'one-wire': NONE,
  'uart out': NONE,
  'uart in': NONE,
  rs485: pick('line', 'line', 'a', 'b'),
  loop: pick('side', 'side', 'plus', 'minus'),
  load: [...pick('load', 'kind of load', 'coil', 'motor', 'light'), ...pick('side', 'side', 'plus', 'minus')],
  control: pick('device', 'device', 'gate', 'base'),
  switched: pick('side', 'side', 'low', 'common', 'open'),
  lead: pick('lead', 'lead', 'any', 'anode', 'cathode', 'in', 'out'),
  mains: NONE,
};

/** A terminal of a type with nothing known of it yet. */
export function freshTerminal(type: TerminalType, id: string): Terminal {
  const numbers = Object.fromEntries(NUMBER_FIELDS[type].map((field) => [field.key, null]));
  const picks = Object.fromEntries(PICK_FIELDS[type].map((field) => [field.key, field.of[0]]));
  return terminalSchema.parse({
    type,
    id,
    name: type,
    ...numbers,
    ...picks,
    ...(type === 'pin' ? { caps: ['in'] } : {}),
  });
}
