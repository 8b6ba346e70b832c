/** What is wrong with a garden document, field by field, in a form that a screen can put into words and a person can mend. */
import type { z } from '../../quantity/schema.ts';
import { fieldName, plainMessage } from '../../quantity/fieldName.ts';

export type Path = readonly (string | number)[];

/** What a field breaks. */
export type Rule =
  | { readonly kind: 'too-many'; readonly most: number }
  | { readonly kind: 'too-few'; readonly least: number }
  | { readonly kind: 'too-long'; readonly most: number }
  | { readonly kind: 'empty' }
  | { readonly kind: 'above'; readonly most: number }
  | { readonly kind: 'below'; readonly least: number }
  | { readonly kind: 'not-whole' }
  | { readonly kind: 'not-a-number' }
  | { readonly kind: 'missing' }
  | { readonly kind: 'not-one-of'; readonly words: readonly string[] }
  /** A field that no garden has. */
  | { readonly kind: 'unknown-field' }
  | { readonly kind: 'other'; readonly message: string };

export type Fault = {
  readonly path: Path;
  /** The path in one piece: "reservoirs[0].levels". */
  readonly field: string;
  readonly rule: Rule;
  /** What stands there; undefined where nothing does. */
  readonly value: unknown;
};

/** What stands at a path; undefined where the path leads nowhere. */
export const valueAt = (doc: unknown, path: Path): unknown =>
  path.reduce<unknown>(
    (at, part) =>
      typeof at === 'object' && at !== null && Object.hasOwn(at, part)
        ? (at as Readonly<Record<string | number, unknown>>)[part]
        : undefined,
    doc,
  );

type Issue = z.core.$ZodIssue;

/** The faults that a schema found in a document, each once. */
export const faultsOf = (doc: unknown, issues: readonly Issue[]): readonly Fault[] => {
  const faults = issues.flatMap((issue) => ofIssue(doc, issue, []));
  const seen = new Set<string>();
  return faults.filter(({ field, rule }) => {
    const key = `${field} ${rule.kind}`;
    return !seen.has(key) && seen.add(key);
  });
};

function ofIssue(doc: unknown, issue: Issue, above: Path): Fault[] {
  const path = [...above, ...(issue.path as (string | number)[])];
  const fault = (rule: Rule, at: Path = path): Fault => ({
    path: at,
    field: fieldName(at),
    rule,
    value: valueAt(doc, at),
  });
  if (issue.code === 'unrecognized_keys')
    return issue.keys.map((key) => fault({ kind: 'unknown-field' }, [...path, key]));
  if (issue.code === 'invalid_union') {
    // Of several shapes the one that fits best says what is wrong.
    const [nearest] = [...issue.errors].sort((a, b) => a.length - b.length);
    if (nearest && nearest.length > 0) return nearest.flatMap((inner) => ofIssue(doc, inner, path));
  }
  return [fault(ruleOf(issue, valueAt(doc, path)))];
}

function ruleOf(issue: Issue, value: unknown): Rule {
  switch (issue.code) {
    case 'too_big': {
      const most = Number(issue.maximum);
      if (issue.origin === 'array') return { kind: 'too-many', most };
      if (issue.origin === 'string') return { kind: 'too-long', most };
      return { kind: 'above', most };
    }
    case 'too_small': {
      const least = Number(issue.minimum);
      if (issue.origin === 'array') return { kind: 'too-few', least };
      if (issue.origin === 'string') return { kind: 'empty' };
      return { kind: 'below', least };
    }
    case 'invalid_type':
      if (value === undefined) return { kind: 'missing' };
      if (issue.expected === 'int') return { kind: 'not-whole' };
      if (issue.expected === 'number') return { kind: 'not-a-number' };
      break;
    case 'invalid_value':
      return { kind: 'not-one-of', words: issue.values.map(String) };
  }
  return { kind: 'other', message: plainMessage(issue.message) };
}
