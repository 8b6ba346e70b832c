/** Values, fields and lists as MicroPython has them. */
import type { TablePoint } from '../calibration/boardTable.ts';

export type Value = number | boolean | null | string | readonly Value[];

export function valueText(value: Value): string {
  if (value === null) return 'None';
  if (typeof value === 'boolean') return value ? 'True' : 'False';
  if (typeof value === 'number') return String(value);
  if (typeof value === 'string') return `"${value}"`;
  const inner = value.map(valueText).join(', ');
  return value.length === 1 ? `(${inner},)` : `(${inner})`;
}

export const indented = (text: string): string => text.replace(/\n/g, '\n    ');

/** `Fields(a=1, b=None)`, a field a line; what is text already stands as it is, and a name that begins with "#" is a comment above the next field. */
export const fields = (of: Readonly<Record<string, Value | { readonly text: string }>>): string =>
  `Fields(\n${Object.entries(of)
    .map(([name, value]) =>
      name.startsWith('#')
        ? `    ${name}`
        : `    ${name}=${typeof value === 'object' && value !== null && 'text' in value ? indented(value.text) : valueText(value)},`,
    )
    .join('\n')}\n)`;

/** A list, an entry a line. */
export const rows = (all: readonly string[]): string =>
  all.length === 0 ? '[]' : `[\n${all.map((one) => `    ${indented(one)},`).join('\n')}\n]`;

export const points = (table: readonly TablePoint[]): Value => table.map(({ raw, tenths }) => [raw, tenths]);
