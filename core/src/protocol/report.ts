/**
 * What a board and a gateway say to each other over a network, HTTP or MQTT alike. A board has no clock that anybody believes, so everything that it tells is so
 * many seconds old; what it is told are lines of its console, so that one grammar serves both ways.
 */
import { fieldName, plainMessage } from '../quantity/fieldName.ts';
import { parseJson } from '../quantity/parseJson.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { z } from '../quantity/schema.ts';

/** A report larger than this is not read. */
export const MOST_REPORT_BYTES = 65_536;
/** A board that was alone for longer has forgotten; s. */
export const MOST_AGO_S = 30 * 86_400;
const MOST_NUMBER = 2_147_483_647;
/** As long as what can be typed. */
const MOST_LINE = 160;

const id = z.string().regex(/^[\w-]{1,60}$/, 'letters, digits, hyphens and underscores, at most 60');
const count = z.int().min(0).max(MOST_NUMBER);
const agoS = z.number().min(0).max(MOST_AGO_S);
/** One line of printable ASCII. */
const line = z
  .string()
  .max(MOST_LINE)
  .regex(/^[ -~]*$/, 'one line of plain letters');

const reading = z.strictObject({
  /** The name that the board prints it by. */
  n: z
    .string()
    .regex(/^[A-Za-z][\w.-]{0,59}$/, 'a letter, then letters, digits, points and hyphens, at most 60'),
  v: z.number().min(-1e9).max(1e9),
  agoS: agoS.default(0),
});

export const reportSchema = z.strictObject({
  /** Its id in the garden. */
  board: id,
  /** How often it has been switched on, or any number that differs from start to start: with another one, `seq` begins anew. */
  boot: count,
  /** Rises by one from report to report; one that was sent again keeps its number. */
  seq: count,
  /** Seconds since it was switched on. */
  upS: count,
  /** The name of the program that runs there; absent: none of ours. */
  program: z
    .string()
    .regex(/^[0-9a-f]{12}$/, 'twelve hexadecimal digits')
    .optional(),
  /** Of the settings that it holds; absent: those that were compiled in. */
  revision: count.optional(),
  readings: z.array(reading).max(500),
  /** Lines as at its console ("# stopped 1 dose-done 9 s 81 ml"), oldest first. */
  said: z
    .array(z.strictObject({ text: line, agoS: agoS.default(0) }))
    .max(100)
    .default([]),
  /** What became of orders; each is told until an answer comes. */
  orders: z
    .array(z.strictObject({ id, state: z.enum(['taken', 'refused', 'done']), why: line.optional() }))
    .max(20)
    .default([]),
});
export type Report = z.infer<typeof reportSchema>;

export const answerSchema = z.strictObject({
  /** The report that this answers: the board forgets what it kept up to it. */
  seq: count,
  /** Of the settings below; a board that holds this one is told none. */
  revision: count,
  /** Lines for its console, in order: "set 1 start 35.5". */
  settings: z.array(line).max(200),
  /** Each is given once: a board that has had an id does not take it again, and nobody takes one that is older than `liveS`. */
  orders: z.array(z.strictObject({ id, text: line, liveS: z.int().min(1).max(86_400) })).max(20),
  /** What other boards have read that this one goes by, by the ids of the channels: numbers as those boards print them, not older than a minute. */
  far: z
    .array(z.strictObject({ n: id, v: z.number().min(-1e9).max(1e9) }))
    .max(50)
    .default([]),
  /** Local time, Monday 0, and when the sun rises and sets; null: not known. */
  clock: z.strictObject({ daySecond: z.int().min(0).max(86_399), weekday: z.int().min(0).max(6) }).nullable(),
  sun: z.strictObject({ riseS: z.int().min(0).max(86_399), setS: z.int().min(0).max(86_399) }).nullable(),
  /** Seconds until the next report is wanted. */
  everyS: z.int().min(1).max(86_400),
});
export type Answer = z.infer<typeof answerSchema>;

export type ReportIssue =
  | { readonly kind: 'too-long' }
  | { readonly kind: 'not-json' }
  | { readonly kind: 'field'; readonly field: string; readonly message: string }
  /** The pack asks for something that must be understood, and is not. */
  | { readonly kind: 'not-understood'; readonly label: string };

/** Reads a report; all of it, or what is wrong with it first. Cannot throw. */
export function readReport(text: string): Result<Report, ReportIssue> {
  if (text.length > MOST_REPORT_BYTES) return fail({ kind: 'too-long' });
  const parsed = parseJson(text);
  return parsed === undefined ? fail({ kind: 'not-json' }) : checkReport(parsed);
}

export function checkReport(parsed: unknown): Result<Report, ReportIssue> {
  const read = reportSchema.safeParse(parsed);
  if (read.success) return ok(read.data);
  const [first] = read.error.issues;
  return fail({
    kind: 'field',
    field: first ? fieldName(first.path) : 'report',
    message: first ? plainMessage(first.message) : 'cannot be read',
  });
}

/** Both as JSON Schema, for whoever writes a board's side of their own. */
export const jsonSchemas = (): { readonly report: unknown; readonly answer: unknown } => ({
  report: z.toJSONSchema(reportSchema, { io: 'input' }),
  answer: z.toJSONSchema(answerSchema, { io: 'input' }),
});
