/** Undo and redo steps as storage holds them: written beside the document, in its version, and brought up with it. */
import { z } from '../../quantity/schema.ts';
import { readGarden } from './gardenFile.ts';
import type { Change, History } from './history.ts';
import { applyPatch, diff, patchSchema, type Patch } from './patch.ts';
import { GARDEN_VERSION, type Garden } from './schema.ts';

const step = z.object({ label: z.string(), patch: patchSchema, imported: z.string().exactOptional() });
const stored = z.object({ version: z.int(), past: z.array(step), future: z.array(step) });

/** Steps of the first versions held the whole document that they led to. */
const wholeStep = z.object({ label: z.string(), before: z.unknown(), imported: z.string().exactOptional() });
const storedWhole = z.object({ past: z.array(wholeStep), future: z.array(wholeStep) });

export type StoredHistory = {
  readonly version: number;
  readonly past: readonly Change[];
  readonly future: readonly Change[];
};

export const storedHistory = ({ past, future }: History<Garden>): StoredHistory => ({
  version: GARDEN_VERSION,
  past,
  future,
});

type Steps = Pick<History<Garden>, 'past' | 'future'>;

/**
 * Reads stored steps. Those that no longer lead to a garden are forgotten, with all that lie behind them: losing an undo step is better than losing the garden.
 * @param doc the document beside which they were stored, in its own version
 * @param present the same, brought up to the present version
 */
export function readHistory(value: unknown, doc: unknown, present: Garden): Steps {
  const read = stored.safeParse(value);
  const isSame = read.success && read.data.version === GARDEN_VERSION && diff(doc, present).length === 0;
  if (isSame) return { past: read.data.past, future: read.data.future };
  if (read.success)
    return {
      past: broughtUp(documentsOf(doc, read.data.past), present),
      future: broughtUp(documentsOf(doc, read.data.future), present),
    };
  const whole = storedWhole.safeParse(value);
  const documents = (steps: readonly z.infer<typeof wholeStep>[]) =>
    steps.map(({ before, ...rest }) => ({ ...rest, document: before })).toReversed();
  return whole.success
    ? {
        past: broughtUp(documents(whole.data.past), present),
        future: broughtUp(documents(whole.data.future), present),
      }
    : { past: [], future: [] };
}

type Led = { readonly label: string; readonly imported?: string; readonly document: unknown };

/** The documents that steps lead to, nearest first, in the version they were stored in. */
function documentsOf(
  doc: unknown,
  steps: readonly (Omit<Change, 'patch'> & { readonly patch: Patch })[],
): Led[] {
  const led: Led[] = [];
  let document = doc;
  for (const { patch, ...rest } of steps.toReversed()) {
    try {
      document = applyPatch(document, patch);
    } catch {
      break;
    }
    led.push({ ...rest, document });
  }
  return led;
}

/** Steps between documents brought up to the present version, nearest last as a history holds them. */
function broughtUp(led: readonly Led[], present: Garden): Change[] {
  const steps: Change[] = [];
  let nearer = present;
  for (const { document, label, imported } of led) {
    const read = readGarden(document);
    if (!read.ok) break;
    steps.unshift({
      label,
      patch: diff(nearer, read.value),
      ...(imported === undefined ? {} : { imported }),
    });
    nearer = read.value;
  }
  return steps;
}

/** Documents that the undo steps lead to, nearest first: for the day on which the garden's own record cannot be read. Cannot throw. */
export function documentsBehind(value: unknown, doc: unknown): unknown[] {
  const read = stored.safeParse(value);
  if (read.success) return documentsOf(doc, read.data.past).map((one) => one.document);
  const whole = storedWhole.safeParse(value);
  return whole.success ? whole.data.past.map((one) => one.before).toReversed() : [];
}
