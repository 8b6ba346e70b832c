/** Mending a document that does not open: its faults one by one, and small changes that a person can make to it until it does. */
import { fail, ok, type Result } from '../../quantity/result.ts';
import { faultsOf, valueAt, type Fault, type Path } from './faults.ts';
import { parseGarden, type GardenFileIssue } from './gardenFile.ts';
import { gardenSchema, type Garden } from './schema.ts';

export type Examined = {
  /** The document in the newest version's shape. */
  readonly doc: unknown;
  /** None left: `garden` is the document, checked. */
  readonly faults: readonly Fault[];
  readonly garden: Garden | null;
};

/** Looks a stored or given document through; fails only where it is no garden of a version known here. Cannot throw. */
export function examineGarden(stored: unknown): Result<Examined, GardenFileIssue> {
  const parsed = parseGarden(stored);
  if (!parsed.ok) return fail(parsed.issue);
  const read = gardenSchema.safeParse(parsed.value);
  return ok(
    read.success
      ? { doc: parsed.value, faults: [], garden: read.data }
      : { doc: parsed.value, faults: faultsOf(parsed.value, read.error.issues), garden: null },
  );
}

export type Remedy =
  | { readonly kind: 'set'; readonly path: Path; readonly value: unknown }
  /** Takes a field or a list's entry away. */
  | { readonly kind: 'remove'; readonly path: Path }
  /** Keeps the first of a list. */
  | { readonly kind: 'keep-first'; readonly path: Path; readonly most: number };

/** What would mend a fault without a person typing anything; often there are several ways, and none that keeps everything. */
export function remediesOf(doc: unknown, { path, rule, value }: Fault): readonly Remedy[] {
  const entry = entryOf(doc, path);
  const drop: Remedy[] = entry ? [{ kind: 'remove', path: entry }] : [];
  switch (rule.kind) {
    case 'too-many':
      return [{ kind: 'keep-first', path, most: rule.most }];
    case 'too-long':
      return [{ kind: 'set', path, value: String(value).slice(0, rule.most) }, ...drop];
    case 'above':
      return [{ kind: 'set', path, value: rule.most }, ...drop];
    case 'below':
      return [{ kind: 'set', path, value: rule.least }, ...drop];
    case 'not-whole':
      return typeof value === 'number' && Number.isFinite(value)
        ? [{ kind: 'set', path, value: Math.round(value) }, ...drop]
        : drop;
    case 'unknown-field':
      return [{ kind: 'remove', path }];
    default:
      return drop;
  }
}

/** The innermost entry of a list that a path leads through. */
function entryOf(doc: unknown, path: Path): Path | null {
  for (let length = path.length; length > 0; length -= 1)
    if (typeof path[length - 1] === 'number' && Array.isArray(valueAt(doc, path.slice(0, length - 1))))
      return path.slice(0, length);
  return null;
}

/** The document with one remedy applied; the given one is left as it is. A path that leads nowhere changes nothing. */
export function mend(doc: unknown, remedy: Remedy): unknown {
  const change = (at: unknown): unknown => {
    switch (remedy.kind) {
      case 'set':
        return remedy.value;
      case 'keep-first':
        return Array.isArray(at) ? at.slice(0, remedy.most) : at;
      case 'remove':
        return REMOVED;
    }
  };
  const changed = changeAt(doc, remedy.path, change);
  return changed === REMOVED ? doc : changed;
}

const REMOVED = Symbol('removed');

function changeAt(at: unknown, path: Path, change: (value: unknown) => unknown): unknown {
  const [part, ...rest] = path;
  if (part === undefined) return change(at);
  if (typeof at !== 'object' || at === null) return at;
  const inner = changeAt((at as Record<string | number, unknown>)[part], rest, change);
  if (Array.isArray(at)) {
    const place = Number(part);
    return inner === REMOVED ? at.toSpliced(place, 1) : place < at.length ? at.with(place, inner) : at;
  }
  const { [part]: _old, ...others } = at as Record<string, unknown>;
  return inner === REMOVED ? others : { ...at, [part]: inner };
}
