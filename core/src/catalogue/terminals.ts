/** Short ways to write the terminals of built-in entries. */
import type { PinCap, TerminalOf } from './schema.ts';

export const supplyIn = (minV: number | null, maxV: number | null, id = 'vcc', name = 'supply') =>
  ({ type: 'supply in', id, name, minV, maxV }) satisfies TerminalOf<'supply in'>;
export const supplyOut = (volts: number | null, maxMa: number | null, id: string, name: string) =>
  ({ type: 'supply out', id, name, volts, maxMa }) satisfies TerminalOf<'supply out'>;
export const ground = (id = 'gnd', name = 'ground') =>
  ({ type: 'ground', id, name }) satisfies TerminalOf<'ground'>;
export const sda = (maxV: number | null) =>
  ({ type: 'i2c', id: 'sda', name: 'SDA', line: 'sda', maxV }) satisfies TerminalOf<'i2c'>;
export const scl = (maxV: number | null) =>
  ({ type: 'i2c', id: 'scl', name: 'SCL', line: 'scl', maxV }) satisfies TerminalOf<'i2c'>;
export const rs485a = { type: 'rs485', id: 'a', name: 'A', line: 'a' } satisfies TerminalOf<'rs485'>;
export const rs485b = { type: 'rs485', id: 'b', name: 'B', line: 'b' } satisfies TerminalOf<'rs485'>;
export const digitalIn = (
  of: Partial<Omit<TerminalOf<'digital in'>, 'type'>> & { id: string; name: string },
): TerminalOf<'digital in'> => ({ maxV: 5.5, highFromV: null, takesMa: null, ...of, type: 'digital in' });
export const load = (what: TerminalOf<'load'>['load']): readonly [TerminalOf<'load'>, TerminalOf<'load'>] => [
  { type: 'load', id: 'plus', name: 'plus', load: what, side: 'plus' },
  { type: 'load', id: 'minus', name: 'minus', load: what, side: 'minus' },
];
export const lead = (
  id: string,
  name: string,
  which: TerminalOf<'lead'>['lead'] = 'any',
): TerminalOf<'lead'> => ({ type: 'lead', id, name, lead: which });

type Pin = TerminalOf<'pin'>;
/** A board's pin: capabilities as one text, `"adc in out"`. */
export const pin = (id: string, name: string, caps: string, maxV: number, more: Partial<Pin> = {}): Pin => ({
  type: 'pin',
  id,
  name,
  caps: caps.split(' ') as PinCap[],
  maxV,
  ...more,
});
