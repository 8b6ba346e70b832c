/** Everything in the mailbox, in open formats: each report as one line of JSON (NDJSON), and each reading as one line of CSV (RFC 4180). */
import { createWriteStream, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { entryFrom } from '../mailbox/mailbox.ts';
import type { Store } from '../mailbox/store.ts';
import type { Entry } from '@plain-trowel/core/protocol/feed';

export type Exported = {
  readonly files: readonly string[];
  readonly entries: number;
  readonly readings: number;
};

const HEAD = 'garden,number,board,boot,run,report,name,value,time\r\n';

/** Writes both files into a folder. What is damaged is left out; `verify` counts it. */
export async function exportAll(store: Store, folder: string): Promise<Exported> {
  mkdirSync(folder, { recursive: true });
  const files = [join(folder, 'reports.ndjson'), join(folder, 'readings.csv')] as const;
  const counts = { entries: 0, readings: 0 };
  await pipeline(Readable.from(ndjson(store, counts)), createWriteStream(files[0]));
  await pipeline(Readable.from(csv(store, counts)), createWriteStream(files[1]));
  return { files, ...counts };
}

function* entriesOf(store: Store): Generator<readonly [string, Entry]> {
  for (const { key, value } of store.log.getRange({})) {
    const entry = entryFrom(value);
    if (entry) yield [key[0], entry];
  }
}

function* ndjson(store: Store, counts: { entries: number }): Generator<string> {
  for (const [garden, entry] of entriesOf(store)) {
    counts.entries += 1;
    yield `${JSON.stringify({ garden, ...entry })}\n`;
  }
}

function* csv(store: Store, counts: { readings: number }): Generator<string> {
  yield HEAD;
  // Garden, board and name are letters, digits, points and hyphens: nothing of it wants quotes, and no spreadsheet takes it for a formula.
  for (const [garden, { n, boardId, boot, run, seq, readings }] of entriesOf(store))
    for (const { n: name, v, atMs } of readings) {
      counts.readings += 1;
      yield `${[garden, n, boardId, boot, run, seq, name, v, new Date(atMs).toISOString()].join(',')}\r\n`;
    }
}
