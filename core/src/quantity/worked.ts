import { formatNumber } from './format.ts';

/**
 * A value together with its working. Anything shown to a person can answer "where does this come from?";
 * the value is read from the working, so the two cannot disagree.
 */
export type WorkedInput = {
  /** Words a maker would say: "dry reference". */
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  readonly decimals: number;
};

export type WorkedStep = {
  readonly name: string;
  /** The formula with `{key}` where an input goes, e.g. `({dry} − {now}) ÷ ({dry} − {wet}) × 100`. */
  readonly formula: string;
  readonly inputs: Readonly<Record<string, WorkedInput>>;
  readonly value: number;
  readonly unit: string;
  readonly decimals: number;
};

export type Worked = {
  readonly title: string;
  readonly value: number;
  readonly unit: string;
  readonly decimals: number;
  readonly steps: readonly WorkedStep[];
  /** Where the formula comes from. */
  readonly source: string;
  /** What the number means or how far to trust it, in one or two sentences. */
  readonly note?: string;
  /** What would change the number. */
  readonly wouldChange?: string;
};

export const input = (name: string, value: number, unit: string, decimals = 0): WorkedInput => ({
  name,
  value,
  unit,
  decimals,
});

/** One step of a working: the formula as text and as arithmetic, side by side over the same inputs. */
export function step<Keys extends string>(
  of: {
    name: string;
    unit: string;
    decimals?: number;
    formula: string;
    inputs: Readonly<Record<Keys, WorkedInput>>;
  },
  compute: (values: Readonly<Record<Keys, number>>) => number,
): WorkedStep {
  const values = Object.fromEntries(
    Object.entries<WorkedInput>(of.inputs).map(([key, given]) => [key, given.value]),
  ) as Record<Keys, number>;
  return {
    name: of.name,
    unit: of.unit,
    decimals: of.decimals ?? 0,
    formula: of.formula,
    inputs: of.inputs,
    value: compute(values),
  };
}

/** Collects steps into a worked value; the value shown is that of the last step. */
export function worked(
  title: string,
  steps: readonly [WorkedStep, ...WorkedStep[]],
  about: { source: string; note?: string; wouldChange?: string },
): Worked {
  const last = steps[steps.length - 1] ?? steps[0];
  return { title, value: last.value, unit: last.unit, decimals: last.decimals, steps, ...about };
}

const fill = (formula: string, write: (key: string) => string) =>
  formula.replace(/\{(\w+)\}/g, (_, key: string) => write(key));

/** The formula in words: `(dry reference − reading now) ÷ …`. */
export const formulaInWords = (of: WorkedStep): string =>
  fill(of.formula, (key) => of.inputs[key]?.name ?? key);

/** The same formula with the numbers put in. */
export const formulaInNumbers = (of: WorkedStep): string =>
  fill(of.formula, (key) => {
    const given = of.inputs[key];
    return given ? formatNumber(given.value, given.decimals) : key;
  });
