/** `garden.json`: the garden document as a file, written with two blanks of indent so that people can read and compare it. */
import { fieldName, plainMessage } from '../quantity/fieldName.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { looksBinary } from '../signal/serialLog.ts';
import { migrate } from './migrations.ts';
import { GARDEN_FORMAT, GARDEN_VERSION, gardenSchema, type Garden } from './schema.ts';

export type GardenFileIssue =
  | { readonly kind: 'empty' }
  | { readonly kind: 'binary' }
  | { readonly kind: 'not-json' }
  | { readonly kind: 'not-a-garden' }
  | { readonly kind: 'newer-version'; readonly version: number; readonly known: number }
  | { readonly kind: 'bad-version'; readonly version: string }
  | { readonly kind: 'field'; readonly field: string; readonly message: string; readonly more: number };

export const writeGardenFile = (garden: Garden): string => `${JSON.stringify(garden, null, 2)}\n`;

/** Reads a garden file: all of it, or the first thing wrong with it. Cannot throw. */
export function readGardenFile(text: string): Result<Garden, GardenFileIssue> {
  if (text.trim() === '') return fail({ kind: 'empty' });
  if (looksBinary(text)) return fail({ kind: 'binary' });
  let parsed: unknown;
  try {
    parsed = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch {
    return fail({ kind: 'not-json' });
  }
  return readGarden(parsed);
}

/** The same for a value already parsed, such as a record of the browser's own storage. */
export function readGarden(parsed: unknown): Result<Garden, GardenFileIssue> {
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
  const checked = gardenSchema.safeParse(migrate(parsed, version));
  if (checked.success) return ok(checked.data);
  const [first] = checked.error.issues;
  return fail({
    kind: 'field',
    field: first ? fieldName(first.path) : 'garden',
    message: first ? plainMessage(first.message) : 'cannot be read',
    more: checked.error.issues.length - 1,
  });
}
