/** The list to buy: what the wiring counts, with a person's own prices, spares and lives; cost to build and cost per year. */
import type { Catalogue } from '../catalogue/catalogue.ts';
import type { Entry, Role } from '../catalogue/schema.ts';
import { poweredShare } from '../power/probeLife.ts';
import { formatNumber } from '../quantity/format.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { writeCsv } from '../records/csv.ts';
import type { Netlist } from '../wiring/netlist.ts';

export type Money = {
  /** As the person writes it: "€", "£", "kr". */
  readonly currency: string;
  readonly prices: Readonly<Record<string, number>>;
  readonly spares: Readonly<Record<string, number>>;
  /** Lives that differ from the catalogue's, years. */
  readonly lives: Readonly<Record<string, number>>;
};

export type PartsRow = {
  /** Entry id, or `cable-0.22`. */
  readonly key: string;
  readonly name: string;
  readonly role: Role | 'cable';
  /** Pieces, or metres of cable. */
  readonly count: number;
  readonly unit: 'pieces' | 'm';
  readonly spares: number;
  /** What lies in the drawer already. */
  readonly have: number;
  /** Count and spares without what is there. */
  readonly buy: number;
  readonly price: number | null;
  readonly lifeYears: number | null;
  readonly cost: number | null;
  readonly perYear: number | null;
  /** Labels of the parts counted. */
  readonly labels: readonly string[];
};

const CABLE_LIFE_YEARS = 10;

/** @param everyS time between readings, s: a probe powered only to be read lives longer */
export function partsRows(
  netlist: Netlist,
  catalogue: Catalogue,
  money: Money,
  everyS: number,
  drawer: Readonly<Record<string, number>> = {},
): PartsRow[] {
  const groups = new Map<string, { entry: Entry; labels: string[]; perReading: boolean }>();
  for (const part of netlist.parts) {
    const entry = catalogue.get(part.entryId);
    if (!entry) continue;
    const key = valueKey(entry, part.settings);
    const held = groups.get(key) ?? { entry, labels: [], perReading: true };
    held.labels.push(part.label);
    groups.set(key, { ...held, perReading: held.perReading && part.perReading });
  }
  const parts = [...groups].map(([key, { entry, labels, perReading }]) =>
    row(
      key,
      nameWithValue(entry, key),
      entry.role,
      labels.length,
      'pieces',
      labels,
      lifeOf(entry, perReading, everyS),
      money,
      drawer,
    ),
  );
  const metres = new Map<string, { lengthM: number; labels: string[] }>();
  for (const cable of netlist.cables) {
    const key = `cable-${cable.areaMm2 ?? 'unknown'}`;
    const held = metres.get(key) ?? { lengthM: 0, labels: [] };
    metres.set(key, { lengthM: held.lengthM + (cable.lengthM ?? 0), labels: [...held.labels, cable.label] });
  }
  const cables = [...metres].map(([key, { lengthM, labels }]) =>
    row(
      key,
      `cable, ${key === 'cable-unknown' ? 'cross-section not known' : `${key.slice(6)} mm²`}`,
      'cable',
      Math.round(lengthM * 10) / 10,
      'm',
      labels,
      CABLE_LIFE_YEARS,
      money,
      drawer,
    ),
  );
  return [...parts, ...cables];
}

/** Resistors, dividers, shunts and fuses are bought by value. */
const BY_VALUE = ['ohm', 'fuseA', 'upperOhm', 'lowerOhm'] as const;
function valueKey(entry: Entry, settings: Netlist['parts'][number]['settings']): string {
  const values = BY_VALUE.flatMap((key) => {
    const value = settings[key];
    return value == null || value === entry.facts[key] ? [] : [String(value)];
  });
  return [entry.id, ...values].join(' ');
}
function nameWithValue(entry: Entry, key: string): string {
  const values = key.split(' ').slice(1);
  if (values.length === 0) return entry.name;
  const unit = entry.role === 'fuse' ? 'A' : 'Ω';
  return `${entry.name}, ${values.map((value) => formatNumber(Number(value), Number(value) % 1 === 0 ? 0 : 1)).join(' and ')} ${unit}`;
}

function lifeOf(entry: Entry, perReading: boolean, everyS: number): number | null {
  const { poweredYears, idleYears, warmUpS, measureS } = entry.facts;
  if (poweredYears == null) return null;
  if (!perReading || idleYears == null) return poweredYears;
  const share = poweredShare({ warmUpS: warmUpS ?? 0, measureS: measureS ?? 0, everyS });
  return 1 / (share / poweredYears + (1 - share) / idleYears);
}

function row(
  key: string,
  name: string,
  role: PartsRow['role'],
  count: number,
  unit: PartsRow['unit'],
  labels: readonly string[],
  usualYears: number | null,
  money: Money,
  drawer: Readonly<Record<string, number>>,
): PartsRow {
  const price = money.prices[key] ?? null;
  const spares = money.spares[key] ?? 0;
  const lifeYears = money.lives[key] ?? usualYears;
  const have = drawer[key] ?? 0;
  const buy = Math.max(0, count + spares - have);
  return {
    key,
    name,
    role,
    count,
    unit,
    labels,
    spares,
    have,
    buy,
    price,
    lifeYears,
    cost: price === null ? null : price * buy,
    perYear: price === null || lifeYears === null ? null : (price * count) / lifeYears,
  };
}

export type PartsTotal = { readonly worked: Worked; readonly missing: number };

function total(
  title: string,
  rows: readonly PartsRow[],
  of: (row: PartsRow) => number | null,
  unit: string,
  formula: string,
  note: string,
): PartsTotal {
  const known = rows.flatMap((one) => of(one) ?? []);
  const sum = step(
    {
      name: 'sum',
      unit,
      decimals: 2,
      formula,
      inputs: { rows: input('lines with a price', known.length, '') },
    },
    () => known.reduce((total, one) => total + one, 0),
  );
  const missing = rows.length - known.length;
  return {
    missing,
    worked: worked(title, [sum], {
      source: 'Prices are your own.',
      note:
        missing > 0
          ? `${missing} ${missing === 1 ? 'line has' : 'lines have'} no price or life yet and ${missing === 1 ? 'is' : 'are'} not in the sum. ${note}`
          : note,
      wouldChange: 'Prices, spares, lives; probes that are powered only to be read.',
    }),
  };
}

/** Cost to build: price × what is to be bought, summed. */
export const buildCost = (rows: readonly PartsRow[], currency: string): PartsTotal =>
  total(
    'Cost to build',
    rows,
    (one) => one.cost,
    currency,
    'sum over {rows} of price × (count + spares − what is there)',
    'Spares are bought with the rest; what lies in the drawer is not.',
  );

/** Cost per year: price × count ÷ life, summed. A spare is a replacement bought early, so it does not count again. */
export const yearCost = (rows: readonly PartsRow[], currency: string): PartsTotal =>
  total(
    'Cost per year',
    rows,
    (one) => one.perYear,
    `${currency} a year`,
    'sum over {rows} of price × count ÷ life in years',
    'A spare is a replacement bought early; it does not count again.',
  );

/** The list as CSV (RFC 4180), one line a row; unknown cells are empty. */
export const partsCsv = (rows: readonly PartsRow[], currency: string): string => {
  const rounded = (value: number | null) => (value === null ? null : Number(value.toFixed(2)));
  return writeCsv(
    [
      'part',
      'labels',
      'count',
      'unit',
      'spares',
      'have',
      'to buy',
      `unit price (${currency})`,
      'life (years)',
      `cost (${currency})`,
      `cost per year (${currency})`,
    ],
    rows.map((one) => [
      one.name,
      one.labels.join(' '),
      one.count,
      one.unit,
      one.spares,
      one.have,
      one.buy,
      one.price,
      rounded(one.lifeYears),
      rounded(one.cost),
      rounded(one.perYear),
    ]),
  );
};
