/** `catalogue.json`: entries as a file, to be edited elsewhere, shared and read back. The format is documented in docs/CATALOGUE.md. */
import { parseJson } from '../quantity/parseJson.ts';
import { fieldName, plainMessage } from '../quantity/fieldName.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { z } from '../quantity/schema.ts';
import { entrySchema, type Entry } from './schema.ts';

export const CATALOGUE_FORMAT = 'plain-trowel-catalogue';
export const CATALOGUE_VERSION = 1;
export const MOST_ENTRIES = 500;

const fileSchema = z.strictObject({
  format: z.literal(CATALOGUE_FORMAT),
  version: z.literal(CATALOGUE_VERSION),
  entries: z.array(entrySchema).max(MOST_ENTRIES),
});

export type CatalogueFileIssue =
  | { readonly kind: 'not-json' }
  | { readonly kind: 'not-a-catalogue' }
  | { readonly kind: 'id-twice'; readonly id: string }
  | { readonly kind: 'field'; readonly field: string; readonly message: string; readonly more: number };

export const writeCatalogueFile = (entries: readonly Entry[]): string =>
  `${JSON.stringify({ format: CATALOGUE_FORMAT, version: CATALOGUE_VERSION, entries }, null, 2)}\n`;

/** Reads a catalogue file: all of it, or the first thing wrong with it. Cannot throw. */
export function readCatalogueFile(text: string): Result<Entry[], CatalogueFileIssue> {
  const parsed = parseJson(text.replace(/^\ufeff/, ''));
  if (parsed === undefined) return fail({ kind: 'not-json' });
  if (
    typeof parsed !== 'object' ||
    parsed === null ||
    !('format' in parsed) ||
    parsed.format !== CATALOGUE_FORMAT
  )
    return fail({ kind: 'not-a-catalogue' });
  const checked = fileSchema.safeParse(parsed);
  if (!checked.success) {
    const [first] = checked.error.issues;
    return fail({
      kind: 'field',
      field: first ? fieldName(first.path) : 'catalogue',
      message: first ? plainMessage(first.message) : 'cannot be read',
      more: checked.error.issues.length - 1,
    });
  }
  const { entries } = checked.data;
  const twice = entries.find((one, at) => entries.findIndex((other) => other.id === one.id) < at);
  return twice ? fail({ kind: 'id-twice', id: twice.id }) : ok(entries);
}
