/**
 * What can still be read of a store that is damaged. Every record stands in one piece in its file and carries its own sum, so the file is searched as it lies, without asking
 * the store: a damaged one can end the process that opens it.
 */
import { closeSync, openSync, readSync } from 'node:fs';
import { fromRecord, MARK } from './checked.ts';
import { entrySchema, type Entry } from '@plain-trowel/core/protocol/feed';

export type Found = { readonly gardenId: string; readonly entry: Entry };

const CHUNK_BYTES = 4_000_000;
/** No record is longer. */
const MOST_RECORD_BYTES = 300_000;

/** Entries of a store's file, each once, in the order of their numbers in each garden. */
export function salvage(file: string): readonly Found[] {
  const found = new Map<string, Found>();
  for (const record of recordsIn(file)) {
    const read = fromRecord(record);
    const entry = entrySchema.safeParse(read?.value);
    if (read && entry.success)
      found.set(`${read.gardenId} ${entry.data.n}`, { gardenId: read.gardenId, entry: entry.data });
  }
  return [...found.values()].sort((one, other) => one.entry.n - other.entry.n);
}

/** Everything that begins and ends as a record does. */
function* recordsIn(file: string): Generator<string> {
  const handle = openSync(file, 'r');
  try {
    const mark = Buffer.from(MARK);
    const chunk = Buffer.alloc(CHUNK_BYTES + MOST_RECORD_BYTES);
    for (let at = 0; ;) {
      const length = readSync(handle, chunk, 0, chunk.length, at);
      if (length === 0) return;
      const bytes = chunk.subarray(0, length);
      // A record that begins in the part that is read again is found there.
      const own = length < chunk.length ? length : CHUNK_BYTES;
      for (let begin = bytes.indexOf(mark); begin >= 0 && begin < own;) {
        const end = bytes.indexOf(10, begin);
        if (end >= 0 && end - begin <= MOST_RECORD_BYTES) yield bytes.toString('utf8', begin, end + 1);
        begin = bytes.indexOf(mark, begin + 1);
      }
      at += own;
    }
  } finally {
    closeSync(handle);
  }
}
