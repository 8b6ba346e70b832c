/** How a table that another program wrote is to be read: what a person sees, may change, and then confirms. */
import type { DateOrder } from './dateText.ts';
import type { Decimal } from './numberForm.ts';

export const DELIMITERS = [',', ';', '\t', '|'] as const;
export type Delimiter = (typeof DELIMITERS)[number];

/** A channel, and the unit in which the table has its numbers; null where it says none. */
export type Target = { readonly channelId: string; readonly unit: string | null };

export type Role =
  | { readonly kind: 'leave-out' }
  /** Day and time in one cell, or a number that is a time. */
  | { readonly kind: 'time' }
  | { readonly kind: 'day' }
  | { readonly kind: 'clock' }
  /** Says which channel the row is of; several such columns say it together. */
  | { readonly kind: 'name' }
  /** The number of the channel that the row names. */
  | { readonly kind: 'value' }
  | ({ readonly kind: 'channel' } & Target);

/** How times are written: dates of an order, a number since 1970, or days since the end of 1899 as spreadsheets count. */
export type TimeForm = DateOrder | 'since-1970' | 'sheet-days';

export type Column = { readonly name: string; readonly role: Role };

export type Layout = {
  readonly delimiter: Delimiter;
  /** The line that names the columns, and all before it, are no readings; 0 where the readings begin at once. */
  readonly headerLine: number;
  readonly columns: readonly Column[];
  readonly decimal: Decimal;
  readonly time: TimeForm;
  /** Whose clocks times without an offset are of: an IANA name, or an offset such as "+02:00". */
  readonly timeZone: string;
  /** Newest row first. */
  readonly isFalling: boolean;
  /** What the names of rows mean; one that is not here is left out. */
  readonly names: Readonly<Record<string, Target>>;
};

/** What a table leaves open: asked before anything is taken in. */
export type Question =
  | { readonly kind: 'order'; readonly orders: readonly DateOrder[]; readonly example: string }
  | { readonly kind: 'decimal'; readonly example: string }
  /** Several columns hold times. */
  | { readonly kind: 'which-time'; readonly columns: readonly number[] }
  /** Days without times. */
  | { readonly kind: 'day-only' }
  /** A column, or a name in the rows, could mean any of these channels. */
  | {
      readonly kind: 'which-channel';
      readonly column: number;
      readonly name: string | null;
      /** In which the table has its numbers, as far as it says. */
      readonly unit: string | null;
      readonly ids: readonly string[];
    }
  /** Numbers that a converter gives seldom, for a channel that is recorded in counts. */
  | {
      readonly kind: 'counts';
      readonly column: number;
      readonly name: string | null;
      readonly channelId: string;
    }
  /** A channel whose board prints something else than it means: which of the two does the table hold? */
  | {
      readonly kind: 'corrected';
      readonly column: number;
      readonly name: string | null;
      readonly channelId: string;
    }
  /** Degrees without a letter, too many for soil in °C. */
  | {
      readonly kind: 'degrees';
      readonly column: number;
      readonly name: string | null;
      readonly channelId: string;
    };

/** Why a column, or a name, is not taken in. */
export type LeftOut = {
  readonly name: string;
  readonly why: 'no-number' | 'no-channel' | 'unit';
  readonly unit: string | null;
};

export type Guess = {
  readonly layout: Layout;
  readonly questions: readonly Question[];
  readonly leftOut: readonly LeftOut[];
};

export const roleColumns = (layout: Layout, kind: Role['kind']): number[] =>
  layout.columns.flatMap(({ role }, at) => (role.kind === kind ? [at] : []));

/** Whether a layout says when and what: nothing can be read without both. */
export function isReadable(layout: Layout): boolean {
  const has = (kind: Role['kind']) => roleColumns(layout, kind).length > 0;
  const when = has('time') || has('day');
  return when && (has('channel') || (has('name') && has('value') && Object.keys(layout.names).length > 0));
}

/** The name that a row gives its number, of all columns that name. */
export const rowName = (cells: readonly string[], columns: readonly number[]): string =>
  columns
    .map((at) => (cells[at] ?? '').trim())
    .join(' ')
    .trim();
