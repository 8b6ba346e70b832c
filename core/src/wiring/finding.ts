/** What the checks report, and how a check is written. */
import type { Facts, FactKey } from '../catalogue/facts.ts';
import type { Worked } from '../quantity/worked.ts';
import type { Circuit, Spot } from './circuit.ts';
import type { End } from './netlist.ts';

/**
 * danger: can hurt a person or set something alight · fault: kills a part or cannot work · caution: works badly or only sometimes ·
 * note: something to do at the bench · unknown: could not be judged, because a figure is missing.
 */
export const SEVERITIES = ['danger', 'fault', 'caution', 'unknown', 'note'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** A change of the wiring that answers a finding; `label` is what the button says. */
export type Remedy = { readonly label: string } & (
  | {
      /** Everything wired to `at` is wired to the new part's `inTerminal` instead, and its `outTerminal` to `at`. */
      readonly kind: 'insert';
      readonly entryId: string;
      readonly at: End;
      readonly inTerminal: string;
      readonly outTerminal: string;
      readonly ground: End | null;
      readonly settings: Facts;
    }
  | {
      /** A new part with each of its terminals wired to an end. */
      readonly kind: 'bridge';
      readonly entryId: string;
      readonly ends: Readonly<Record<string, End>>;
      readonly settings: Facts;
    }
  | { readonly kind: 'set-fact'; readonly part: string; readonly key: FactKey; readonly value: number }
  | { readonly kind: 'set-address'; readonly part: string; readonly address: number }
  | { readonly kind: 'set-area'; readonly cable: string; readonly areaMm2: number }
  | { readonly kind: 'add-wire'; readonly from: End; readonly to: End }
  /** Everything wired to `from` goes to `to` instead. */
  | { readonly kind: 'move'; readonly from: End; readonly to: End }
  /** Everything wired to a supply input is taken off, and it is wired to another output. */
  | { readonly kind: 'feed'; readonly at: End; readonly from: End }
  /** Each of these terminals of a part is taken off and wired to another end. */
  | { readonly kind: 'rewire'; readonly part: string; readonly ends: Readonly<Record<string, End>> }
  | { readonly kind: 'swap'; readonly one: End; readonly other: End }
  | { readonly kind: 'replace'; readonly part: string; readonly entryId: string }
  | { readonly kind: 'add-part'; readonly entryId: string; readonly boardId: string | null }
  /** A line of a level shifter between `at` and everything wired to it, fed from both supplies. */
  | {
      readonly kind: 'shift';
      readonly at: End;
      readonly low: End;
      readonly high: End;
      readonly ground: End;
    }
);

export type Finding = {
  readonly check: string;
  readonly severity: Severity;
  /** What is wrong with its numbers, what it means and what to do. */
  readonly says: string;
  /** The terminals it is about; their wires light up. */
  readonly ends: readonly End[];
  readonly remedies: readonly Remedy[];
  readonly worked?: Worked;
  /** It follows from something else that may be found itself; then only that is told. */
  readonly isConsequence?: boolean;
};

/** What the wiring stands in; null is not known. */
export type Setting = {
  readonly radioOn: boolean | null;
  readonly tapWater: boolean | null;
  /** Whether it freezes where it stands; absent: not known. */
  readonly frost?: boolean | null;
};

type More = {
  readonly remedies?: readonly Remedy[];
  readonly worked?: Worked | undefined;
  readonly isConsequence?: boolean;
};
export type Report = {
  /** One place was judged and is in order. */
  fine: () => void;
  find: (severity: Exclude<Severity, 'unknown'>, says: string, spots: readonly Spot[], more?: More) => void;
  /** One place could not be judged. */
  unknown: (says: string, spots: readonly Spot[], more?: More) => void;
};

/** What a check looks at, without how it does it. */
export type AboutCheck = {
  readonly id: string;
  /** What is in order when it passes: "No pin sees too much voltage". */
  readonly title: string;
  readonly why: string;
};

export type Check = AboutCheck & {
  readonly run: (circuit: Circuit, report: Report, setting: Setting) => void;
};

/** Plain data, so that it can come from a worker. not needed: nothing in the wiring to judge · passed · found · unknown: nothing found, but something could not be judged. */
export type CheckResult = {
  readonly check: AboutCheck;
  readonly verdict: 'not needed' | 'passed' | 'found' | 'unknown';
  readonly judged: number;
  readonly findings: readonly Finding[];
};

export function runCheck(check: Check, circuit: Circuit, setting: Setting): CheckResult {
  const findings: Finding[] = [];
  let judged = 0;
  const add = (severity: Severity, says: string, spots: readonly Spot[], more: More = {}) => {
    judged += 1;
    findings.push({
      check: check.id,
      severity,
      says,
      ends: spots.map((spot) => spot.end),
      remedies: more.remedies ?? [],
      ...(more.worked ? { worked: more.worked } : {}),
      ...(more.isConsequence ? { isConsequence: true } : {}),
    });
  };
  check.run(
    circuit,
    {
      fine: () => {
        judged += 1;
      },
      find: add,
      unknown: (says, spots, more) => add('unknown', says, spots, more),
    },
    setting,
  );
  const verdict = findings.some((one) => one.severity !== 'unknown')
    ? 'found'
    : findings.length > 0
      ? 'unknown'
      : judged > 0
        ? 'passed'
        : 'not needed';
  const { id, title, why } = check;
  return { check: { id, title, why }, verdict, judged, findings };
}
