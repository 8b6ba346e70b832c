/**
 * A bench session as a file: one JSON object a line (NDJSON). The first says what it is, every other is a line as it came:
 *
 *     {"format":"plain-trowel-bench","version":1,"garden":"…","source":"…","startedAt":"2026-04-02T08:15:00.000Z"}
 *     {"t":1775117700000,"board":"roof","line":"c2=1512"}
 *
 * Times are ms since 1970, from 2000 up to 2100. Lines are kept as they came, understood or not, so that playing back shows what was seen.
 */
import { textLines } from '../quantity/textLines.ts';
import { isMoment } from '../quantity/moment.ts';
import { z } from '../quantity/schema.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { MOST_LINE_CHARS } from './line.ts';

const FORMAT = 'plain-trowel-bench';
const VERSION = 1;

export type RecordedLine = { readonly boardId: string; readonly text: string; readonly atMs: number };

const head = z.object({
  format: z.literal(FORMAT),
  version: z.int().min(1),
  garden: z.string().max(60),
  source: z.string().max(200),
  startedAt: z.iso.datetime({ offset: true }),
  simulated: z.boolean(),
});

export type BenchHead = Omit<z.infer<typeof head>, 'format' | 'version'>;

export type BenchRecording = {
  readonly head: BenchHead;
  /** In order of time. */
  readonly lines: readonly RecordedLine[];
  /** Rows of the file that could not be read. */
  readonly skipped: number;
};

export type BenchRecordingIssue =
  | { readonly kind: 'not-a-recording' }
  | { readonly kind: 'newer'; readonly version: number }
  | { readonly kind: 'no-lines' };

export const recordingHead = (of: BenchHead): string =>
  `${JSON.stringify({ format: FORMAT, version: VERSION, ...of })}\n`;

export const recordingRow = (line: RecordedLine): string =>
  `${JSON.stringify({ t: Math.round(line.atMs), board: line.boardId, line: line.text })}\n`;

/** True when a text's first line says that it is a bench recording. */
export const isBenchRecording = (text: string): boolean => text.slice(0, 200).includes(`"${FORMAT}"`);

/** Reads a recording. A row that is damaged, as the last one after a crash, is left out and counted. Cannot throw. */
export function readBenchRecording(text: string): Result<BenchRecording, BenchRecordingIssue> {
  const rows = textLines(text);
  const first = parse(rows[0] ?? '');
  const read = head.safeParse(first);
  if (!read.success) return fail({ kind: 'not-a-recording' });
  if (read.data.version > VERSION) return fail({ kind: 'newer', version: read.data.version });
  const lines: RecordedLine[] = [];
  let skipped = 0;
  for (const one of rows.slice(1)) {
    if (one === '' || one.trim() === '') continue;
    const kept = skipped < MOST_DAMAGED || one.startsWith(USUAL_ROW) ? readRow(one) : null;
    if (kept) lines.push(kept);
    else skipped += 1;
  }
  if (lines.length === 0) return fail({ kind: 'no-lines' });
  const { garden, source, startedAt, simulated } = read.data;
  return ok({
    head: { garden, source, startedAt, simulated },
    lines: lines.sort((a, b) => a.atMs - b.atMs),
    skipped,
  });
}

const LONGEST_ROW = 3 * MOST_LINE_CHARS;
/** How every row begins that was written here. After so many damaged rows only those are tried, for each failure costs time. */
const USUAL_ROW = '{"t":';
const MOST_DAMAGED = 500;

/** One row, checked by hand: a session has tens of thousands. */
function readRow(text: string): RecordedLine | null {
  if (text.length > LONGEST_ROW || !text.startsWith('{')) return null;
  const read = parse(text);
  if (typeof read !== 'object' || read === null) return null;
  const { t, board, line } = read as {
    readonly t?: unknown;
    readonly board?: unknown;
    readonly line?: unknown;
  };
  if (typeof t !== 'number' || !isMoment(t)) return null;
  if (typeof board !== 'string' || board.length > 40) return null;
  if (typeof line !== 'string' || line.length > MOST_LINE_CHARS + 1) return null;
  return { boardId: board, text: line, atMs: t };
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}
