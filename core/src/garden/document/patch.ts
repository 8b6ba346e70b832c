/**
 * What must be changed in one plain document to make another of it. Documents are trees of objects, lists, texts, numbers and null; parts that are the same object
 * in both are not looked into, so that a patch costs what changed and not what there is.
 */
import { z } from '../../quantity/schema.ts';

const step = z.union([z.string(), z.number()]);
const path = z.array(step).max(20);

const op = z.union([
  /** Puts a value at a place; the whole document at an empty path. */
  z.strictObject({ path, value: z.unknown() }),
  /** Takes a field away. */
  z.strictObject({ path, gone: z.literal(true) }),
  /** Takes so many items out of a list at a place, and puts others in. */
  z.strictObject({ path, at: z.int().min(0), remove: z.int().min(0), insert: z.array(z.unknown()) }),
]);
export const patchSchema = z.array(op);
export type Patch = z.infer<typeof patchSchema>;
type Op = Patch[number];
type Path = readonly (string | number)[];
type Loose = Readonly<Record<string, unknown>>;

const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The steps from one document to another; none when they say the same. */
export function diff(from: unknown, to: unknown, at: Path = []): Patch {
  if (from === to) return [];
  if (isObject(from) && isObject(to)) return ofObjects(from, to, at);
  if (Array.isArray(from) && Array.isArray(to)) return ofLists(from, to, at);
  return [{ path: [...at], value: to }];
}

const ofObjects = (from: Loose, to: Loose, at: Path): Patch => [
  ...Object.keys(from).flatMap((key): Op[] =>
    Object.hasOwn(to, key) ? [] : [{ path: [...at, key], gone: true }],
  ),
  ...Object.keys(to).flatMap((key): Patch =>
    Object.hasOwn(from, key)
      ? diff(from[key], to[key], [...at, key])
      : [{ path: [...at, key], value: to[key] }],
  ),
];

const isSame = (a: unknown, b: unknown): boolean => diff(a, b).length === 0;

/** What stands alike at both ends stays; between them items are changed in place where there are as many, or taken out and put in. */
function ofLists(from: readonly unknown[], to: readonly unknown[], at: Path): Patch {
  let head = 0;
  while (head < from.length && head < to.length && isSame(from[head], to[head])) head += 1;
  let tail = 0;
  const most = Math.min(from.length, to.length) - head;
  while (tail < most && isSame(from[from.length - 1 - tail], to[to.length - 1 - tail])) tail += 1;
  const out = from.slice(head, from.length - tail);
  const into = to.slice(head, to.length - tail);
  if (out.length === 0 && into.length === 0) return [];
  if (out.length === into.length)
    return into.flatMap((item, place) => diff(out[place], item, [...at, head + place]));
  return [{ path: [...at], at: head, remove: out.length, insert: into }];
}

/** The document with the steps made. @throws RangeError when it is not the document that they were made for */
export const applyPatch = (document: unknown, patch: Patch): unknown =>
  patch.reduce<unknown>((now, one) => atPath(now, one.path, one), document);

function atPath(value: unknown, [first, ...rest]: Path, one: Op): unknown {
  if (first === undefined) return applied(value, one);
  if (Array.isArray(value)) {
    if (typeof first !== 'number' || first >= value.length) throw new RangeError(`no item ${String(first)}`);
    return value.map((item: unknown, place) => (place === first ? atPath(item, rest, one) : item));
  }
  if (!isObject(value)) throw new RangeError(`no field ${String(first)}`);
  if (rest.length > 0 && !Object.hasOwn(value, first)) throw new RangeError(`no field ${String(first)}`);
  if (rest.length === 0 && 'gone' in one) {
    const { [first]: _gone, ...left } = value;
    return left;
  }
  return { ...value, [first]: atPath(value[first], rest, one) };
}

function applied(value: unknown, one: Op): unknown {
  if ('value' in one) return one.value;
  if (!('insert' in one) || !Array.isArray(value) || one.at + one.remove > value.length)
    throw new RangeError('no such items');
  return (value as unknown[]).toSpliced(one.at, one.remove, ...one.insert);
}
