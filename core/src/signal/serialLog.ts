/**
 * A whole serial log, from a file or pasted: gives every line the time at which it is to be played back.
 *
 * Only full dates are real times. A time of day or an uptime keeps its distances and starts at `startMs`; a log without any
 * stamp gets one line each `intervalMs`. A line whose time would lie outside 2000 to 2100 is left out and counted. Such made-up times must never be kept as if they had been measured: see `stamps`.
 */
import { textLines } from '../quantity/textLines.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { isMoment } from '../quantity/moment.ts';
import { initialLineParser, parseLine } from './line.ts';
import type { TimeStamp } from './timeStamp.ts';

export type TimedLine = { readonly text: string; readonly atMs: number };

export type SerialLog = {
  readonly lines: readonly TimedLine[];
  /** Where the times come from; only `absolute` and `absolute-utc` (a date without an offset, taken as UTC) are real. */
  readonly stamps: 'absolute' | 'absolute-utc' | 'time-of-day' | 'uptime' | 'none';
  readonly understood: number;
  readonly notUnderstood: number;
  /** Lines left out because their time lies outside 2000 to 2100. */
  readonly badTimes: number;
};

export type SerialLogIssue =
  | { readonly kind: 'empty' }
  | { readonly kind: 'binary' }
  | { readonly kind: 'nothing-understood'; readonly lines: number; readonly firstLine: string }
  /** Every line that holds a reading has a date outside 2000 to 2100. */
  | { readonly kind: 'bad-times'; readonly lines: number; readonly firstLine: string };

const DAY_MS = 86_400_000;

/**
 * @param options.startMs   time of the first line when the log has no dates, ms since 1970
 * @param options.intervalMs distance of lines when the log has no stamps at all, ms, > 0
 * @param options.onProgress called now and then with the share done, 0..1
 */
export function readSerialLog(
  text: string,
  options: { startMs: number; intervalMs: number; onProgress?: (doneFrac: number) => void },
): Result<SerialLog, SerialLogIssue> {
  if (text.trim() === '') return fail({ kind: 'empty' });
  if (looksBinary(text)) return fail({ kind: 'binary' });
  const rows = textLines(text);
  const lines: TimedLine[] = [];
  const clock = new LogClock(options.startMs, options.intervalMs);
  let parser = initialLineParser;
  let understood = 0;
  let notUnderstood = 0;
  let badTimes = 0;
  let firstLine = '';
  let firstBad = '';
  for (let at = 0; at < rows.length; at += 1) {
    const row = rows[at] ?? '';
    if (row === '') continue;
    if (at % 5000 === 0) options.onProgress?.(at / rows.length);
    const parsed = parseLine(parser, row);
    parser = parsed.state;
    if (parsed.result.kind === 'blank') continue;
    if (firstLine === '') firstLine = row.trim().slice(0, 80);
    const values = parsed.result.kind === 'values' ? parsed.result : null;
    const atMs = values?.stamp?.kind === 'unbelievable' ? Number.NaN : clock.timeOf(values);
    if (values && !isMoment(atMs)) {
      badTimes += 1;
      if (firstBad === '') firstBad = row.trim().slice(0, 80);
      continue;
    }
    if (values) understood += 1;
    if (parsed.result.kind === 'not-understood') notUnderstood += 1;
    lines.push({ text: row, atMs });
  }
  if (understood === 0 && badTimes > 0)
    return fail({ kind: 'bad-times', lines: badTimes, firstLine: firstBad });
  if (understood === 0) return fail({ kind: 'nothing-understood', lines: lines.length, firstLine });
  return ok({ lines, stamps: clock.stamps, understood, notUnderstood, badTimes });
}

/** Text has no zero bytes, and hardly any control or replacement characters. */
export function looksBinary(text: string): boolean {
  const sample = text.slice(0, 4096);
  if (sample.includes('\u0000')) return true;
  const odd = sample.match(/[\u0001-\u0008\u000e-\u001f\ufffd]/g)?.length ?? 0;
  return odd > sample.length * 0.1;
}

/** Turns the stamps of one log, of whatever kind, into rising times. */
class LogClock {
  stamps: SerialLog['stamps'] = 'none';
  private nextMs: number;
  private lastMs: number | null = null;
  private firstStampMs: number | null = null;
  private lastStampMs = 0;
  private daysPassed = 0;

  constructor(
    private readonly startMs: number,
    private readonly intervalMs: number,
  ) {
    this.nextMs = startMs;
  }

  timeOf(values: { readonly stamp: TimeStamp | null } | null): number {
    const stamp = values?.stamp;
    if (!stamp || stamp.kind === 'unbelievable') {
      if (this.stamps !== 'none' && this.lastMs !== null) return this.lastMs;
      const atMs = this.nextMs;
      if (values) this.nextMs += this.intervalMs;
      return atMs;
    }
    this.lastMs = stamp.kind === 'absolute' ? this.absolute(stamp) : this.relative(stamp);
    return this.lastMs;
  }

  private absolute(stamp: TimeStamp & { kind: 'absolute' }): number {
    if (this.stamps !== 'absolute-utc') this.stamps = stamp.zoned ? 'absolute' : 'absolute-utc';
    return stamp.ms;
  }

  private relative(stamp: TimeStamp & { kind: 'time-of-day' | 'uptime' }): number {
    this.stamps = stamp.kind;
    if (this.firstStampMs === null) this.firstStampMs = stamp.ms;
    // Past midnight the time of day falls by nearly a day; a smaller step back is a late line, not a new day.
    else if (stamp.kind === 'time-of-day' && this.lastStampMs - stamp.ms > DAY_MS / 2) this.daysPassed += 1;
    this.lastStampMs = stamp.ms;
    return this.startMs + stamp.ms - this.firstStampMs + this.daysPassed * DAY_MS;
  }
}
