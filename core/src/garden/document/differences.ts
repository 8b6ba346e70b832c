/** In what two states of one garden differ, thing by thing: parts are told by their names, wherever they stand in their lists. */
import type { Garden } from './schema.ts';

type Loose = Readonly<Record<string, unknown>>;

export type Difference = {
  /** Fields from the garden down, without the places of lists. */
  readonly path: readonly string[];
  /** The plot, board, line … that it is in, by its name; null for what is the garden's own. */
  readonly of: string | null;
  /** Undefined where it is not there. */
  readonly here: unknown;
  readonly there: unknown;
};

const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What lists go by: an id, or a kind where each stands once. */
const keyOf = (item: unknown): string | null => {
  if (!isObject(item)) return null;
  const key = item.id ?? item.kind ?? item.state;
  return typeof key === 'string' ? key : null;
};

/** What a person calls it; null for what has no name of its own, as a calibration. */
function nameOf(item: unknown): string | null {
  if (!isObject(item)) return null;
  for (const field of ['name', 'label', 'tag', 'kind', 'state', 'quantity'])
    if (typeof item[field] === 'string' && item[field] !== '') return item[field];
  return null;
}

/** @returns none when both say the same */
export const differences = (here: Garden, there: Garden): readonly Difference[] =>
  within(here, there, [], null);

function within(here: unknown, there: unknown, path: readonly string[], of: string | null): Difference[] {
  if (isSame(here, there)) return [];
  if (isObject(here) && isObject(there))
    return [...new Set([...Object.keys(here), ...Object.keys(there)])].flatMap((key) =>
      within(here[key], there[key], [...path, key], of),
    );
  if (Array.isArray(here) && Array.isArray(there) && isKeyed(here) && isKeyed(there))
    return ofLists(here, there, path, of);
  return [{ path, of, here, there }];
}

const isKeyed = (list: readonly unknown[]): boolean =>
  new Set(list.map(keyOf)).size === list.length && list.every((item) => keyOf(item) !== null);

function ofLists(
  here: readonly unknown[],
  there: readonly unknown[],
  path: readonly string[],
  of: string | null,
): Difference[] {
  // What stands within a named thing is told by that name.
  const whose = (item: unknown) => of ?? nameOf(item);
  const theirs = new Map(there.map((item) => [keyOf(item), item]));
  const ours = new Map(here.map((item) => [keyOf(item), item]));
  const found = [...ours].flatMap(([key, item]): Difference[] =>
    theirs.has(key)
      ? within(item, theirs.get(key), path, whose(item))
      : [{ path, of: whose(item), here: item, there: undefined }],
  );
  const news = [...theirs].filter(([key]) => !ours.has(key));
  return [...found, ...news.map(([, item]) => ({ path, of: whose(item), here: undefined, there: item }))];
}
