/** `garden.json`: the garden document as a file, written with two blanks of indent so that people can read and compare it. */
import { parseJson } from '../../quantity/parseJson.ts';
import { fail, ok, type Result } from '../../quantity/result.ts';
import { looksBinary } from '../../signal/serialLog.ts';
import { faultsOf, type Fault } from './faults.ts';
import { migrate } from './migrations.ts';
import { GARDEN_FORMAT, GARDEN_VERSION, gardenSchema, type Garden } from './schema.ts';

export type GardenFileIssue =
  | { readonly kind: 'empty' }
  | { readonly kind: 'binary' }
  | { readonly kind: 'not-json' }
  | { readonly kind: 'not-a-garden' }
  | { readonly kind: 'newer-version'; readonly version: number; readonly known: number }
  | { readonly kind: 'bad-version'; readonly version: string }
  /** The first field that is wrong, and how many more there are. */
  | { readonly kind: 'field'; readonly fault: Fault | null; readonly more: number };

export const writeGardenFile = (garden: Garden): string => `${JSON.stringify(garden, null, 2)}\n`;

/** Reads a garden file: all of it, or the first thing wrong with it. Cannot throw. */
export function readGardenFile(text: string): Result<Garden, GardenFileIssue> {
  const parsed = parseGardenText(text);
  return parsed.ok ? readGarden(parsed.value) : parsed;
}

/** The JSON of a garden file, not looked at further. Cannot throw. */
export function parseGardenText(text: string): Result<unknown, GardenFileIssue> {
  if (!/\S/.test(text)) return fail({ kind: 'empty' });
  if (looksBinary(text)) return fail({ kind: 'binary' });
  const parsed = parseJson(text.replace(/^\ufeff/, ''));
  return parsed === undefined ? fail({ kind: 'not-json' }) : ok(parsed);
}

/** The same for a value already parsed, such as a record of the browser's own storage. */
export function readGarden(parsed: unknown): Result<Garden, GardenFileIssue> {
  const shaped = parseGarden(parsed);
  if (!shaped.ok) return shaped;
  const checked = gardenSchema.safeParse(shaped.value);
  if (checked.success) return ok(checked.data);
  const [first, ...others] = faultsOf(shaped.value, checked.error.issues);
  return fail({ kind: 'field', fault: first ?? null, more: others.length });
}

/** A document that says it is a garden, brought up to the newest version's shape and not checked further. Cannot throw. */
export function parseGarden(parsed: unknown): Result<unknown, GardenFileIssue> {
  if (
    typeof parsed !== 'object' ||
    parsed === null ||
    !('format' in parsed) ||
    parsed.format !== GARDEN_FORMAT
  )
    return fail({ kind: 'not-a-garden' });
  const version = 'version' in parsed ? parsed.version : undefined;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return fail({ kind: 'bad-version', version: String(version) });
  if (version > GARDEN_VERSION) return fail({ kind: 'newer-version', version, known: GARDEN_VERSION });
  try {
    return ok(migrate(parsed, version));
  } catch {
    return fail({ kind: 'bad-version', version: String(version) });
  }
}
